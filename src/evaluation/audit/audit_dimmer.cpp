#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/normal_quantile.h"
#include "evaluation/audit/audited_test.h"
#include "evaluation/light_words.h"
#include "evaluation/stair_records.h"
#include "record/fact_sheet.h"

namespace sunbreak::evaluation {
namespace {

/// Dials are read to this [%].
constexpr double dial_reading = 1;
/// Of a light factor that the stair tells, k = 2, relative.
constexpr double factor_expanded = 0.01;
/// A range that holds with less of a chance is not what was claimed.
constexpr double least_that_may_hold = 0.025;

/// A setting of the stair with what it makes of light and watts, in % of full; NaN where not read.
struct DimmedTo {
  double dial_pct = 0, light_pct = unread, watts_pct = unread;
  double least() const { return std::fmin(light_pct, watts_pct); }
};

DimmedTo dimmed_to(const DimmingPoint& p) {
  return {p.dial_pct, p.light_factor ? 100 * *p.light_factor : unread, p.power_share ? 100 * *p.power_share : unread};
}

std::string dimmed_words(const DimmedTo& d) {
  std::string words = fmt::format("at {} % of the dial", short_number(d.dial_pct, 1));
  if (!std::isnan(d.light_pct)) words += fmt::format(" {:.0f} % of the light", d.light_pct);
  if (!std::isnan(d.watts_pct))
    words += fmt::format("{} {:.0f} % of the watts", std::isnan(d.light_pct) ? "" : " and", d.watts_pct);
  return words;
}

/// The chance that what was read at a setting, `pct` of full, is on the right side of a bound, which it is off by so
/// much.
double chance_to_reach(double margin_pct, double pct) {
  return normal_share_below(margin_pct / (factor_expanded / 2 * pct));
}

/// The stair at a setting that it was read at; nothing where it does not know what full is.
std::optional<DimmingPoint> stair_row(const DimmingCurve& stair, double dial_pct) {
  if (stair.full_is_guessed) return {};
  for (const DimmingPoint& row : stair.rows)
    if (std::abs(row.dial_pct - dial_pct) <= dial_reading) return row;
  return {};
}

}  // namespace

void audit_dimming_range(const AuditedTest& test, AuditedClaim& a) {
  a.unit = "%";
  const double first = *a.claim.value;
  // An end that is not claimed is NaN.
  const double low = a.claim.value_to || first < 100 ? first : unread, high = a.claim.value_to ? *a.claim.value_to
                                                                              : first >= 100   ? first
                                                                                               : unread;
  const bool claims_low = !std::isnan(low), boosts = high > 100;
  a.claimed = claims_low ? low : 100, a.claimed_to = std::isnan(high) ? 100 : high;
  // What the tester found at the dial stands for itself.
  const auto checked = [&](const char* name) -> std::optional<double> {
    const BoxFact* fact = box_fact(test.record(), name, "checked");
    return fact ? fact->value : std::nullopt;
  };
  const auto checked_low = checked("dimming_low_pct"), checked_high = checked("dimming_high_pct");
  const bool narrower_low = claims_low && checked_low && *checked_low > low + dial_reading,
             narrower_high = checked_high && *checked_high < high - dial_reading;
  if (narrower_low || narrower_high) {
    a.measured = checked_low.value_or(a.claimed), a.measured_to = checked_high.value_or(a.claimed_to);
    a.measured_words = fmt::format("{:.0f} to {:.0f} %", a.measured, a.measured_to);
    a.judgement = {Verdict::Contradicted, unread, 0};
    a.reason = "The dimmer as checked goes from " + a.measured_words + ".";
    return;
  }
  const auto stair = stair_of(test.record());
  if (!stair)
    return not_testable(a, "The dimmer's stair was not run.",
                        fmt::format("run the stair from {:.0f} to {:.0f} %", a.claimed_to, a.claimed));
  const auto at_low = claims_low ? stair_row(stair.value(), low) : std::nullopt,
             at_high = boosts ? stair_row(stair.value(), high) : std::nullopt;
  if ((claims_low && !at_low) || (boosts && !at_high))
    return not_testable(a, "The stair was not read at the ends that are claimed.",
                        fmt::format("read the stair at {:.0f} %, and at 100 %", claims_low && !at_low ? low : high));
  double chance = 1;
  a.measured = a.claimed, a.measured_to = a.claimed_to;
  if (at_low) {
    const DimmedTo d = dimmed_to(*at_low);
    a.measured = d.least();
    a.reason = "The stair has " + dimmed_words(d) + ".";
    if (std::isnan(d.least()))
      return not_testable(a, "Neither light nor watts were read there.",
                          fmt::format("read the stair at {:.0f} %", low));
    chance = std::min(chance, chance_to_reach(low + dial_reading + telling_share * low - d.least(), d.least()));
  }
  if (at_high) {
    const DimmedTo d = dimmed_to(*at_high);
    const double most = std::fmax(d.light_pct, d.watts_pct);
    a.measured_to = most;
    a.reason += fmt::format("{}The stair has {}.", a.reason.empty() ? "" : " ", dimmed_words(d));
    // A boost that its ± does not set apart from full is none.
    const double over = most - 100 - 100 * factor_expanded;
    chance = std::min(chance, over > 0 ? chance_to_reach(most - 100, most) : 0);
  }
  a.judgement = judge_condition(chance, chance > least_that_may_hold);
  a.measured_words = fmt::format("{:.0f} to {:.0f} %", a.measured, a.measured_to);
  if (a.judgement.verdict == Verdict::Contradicted) a.reason += " That is not the range claimed.";
}

void audit_boost(const AuditedTest& test, AuditedClaim& a) {
  const double dial = *a.claim.value;
  a.unit = "%", a.claimed = dial;
  const auto stair = stair_of(test.record());
  const auto row = stair ? stair_row(stair.value(), dial) : std::nullopt;
  FoundValue light;
  if (row && row->light_factor) {
    light = {100 * *row->light_factor, 100 * factor_expanded};
  } else if (test.light() && test.light()->question().settings.size() > 1) {
    const auto full = test.setting(100), boosted = test.setting(dial);
    if (full && boosted && full.value().light_factor > 0)
      light = {100 * boosted.value().light_factor / full.value().light_factor,
               200 * std::hypot(full.value().light_sd, boosted.value().light_sd)};
  }
  if (std::isnan(light.value))
    return not_testable(a, fmt::format("Light at {} % was not read.", short_number(dial, 1)),
                        fmt::format("read the stair at {} % and at 100 %, with light", short_number(dial, 1)));
  a.measured = light.value, a.expanded = light.expanded;
  a.decimals = 1;
  a.measured_words = found_text(light, 1, "% of the light at 100 %");
  a.judgement = judge_figure(dial, light);
  const auto at_full = test.watts(100), at_boost = test.watts(dial);
  a.reason = fmt::format("At {} % it gives {}", short_number(dial, 1), a.measured_words);
  a.reason +=
      at_full && at_boost ? fmt::format(" for {:.0f} % of the watts.", 100 * at_boost->value / at_full->value) : ".";
}

}  // namespace sunbreak::evaluation
