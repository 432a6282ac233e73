#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/checks/plausibility.h"
#include "core/figures/figure_table.h"
#include "evaluation/audit/audited_test.h"
#include "evaluation/crop_targets.h"
#include "evaluation/light_words.h"
#include "evaluation/part_read.h"
#include "record/claim_kinds.h"

namespace sunbreak::evaluation {
namespace {

constexpr double same_height_m = 0.002, same_dial = 0.05;

/// What keeps the whole light from being known, if anything does.
bool lacks_whole_light(const AuditedTest& test, AuditedClaim& a) {
  if (!test.light()) {
    not_testable(a, "No sweep has readings.", "walk two heights");
    return true;
  }
  if (!test.fits()) {
    const WholeLight& found = test.light()->found();
    not_testable(a, "The fixture's whole light is not known: " + found.reason + ".", found.advice);
    return true;
  }
  return false;
}

/// Whole light at a setting, with its ±; the Problem says why not.
Result<FoundValue> whole_ppf(const AuditedTest& test, double percent) {
  const auto setting = test.setting(percent);
  if (!setting) return setting.problem();
  const FoundValue ppf = test.light()->ppf_umol_s();
  const double factor = setting.value().light_factor,
               relative = std::hypot(ppf.expanded / ppf.value, 2 * setting.value().light_sd);
  return FoundValue{ppf.value * factor, relative * ppf.value * factor};
}

/// What the claimed efficacy makes of the watts read: not a measurement.
std::string efficacy_times_watts(const AuditedTest& test, double percent) {
  const auto watts = test.watts(percent);
  const auto claims = claims_of(test.record());
  const auto efficacy =
      std::ranges::find_if(claims, [most = efficacy_ceiling(test.evaluation().photons_per_joule())](const Claim& c) {
        return c.kind == "efficacy_umol_j" && c.value && *c.value <= most;
      });
  if (!watts || efficacy == claims.end()) return {};
  return fmt::format(
      " The claimed {} µmol/J times the {:.0f} W read would be {:.0f} µmol/s: that is the claim at the "
      "watts drawn, no measurement.",
      short_number(*efficacy->value, 3), watts->value, *efficacy->value * watts->value);
}

bool stands_for_its_area(const AuditedTest& test, const Sweep& sweep) {
  return test.evaluation().figures(sweep.id) && !is_read_in_part(test.evaluation(), sweep.id);
}

/// The measured sweep that a claim's height and setting name; null where none was walked there.
const Sweep* walked_at(const AuditedTest& test, double height_m, double percent) {
  for (const Sweep& sweep : test.record().sweeps) {
    const Rung* rung = test.record().rung(sweep.rung_id);
    const Stop* stop = test.record().stop(sweep.stop_id);
    if (rung && stop && !sweep.confirms && std::abs(rung->height_m - height_m) < same_height_m &&
        std::abs(stop->percent - percent) < same_dial && stands_for_its_area(test, sweep))
      return &sweep;
  }
  return nullptr;
}

/// A figure of one sweep with its ±; NaN where it has none.
FoundValue figure_of(const AuditedTest& test, Id sweep_id, const std::string& id) {
  const SweepView* view = test.evaluation().view(sweep_id);
  const SweepFigures* figures = test.evaluation().figures(sweep_id);
  const Budget* budget = test.evaluation().budget(sweep_id, test.stop());
  if (!view || !figures || !budget) return {};
  const Figure& f = figure(id);
  return {f.value(FigureSource(view->layout, view->ppfd, *figures)), budget->expanded(id)};
}

/// The most even of the walked sweeps by a ratio.
const Sweep* most_even_walked(const AuditedTest& test, const std::string& id, bool less_is_better) {
  const Sweep* best = nullptr;
  double most = -INFINITY;
  for (const Sweep& sweep : test.record().sweeps) {
    if (sweep.confirms || !stands_for_its_area(test, sweep)) continue;
    const double value = figure_of(test, sweep.id, id).value, worth = less_is_better ? -value : value;
    if (worth > most) most = worth, best = &sweep;
  }
  return best;
}

std::string where_words(const AuditedTest& test, const Sweep& sweep) {
  const Rung* rung = test.record().rung(sweep.rung_id);
  const Stop* stop = test.record().stop(sweep.stop_id);
  return fmt::format("{} and {}", length_text(rung->height_m, test.units()), dial_words(stop->percent));
}

}  // namespace

void audit_ppf(const AuditedTest& test, AuditedClaim& a) {
  if (lacks_whole_light(test, a)) {
    a.reason += efficacy_times_watts(test, a.claim.percent.value_or(100));
    return;
  }
  const double percent = a.claim.percent.value_or(100);
  const auto ppf = whole_ppf(test, percent);
  if (!ppf)
    return not_testable(a, "The light at " + dial_words(percent) + " is not known: " + ppf.problem().seen + ".",
                        ppf.problem().remedy);
  a.measured = ppf.value().value, a.expanded = ppf.value().expanded;
  a.measured_words = found_text(ppf.value(), 0, "µmol/s");
  judge(a, test.light_parts(false));
  a.reason =
      fmt::format("Whole light at {}: {}, found from all readings together.", dial_words(percent), a.measured_words) +
      efficacy_times_watts(test, percent);
}

void audit_efficacy(const AuditedTest& test, AuditedClaim& a) {
  const double claimed = *a.claim.value, percent = a.claim.percent.value_or(100);
  a.decimals = 2;
  const auto photons = test.evaluation().photons_per_joule();
  const double ceiling = efficacy_ceiling(photons);
  if (claimed > ceiling) {
    a.judgement = judge_efficacy(claimed, {}, {}, ceiling).judgement;
    a.reason = fmt::format("It is more than {}: the claim is impossible as light.", ceiling_words(photons));
    return;
  }
  if (lacks_whole_light(test, a)) return;
  const auto ppf = whole_ppf(test, percent);
  if (!ppf) return not_testable(a, "The light at " + dial_words(percent) + " is not known.", ppf.problem().remedy);
  const auto watts = test.watts(percent);
  if (!watts) return not_testable(a, "No watts are on record.", "read the wall meter at " + dial_words(percent));
  const double value = ppf.value().value / watts->value,
               relative = std::hypot(ppf.value().expanded / ppf.value().value, watts->expanded / watts->value);
  const FoundValue measured{value, relative * value};
  a.measured = measured.value, a.expanded = measured.expanded;
  a.measured_words = found_text(measured, 2, "µmol/J");
  const DriverLosses losses = a.claim.says == "with driver"      ? DriverLosses::Counted
                              : a.claim.says == "without driver" ? DriverLosses::LeftOut
                                                                 : DriverLosses::NotSaid;
  judge(a, test.light_parts(true));
  const EfficacyJudgement e = judge_efficacy(claimed, losses, measured, ceiling);
  a.judgement = e.judgement;
  a.reason = fmt::format("Whole light over the watts at the wall, at {}: {}.", dial_words(percent), a.measured_words);
  if (e.impossible_measurement) {
    a.reason += fmt::format(" That is more than {}: the measurement is impossible.", ceiling_words(photons));
    a.lifts = "read watts and the sensor's factor again";
  } else if (!std::isnan(e.driver_share.value) && losses == DriverLosses::LeftOut) {
    a.reason += fmt::format(
        " The claim leaves the driver out; a driver that loses {} of the watts would explain it, "
        "where {:.0f} to {:.0f} % are usual.",
        found_text({100 * e.driver_share.value, 100 * e.driver_share.expanded}, 0, "%"), 100 * usual_driver_share[0],
        100 * usual_driver_share[1]);
    if (e.judgement.verdict == Verdict::NotTestable)
      a.lifts = "ask the maker for the efficacy at the wall: what the driver loses cannot be read from outside";
  } else if (e.judgement.verdict == Verdict::Short) {
    a.reason += fmt::format(" {} Without the driver's losses a driver's share of {} would explain it.",
                            losses == DriverLosses::Counted ? "The claim says that it counts the driver."
                                                            : "Whether the claim counts the driver is not said.",
                            found_text({100 * e.driver_share.value, 100 * e.driver_share.expanded}, 0, "%"));
  }
}

void audit_beam(const AuditedTest& test, AuditedClaim& a) {
  if (lacks_whole_light(test, a)) return;
  const FoundValue half = test.light()->found().half_angle_deg;
  if (std::isnan(half.value))
    return not_testable(a, "The beam's angle is not told by the readings.", "walk one more height");
  a.measured = 2 * half.value, a.expanded = 2 * half.expanded;
  a.measured_words = found_text({a.measured, a.expanded}, 0, "°");
  judge(a, std::vector<SurePart>{{"fit", a.expanded / a.measured}});
  a.reason =
      "The full angle at which the intensity has halved, from the fit of all readings: " + a.measured_words + ".";
}

void audit_evenness(const AuditedTest& test, AuditedClaim& a) {
  const ClaimUnit& unit = unit_of(a.claim);
  a.decimals = a.unit == "%" ? 0 : 2;
  if (!test.light()) return not_testable(a, "No sweep has readings.", "walk a height");
  const auto three = [&](const Sweep& sweep) {
    return fmt::format("lowest ÷ mean {:.2f}, lowest ÷ highest {:.2f}, highest ÷ lowest {:.2f}",
                       figure_of(test, sweep.id, "lowest_over_mean").value,
                       figure_of(test, sweep.id, "lowest_over_highest").value,
                       figure_of(test, sweep.id, "highest_over_lowest").value);
  };
  if (a.claim.says.empty()) {
    const Sweep* even = most_even_walked(test, "lowest_over_mean", false);
    return not_testable(
        a,
        !even ? "Which ratio is meant is not said."
              : fmt::format("Which ratio is meant is not said; at {}: {}.", where_words(test, *even), three(*even)),
        "note which ratio the maker means");
  }
  const bool less_is_better = a.claim.says == "highest_over_lowest";
  const ClaimSense sense = less_is_better ? ClaimSense::AtMost : ClaimSense::AtLeast;
  const double percent = a.claim.percent.value_or(
      test.light()->question().settings.empty() ? 100 : test.light()->question().settings.front().percent);
  const Sweep* walked = a.claim.height_m ? walked_at(test, *a.claim.height_m, percent)
                                         : most_even_walked(test, a.claim.says, less_is_better);
  FoundValue measured;
  std::string where;
  std::vector<SurePart> parts;
  if (walked) {
    measured = figure_of(test, walked->id, a.claim.says);
    where = (a.claim.height_m ? "Walked at " : "The most even height walked, ") + where_words(test, *walked);
    parts = test.sweep_parts(walked->id, a.claim.says);
  } else if (a.claim.height_m) {
    const auto predicted = test.light()->between(*a.claim.height_m, percent, figure_context(test.record().test));
    if (!predicted)
      return not_testable(a, "The light there is not known: " + predicted.problem().seen + ".",
                          "walk " + length_text(*a.claim.height_m, test.units()));
    const PredictedFigures& p = predicted.value();
    const auto at = static_cast<std::size_t>(figure_index(a.claim.says));
    measured = {figure(a.claim.says).value(FigureSource(p.layout, p.ppfd, p.figures)), p.figure_expanded[at]};
    where = fmt::format("Predicted for {} and {}", length_text(*a.claim.height_m, test.units()), dial_words(percent));
  }
  if (std::isnan(measured.value))
    return not_testable(a, "That ratio is not known of any sweep.", "walk a whole height");
  a.measured = unit.stated(measured.value), a.expanded = measured.expanded / unit.factor;
  a.measured_words = found_text({a.measured, a.expanded}, a.decimals, a.unit);
  judge(a, parts, sense);
  a.reason = fmt::format("{}: {}{}.", where, a.measured_words, walked ? " (" + three(*walked) + ")" : std::string());
}

}  // namespace sunbreak::evaluation
