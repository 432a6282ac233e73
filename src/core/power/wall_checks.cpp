#include "core/power/wall_checks.h"

#include <fmt/format.h>

#include <cmath>

namespace sunbreak {
namespace {
constexpr double rounding = 0.01, factors_agree = 0.02;
}

std::vector<Finding> wall_checks(const WallSample& s) {
  std::vector<Finding> checks;
  if (s.power_factor && *s.power_factor > 1 + 1e-9)
    checks.push_back({"power factor over 1",
                      Severity::Bad,
                      {},
                      fmt::format("a power factor of {:.2f}", *s.power_factor),
                      "no load has one over 1: the number belongs to another quantity",
                      "read the meter again, and check which of its numbers is which"});
  if (s.watts && s.volts && s.amperes && *s.watts > *s.volts * *s.amperes * (1 + rounding))
    checks.push_back({"watts over volts times amperes",
                      Severity::Bad,
                      {},
                      fmt::format("{:.1f} W where {:.1f} V · {:.3f} A is {:.1f} VA", *s.watts, *s.volts, *s.amperes,
                                  *s.volts * *s.amperes),
                      "real power is never more than apparent power: one of the three is wrong",
                      "read all three again at the same moment"});
  if (s.watts && s.volt_amperes && s.power_factor && *s.volt_amperes > 0) {
    const double factor = *s.watts / *s.volt_amperes;
    if (std::abs(factor - *s.power_factor) > factors_agree)
      checks.push_back({"power factor unlike watts over volt-amperes",
                        Severity::Look,
                        {},
                        fmt::format("{:.1f} W over {:.1f} VA is {:.2f}, the meter says {:.2f}", *s.watts,
                                    *s.volt_amperes, factor, *s.power_factor),
                        "one of the three was read at another moment or wrongly",
                        "read them again once they hold still"});
  }
  return checks;
}

}  // namespace sunbreak
