#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/heat/surface_temperature.h"
#include "evaluation/audit/audited_test.h"
#include "evaluation/heat_by_state.h"
#include "evaluation/light_words.h"
#include "evaluation/measured_spectra.h"
#include "record/claim_kinds.h"
#include "record/fact_sheet.h"

namespace sunbreak::evaluation {
namespace {

/// How what a tester checks beside the light is held against a claim.
struct Checked {
  std::string_view claim, fact;
  std::string_view instrument;  ///< that it takes
  double share = 0, plain = 0;  ///< usual ± (k = 2): a share of the value, or in the unit it is kept in
  int decimals = 0;
  ClaimSense sense = ClaimSense::AtLeast;
};

constexpr Checked checked_kinds[] = {
    {"weight_kg", "weight", "weigh it", 0.01, 0, 2},
    {"noise_db", "noise_db", "hold a sound level meter to it, with the fans at this setting", 0, 3, 0,
     ClaimSense::AtMost},
    {"dimming_steps", "dimming_steps", "count the steps at the dimmer", 0, 0, 0},
    {"color_temperature_k", "color_temperature_k", "it takes a spectrometer", 0.03, 0, 0},
    {"rendering_ra", "rendering_ra", "it takes a spectrometer", 0, 2, 0},
    {"uv_present", "uv_present", "it takes a spectrometer that reaches under 400 nm", 0, 0, 0},
    {"far_red_present", "far_red_present", "it takes a spectrometer that reaches over 700 nm", 0, 0, 0}};

/// Holds a claim of color against the spectrum that was measured here. False where there is none, or it does not tell.
bool audit_by_spectrum(const AuditedTest& test, const Checked& kind, AuditedClaim& a) {
  const bool of_color = a.claim.kind == "color_temperature_k" || a.claim.kind == "rendering_ra";
  const bool of_uv = a.claim.kind == "uv_present", of_far_red = a.claim.kind == "far_red_present";
  if (!of_color && !of_uv && !of_far_red) return false;
  const auto spectrum = spectrum_at_full(test.record());
  if (!spectrum) return false;
  const SpectrumFigures& f = spectrum->figures;
  if (of_uv || of_far_red) {
    const auto shown = of_uv ? shows_uv(f) : shows_far_red(f);
    if (!shown) return false;
    a.judgement = judge_presence(*a.claim.value != 0, *shown);
    a.measured_words = *shown ? "present" : "none";
    a.reason = fmt::format("By the spectrum measured here: {:.1f} % of its photons are {}, as far as it was measured.",
                           100 * (of_uv ? uv_share(f) : f.bands[5].share), of_uv ? "UV" : "far red");
    return true;
  }
  const bool temperature = a.claim.kind == "color_temperature_k";
  if (temperature ? !f.temperature : !f.rendering) return false;
  const ClaimUnit& unit = unit_of(a.claim);
  a.measured = unit.stated(temperature ? f.temperature->cct_k : f.rendering->ra);
  a.expanded = kind.share * std::abs(a.measured) + kind.plain / unit.factor;
  a.measured_words = found_text({a.measured, a.expanded}, kind.decimals, a.unit);
  judge(a, {}, kind.sense);
  a.reason = fmt::format("By the spectrum measured here: {}; ± is what is usual of spectrometers.", a.measured_words);
  if (!temperature && !f.rendering->within_standard())
    a.reason += " Its color is farther from its reference than color rendering is meant for.";
  return true;
}

/// Usual ± of a temperature, by how it was taken [K], k = 2.
constexpr double contact_expanded_k = 2, shot_expanded_k = 3;

/// Dials stand at a setting, or at full, to this [%].
constexpr double same_setting_pct = 0.5, near_full_pct = 1;

}  // namespace

void audit_checked(const AuditedTest& test, AuditedClaim& a) {
  const auto* kind = std::ranges::find(checked_kinds, a.claim.kind, &Checked::claim);
  const ClaimUnit& unit = unit_of(a.claim);
  const bool presence = claim_kind(a.claim.kind)->holds == ClaimKind::Presence;
  a.decimals = kind->decimals;
  if (audit_by_spectrum(test, *kind, a)) return;
  const BoxFact* fact = box_fact(test.record(), kind->fact, "checked");
  if (!fact)
    return not_testable(a, "It was not checked here.",
                        fmt::format("{}; note it as checked on the fixture's sheet", kind->instrument));
  if (presence) {
    a.judgement = judge_presence(*a.claim.value != 0, fact->words == "present");
    a.measured_words = fact->words;
    a.reason = "Checked here: " + fact->words + ".";
    return;
  }
  a.measured = unit.stated(*fact->value);
  a.expanded = kind->share * std::abs(a.measured) + kind->plain / unit.factor;
  a.measured_words =
      a.expanded > 0 ? found_text({a.measured, a.expanded}, kind->decimals, a.unit) : short_number(a.measured, 0);
  judge(a, {}, kind->sense);
  if (kind->share == 0 && kind->plain == 0) a.judgement = judge_count(*a.claim.value, *fact->value);
  a.reason = "Checked here: " + a.measured_words + (a.expanded > 0 ? "; ± is what is usual." : ".");
  if (a.claim.kind == "noise_db")
    if (const BoxFact* distance = box_fact(test.record(), "noise_distance_m", "checked"); distance && distance->value)
      a.reason += " At " + length_text(*distance->value, test.units()) + ".";
}

void audit_surface(const AuditedTest& test, AuditedClaim& a) {
  const std::vector<HeatRow> rows = heat_rows(test.record(), test.units());
  const auto hottest = hottest_of_fixture(rows, [&](const HeatRow& row) {
    if (a.claim.percent) return std::abs(row.percent.value_or(-1) - *a.claim.percent) <= same_setting_pct;
    return !row.percent || std::abs(*row.percent - 100) <= near_full_pct;
  });
  if (!hottest)
    return not_testable(a, "No surface temperature of the fixture is on record at that setting.",
                        "take the temperature of its hottest surface once it is stabilized");
  const auto taken = std::ranges::find(test.record().temperatures, hottest->row->id, &Temperature::id);
  const double expanded_k = taken->method == "contact" ? contact_expanded_k : shot_expanded_k;
  const ClaimUnit& unit = unit_of(a.claim);
  a.measured = unit.stated(hottest->celsius), a.expanded = expanded_k / unit.factor;
  a.measured_words = found_text({a.measured, a.expanded}, 0, a.unit);
  judge(a, {}, ClaimSense::AtMost);
  a.reason = fmt::format("The hottest place taken, {}: {}", hottest->row->place, a.measured_words);
  a.reason += hottest->row->rise_k
                  ? fmt::format(", {:.0f} {} over the air.", shown_rise(*hottest->row->rise_k, test.units()),
                                rise_unit(test.units()))
                  : "; the air was not taken beside it.";
  if (taken->bare_metal) a.reason += " It was bare metal, which reads low.";
}

void audit_lifetime(const AuditedTest&, AuditedClaim& a) {
  not_testable(a, "A lifetime is not told by a test of hours.",
               "test the same unit again after some thousand hours: the retest tells what light it lost");
}

}  // namespace sunbreak::evaluation
