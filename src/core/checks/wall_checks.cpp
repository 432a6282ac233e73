#include "core/checks/wall_checks.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace sunbreak {
namespace {
constexpr double rounding = 0.01, factors_agree = 0.02, product_agrees = 0.05, product_rounding_w = 1;
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
  if (s.watts && s.volts && s.amperes && s.power_factor) {
    const double product = *s.volts * *s.amperes * *s.power_factor;
    if (std::abs(*s.watts - product) > product_agrees * std::max(*s.watts, product) + product_rounding_w)
      checks.push_back({"watts unlike volts times amperes times power factor",
                        Severity::Bad,
                        {},
                        fmt::format("{:.1f} W where {:.1f} V · {:.3f} A · {:.2f} is {:.1f} W", *s.watts, *s.volts,
                                    *s.amperes, *s.power_factor, product),
                        "one of the four was read wrongly, or at another moment",
                        "read all four again at the same moment"});
  }
  const bool volts_off = s.volts && (*s.volts < least_mains_v || *s.volts > most_mains_v);
  const bool hertz_off = s.hertz && (*s.hertz < least_mains_hz || *s.hertz > most_mains_hz);
  if (volts_off || hertz_off)
    checks.push_back({"mains that no socket has",
                      Severity::Bad,
                      {},
                      volts_off ? fmt::format("{:.1f} V", *s.volts) : fmt::format("{:.2f} Hz", *s.hertz),
                      "the number belongs to another quantity, or the meter is broken",
                      "read the meter again, and check which of its numbers is which"});
  return checks;
}

}  // namespace sunbreak
