#include <fmt/format.h>

#include <cmath>
#include <numeric>

#include "evaluation/audit/audited_test.h"
#include "evaluation/light_words.h"
#include "record/claim_kinds.h"

namespace sunbreak::evaluation {
namespace {

/// Power factors as meters show them.
constexpr double power_factor_expanded = 0.02;

double claimed_percent(const Claim& claim) { return claim.percent.value_or(100); }

std::string at_percent(double percent) { return fmt::format("{} %", short_number(percent, 1)); }

double mean_value(const std::vector<double>& values) {
  return std::accumulate(values.begin(), values.end(), 0.0) / static_cast<double>(values.size());
}

/// Numbers on the axis in the maker's own unit.
void put(AuditedClaim& a, const FoundValue& measured, int decimals) {
  const ClaimUnit& unit = unit_of(a.claim);
  a.unit = unit.symbol, a.decimals = decimals;
  a.claimed = unit.stated(*a.claim.value);
  a.measured = unit.stated(measured.value), a.expanded = measured.expanded / unit.factor;
  a.measured_words = found_text({a.measured, a.expanded}, decimals, a.unit);
}

int watt_decimals(const Claim& claim) { return claim.unit == "kW" ? 3 : 0; }

}  // namespace

void audit_power(const AuditedTest& test, AuditedClaim& a) {
  const double percent = claimed_percent(a.claim);
  const auto watts = test.watts(percent);
  if (!watts) {
    a.claimed = *a.claim.value;
    return not_testable(a, "No watts at " + at_percent(percent) + " are on record.",
                        "read the wall meter at " + at_percent(percent));
  }
  put(a, *watts, watt_decimals(a.claim));
  judge(a, std::vector<SurePart>{{"power", test.wall_meter_expanded()}});
  a.reason = fmt::format("At {} the wall meter reads {}.", at_percent(percent), a.measured_words);
  if (a.judgement.verdict == Verdict::Over) a.reason += " Badges often state a lamp without its ballast or driver.";
}

void audit_current(const AuditedTest& test, AuditedClaim& a) {
  const double percent = claimed_percent(a.claim);
  const auto amperes = test.wall_values(percent, [](const WallReading& r) -> std::optional<double> {
    if (r.current_a) return r.current_a;
    if (r.apparent_va && r.voltage_v && *r.voltage_v > 0) return *r.apparent_va / *r.voltage_v;
    return {};
  });
  if (amperes.empty()) {
    a.claimed = *a.claim.value;
    return not_testable(a, "No current at " + at_percent(percent) + " is on record.",
                        "note what the wall meter shows in A at " + at_percent(percent));
  }
  const double mean = mean_value(amperes);
  put(a, {mean, test.wall_meter_expanded() * mean}, a.claim.unit == "mA" ? 0 : 2);
  judge(a, std::vector<SurePart>{{"power", test.wall_meter_expanded()}});
  a.reason = fmt::format("At {} the wall meter reads {}", at_percent(percent), a.measured_words);
  const auto volts = test.wall_values(percent, [](const WallReading& r) { return r.voltage_v; });
  a.reason += volts.empty() ? "; at which voltage is not on record." : fmt::format(", at {:.0f} V.", mean_value(volts));
}

void audit_power_factor(const AuditedTest& test, AuditedClaim& a) {
  const double percent = claimed_percent(a.claim);
  auto factors = test.wall_values(percent, [](const WallReading& r) -> std::optional<double> {
    if (r.power_factor) return r.power_factor;
    if (r.power_w && r.apparent_va && *r.apparent_va > 0) return *r.power_w / *r.apparent_va;
    if (r.power_w && r.voltage_v && r.current_a && *r.voltage_v * *r.current_a > 0)
      return *r.power_w / (*r.voltage_v * *r.current_a);
    return {};
  });
  for (const StairStop& stop : test.record().stair_stops)
    if (factors.empty() && stop.power_factor && std::abs(stop.percent - percent) < 0.05)
      factors.push_back(*stop.power_factor);
  if (factors.empty()) {
    a.claimed = *a.claim.value;
    return not_testable(a, "No power factor at " + at_percent(percent) + " is on record.",
                        "note what the wall meter shows as power factor");
  }
  put(a, {mean_value(factors), power_factor_expanded}, 2);
  judge(a, {});
  a.reason = fmt::format("At {} the wall meter shows {}; ± is the usual one of such meters.", at_percent(percent),
                         a.measured_words);
}

}  // namespace sunbreak::evaluation
