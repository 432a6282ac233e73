#include <fmt/format.h>

#include "core/figures/figure_table.h"
#include "evaluation/audit/audited_test.h"
#include "evaluation/light_words.h"
#include "record/claim_kinds.h"

namespace sunbreak::evaluation {
namespace {

/// Power factors as meters show them.
constexpr double power_factor_expanded = 0.02;

double claimed_percent(const Claim& claim) { return claim.percent.value_or(100); }

/// What was measured, in the maker's own unit.
void put(AuditedClaim& a, const FoundValue& measured, int decimals) {
  const ClaimUnit& unit = unit_of(a.claim);
  a.decimals = decimals;
  a.measured = unit.stated(measured.value), a.expanded = measured.expanded / unit.factor;
  a.measured_words = found_text({a.measured, a.expanded}, decimals, a.unit);
}

/// As many as where the watts are read.
int watt_decimals(const Claim& claim) { return figure("power_w").decimals + (claim.unit == "kW" ? 3 : 0); }

}  // namespace

std::string WattsAtSetting::wall_words() const {
  return shown_told(figure("power_w"), wall.value, wall.expanded, UnitSystem::Metric).text();
}

void audit_power(const AuditedTest& test, AuditedClaim& a) {
  const double percent = claimed_percent(a.claim);
  const auto watts = test.watts(percent);
  if (!watts)
    return not_testable(a, "No watts at " + dial_words(percent) + " are on record.",
                        "read the wall meter at " + dial_words(percent));
  put(a, *watts, watt_decimals(a.claim));
  judge(a, std::vector<SurePart>{{"power", test.wall_meter_expanded()}});
  a.reason = fmt::format("At {} the wall meter reads {}.", dial_words(percent), a.measured_words);
  if (a.judgement.verdict == Verdict::Over) a.reason += " Badges often state a lamp without its ballast or driver.";
}

void audit_current(const AuditedTest& test, AuditedClaim& a) {
  const double percent = claimed_percent(a.claim);
  const auto amperes = test.wall_mean(percent, [](const WallReading& r) -> std::optional<double> {
    if (r.current_a) return r.current_a;
    if (r.apparent_va && r.voltage_v && *r.voltage_v > 0) return *r.apparent_va / *r.voltage_v;
    return {};
  });
  if (!amperes)
    return not_testable(a, "No current at " + dial_words(percent) + " is on record.",
                        "note what the wall meter shows in A at " + dial_words(percent));
  put(a, {*amperes, test.wall_meter_expanded() * *amperes}, a.claim.unit == "mA" ? 0 : 2);
  judge(a, std::vector<SurePart>{{"power", test.wall_meter_expanded()}});
  a.reason = fmt::format("At {} the wall meter reads {}", dial_words(percent), a.measured_words);
  const auto volts = test.wall_mean(percent, [](const WallReading& r) { return r.voltage_v; });
  a.reason += volts ? fmt::format(", at {:.0f} V.", *volts) : "; at which voltage is not on record.";
}

void audit_power_factor(const AuditedTest& test, AuditedClaim& a) {
  const double percent = claimed_percent(a.claim);
  auto factor = test.wall_mean(percent, [](const WallReading& r) -> std::optional<double> {
    if (r.power_factor) return r.power_factor;
    if (r.power_w && r.apparent_va && *r.apparent_va > 0) return *r.power_w / *r.apparent_va;
    if (r.power_w && r.voltage_v && r.current_a && *r.voltage_v * *r.current_a > 0)
      return *r.power_w / (*r.voltage_v * *r.current_a);
    return {};
  });
  for (const StairStop& stop : test.record().stair_stops)
    if (!factor && stop.percent == percent) factor = stop.power_factor;
  if (!factor)
    return not_testable(a, "No power factor at " + dial_words(percent) + " is on record.",
                        "note what the wall meter shows as power factor");
  put(a, {*factor, power_factor_expanded}, 2);
  judge(a, {});
  a.reason = fmt::format("At {} the wall meter shows {}; ± is the usual one of such meters.", dial_words(percent),
                         a.measured_words);
}

}  // namespace sunbreak::evaluation
