#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "core/heat/surface_temperature.h"
#include "core/quantity/number.h"
#include "evaluation/audit/audited_test.h"
#include "evaluation/crop_targets.h"
#include "evaluation/heat_by_state.h"
#include "evaluation/light_words.h"
#include "evaluation/part_read.h"
#include "evaluation/recommended_sweep.h"
#include "evaluation/settle_field.h"
#include "record/claim_kinds.h"
#include "record/utc.h"

namespace sunbreak::evaluation {
namespace {

/// From here on light counts as even, and under here as uneven: lowest ÷ mean, as lighting practice has it for areas
/// that are to look evenly lit, and for those where nothing is asked.
constexpr double even_from = 0.7, uneven_under = 0.5;
/// From here on the brightest place is worth a warning [of the mean].
constexpr double hot_spot_from = 1.6;
/// A fall from switch-on from here on is worth waiting for.
constexpr double fall_from = 0.02;
constexpr double smallest_served_m = 0.2;

/// Sizes are told to whole centimeters or inches, cut: they are no surer.
double whole_step(double length_m, UnitSystem units) {
  const LengthUnit unit = surface_unit(units);
  return to_m(std::floor(from_m(length_m, unit) + 1e-6), unit);
}

/// Builds one sentence with the numbers it states.
class Sentence {
 public:
  Sentence(std::string slot, VerdictWords::Aspect aspect) {
    words_.slot = std::move(slot);
    words_.aspect = aspect;
  }
  Sentence& say(std::string_view text) {
    words_.drafted += text;
    return *this;
  }
  /// "424 ± 27 µmol/m²/s"; the first of a sentence is what it is tied to.
  Sentence& number(const std::string& figure, const FoundValue& value, int decimals, const std::string& unit) {
    words_.numbers.push_back({figure, value.value, value.expanded, decimals, unit});
    words_.drafted += found_text(value, decimals, unit);
    return *this;
  }
  Sentence& number(const std::string& figure, double value, int decimals, const std::string& unit) {
    return number(figure, {value, unread}, decimals, unit);
  }
  Sentence& length(const std::string& figure, double length_m, UnitSystem units) {
    const LengthUnit unit = surface_unit(units);
    words_.numbers.push_back({figure, from_m(length_m, unit), unread, 1, std::string(symbol(unit))});
    words_.drafted += length_text(length_m, units);
    return *this;
  }
  Sentence& size(const std::string& figure, double width_m, double depth_m, UnitSystem units) {
    const LengthUnit unit = surface_unit(units);
    for (const double side : {width_m, depth_m})
      words_.numbers.push_back({figure, from_m(side, unit), unread, 1, std::string(symbol(unit))});
    words_.drafted += size_text(width_m, depth_m, units);
    return *this;
  }
  Sentence& percent(const std::string& figure, double percent) {
    words_.numbers.push_back({figure, percent, unread, 1, "%"});
    words_.drafted += short_number(percent, 1) + " %";
    return *this;
  }
  Sentence& chance(const std::string& figure, double chance) {
    words_.numbers.push_back({figure, 100 * chance, unread, 0, "%"});
    words_.drafted += chance_text(chance);
    return *this;
  }
  /// As the maker states it.
  Sentence& claimed(const AuditedClaim& a) {
    return number("claim." + a.slot + ".claimed", a.claimed, decimals_of(short_number(a.claimed, 3)), a.unit);
  }
  /// "30 to 45 cm" of a claim, or of what was measured of it; one end where both are the same or only one is known.
  Sentence& range(const AuditedClaim& a, const char* which, double low, double high) {
    const std::string figure = "claim." + a.slot + which;
    if (!std::isnan(high) && high != low) number(figure, low, a.decimals, "").say(" to ");
    return number(figure + (high != low && !std::isnan(high) ? "_to" : ""), std::isnan(high) ? low : high, a.decimals,
                  a.unit);
  }
  /// What was said last is what the sentence is about; else the first number is.
  Sentence& tied() {
    words_.tied = words_.numbers.size() - 1;
    return *this;
  }
  VerdictWords done() { return std::move(words_); }

 private:
  VerdictWords words_;
};

void say_light(const AuditedTest& test, std::vector<VerdictWords>& words) {
  // The one that the page begins with.
  const RecommendedSweep shown = recommended_sweep(test.evaluation(), read_sweeps(test.evaluation()), test.units());
  if (!shown.sweep) return;
  const Rung* rung = test.record().rung(shown.sweep->rung_id);
  const Stop* stop = test.record().stop(shown.sweep->stop_id);
  if (!rung || !stop) return;
  const SweepFigures& f = *test.evaluation().figures(shown.sweep->id);
  const Budget* budget = test.evaluation().budget(shown.sweep->id, test.stop());
  if (!budget) return;
  const SweepView& view = *test.evaluation().view(shown.sweep->id);
  const Rectangle& area = view.layout.measured;
  const bool part = is_read_in_part(test.evaluation(), shown.sweep->id);
  if (part && !budget->whole("mean_ppfd")) return;
  const auto of = [&](const char* id, double value) {
    if (!part) return FoundValue{value, budget->expanded(id)};
    const EstimatedFigure whole = *budget->whole(id);
    return FoundValue{whole.value, whole.expanded};
  };
  Sentence light("light", VerdictWords::Light);
  light.say("It brings a mean of ")
      .number("mean_ppfd", of("mean_ppfd", f.mean_ppfd), 0, "µmol/m²/s")
      .say(" to ")
      .size("measured_area", area.width_m, area.depth_m, test.units())
      .say(" at ")
      .length("height", rung->height_m, test.units())
      .say(" and ")
      .percent("dimmer", stop->percent);
  if (shown.sweep->power_w) light.say(", for ").number("power_w", *shown.sweep->power_w, 0, "W");
  if (part) light.say(", estimated: " + part_read_words(test.evaluation(), shown.sweep->id));
  words.push_back(light.say(".").done());

  const auto [even, uncertain] = of("lowest_over_mean", f.evenness.lowest_over_mean);
  if (even >= even_from || even < uneven_under) {
    Sentence s("evenness", even >= even_from ? VerdictWords::Strength : VerdictWords::Weakness);
    s.say("At ")
        .length("height", rung->height_m, test.units())
        .say(even >= even_from ? " its light is even: lowest ÷ mean is " : " its light is uneven: lowest ÷ mean is ")
        .number("lowest_over_mean", {even, uncertain}, 2, "")
        .tied();
    words.push_back(s.say(".").done());
  }
  if (const double hot = f.highest.ppfd / f.mean_ppfd; hot >= hot_spot_from && !part) {
    Sentence s("hot_spot", VerdictWords::Watch);
    s.say("Mind the brightest place: at ")
        .length("height", rung->height_m, test.units())
        .say(" it reads ")
        .number("highest_ppfd", f.highest.ppfd, 0, "µmol/m²/s")
        .tied()
        .say(", ")
        .number("highest_over_mean", hot, 1, "times the mean");
    words.push_back(s.say(".").done());
  }
}

void say_whole_light(const AuditedTest& test, std::vector<VerdictWords>& words) {
  if (!test.fits()) return;
  const FoundValue efficacy = test.light()->efficacy_umol_j();
  if (std::isnan(efficacy.value)) return;
  Sentence s("efficacy", VerdictWords::Light);
  s.say("In all directions it gives ")
      .number("whole_efficacy_umol_j", efficacy, 2, "µmol per joule")
      .say(" at the wall, ")
      .number("whole_ppf_umol_s", test.light()->ppf_umol_s(), 0, "µmol/s")
      .say(" in all.");
  words.push_back(s.done());
}

/// Whether the light that the claims promise is there: by the claim of light, else by watts times efficacy; nothing
/// where neither tells.
std::optional<bool> gives_what_is_promised(const AuditedTest& test, const Audit& audit) {
  const auto claimed = [&](const char* kind) {
    return std::ranges::find_if(audit.claims, [&](const AuditedClaim& a) {
      return a.claim.kind == kind && a.claim.value && a.claim.percent.value_or(100) == 100;
    });
  };
  if (const auto ppf = claimed("ppf_umol_s"); ppf != audit.claims.end()) {
    const Verdict v = ppf->judgement.verdict;
    if (v == Verdict::Confirmed || v == Verdict::Over) return true;
    if (v == Verdict::Short || v == Verdict::Contradicted) return false;
    if (v == Verdict::NotToldApart) return {};
  }
  const auto watts = claimed("power_w"), efficacy = claimed("efficacy_umol_j");
  if (watts == audit.claims.end() || efficacy == audit.claims.end() || !test.fits()) return {};
  const FoundValue found = test.light()->ppf_umol_s();
  return found.value + found.expanded >= *watts->claim.value * *efficacy->claim.value;
}

/// What a claim's verdict is worth saying. `light_is_there`: what light is promised is given.
void say_claim(const AuditedClaim& a, const std::optional<bool>& light_is_there, std::vector<VerdictWords>& words) {
  using enum Verdict;
  const Verdict v = a.judgement.verdict;
  if (v == NotTestable || v == NotToldApart || std::isnan(a.measured)) return;
  static const std::set<std::string> more_is_better{"ppf_umol_s", "efficacy_umol_j", "map",
                                                    "equivalent", "mean_ppfd",       "evenness",
                                                    "boost_pct",  "power_factor",    "rendering_ra"};
  const bool better = v == Over && more_is_better.contains(a.claim.kind) && a.claim.says != "highest_over_lowest";
  // Less watts than on the badge, with the light that was promised, are no weakness.
  const bool frugal = a.claim.kind == "power_w" && v == Short && light_is_there.value_or(true);
  const VerdictWords::Aspect aspect = frugal                     ? VerdictWords::Light
                                      : v == Confirmed || better ? VerdictWords::Strength
                                                                 : VerdictWords::Weakness;
  Sentence s("claim." + a.slot, aspect);
  const std::string& label = a.label;
  if (a.claim.kind == "coverage" || a.claim.kind == "height_m") {
    // What serves a stage is said of each target; of a claim only that it does not hold.
    if (v == Confirmed) return;
    s.say(label + (v == Short ? " as claimed hardly holds: " : " as claimed does not hold: "));
    if (a.claim.kind == "coverage" && a.measured == 0)
      s.say("nothing about the middle is served where ")
          .number("claim." + a.slot + ".claimed", a.claimed, 0, a.unit)
          .say(" are claimed.");
    else if (a.claim.kind == "coverage")
      s.number("claim." + a.slot + ".measured", {a.measured, a.expanded}, 0, a.unit)
          .say(" along the longer side are served where ")
          .number("claim." + a.slot + ".claimed", a.claimed, 0, a.unit)
          .say(" are claimed.");
    else
      s.range(a, ".measured", a.measured, a.measured_to)
          .say(" does, ")
          .range(a, ".claimed", a.claimed, a.claimed_to)
          .say(" is claimed.");
    words.push_back(s.done());
    return;
  }
  if (a.claim.kind == "dimming_range") {
    if (v != Contradicted) return;
    s.say(label + " is not as claimed: ").range(a, ".measured", a.measured, a.measured_to).say(" measured, ");
    words.push_back(s.range(a, ".claimed", a.claimed, a.claimed_to).say(" claimed.").done());
    return;
  }
  if (frugal) {
    s.say("It draws less than its badge says: ")
        .number("claim." + a.slot + ".measured", {a.measured, a.expanded}, a.decimals, a.unit)
        .say(" measured, ")
        .claimed(a)
        .say(light_is_there ? " claimed, with the light that is promised." : " claimed.");
    words.push_back(s.done());
    return;
  }
  s.say(label)
      .say(v == Confirmed ? " is as claimed: "
           : v == Short   ? " falls short of the claim: "
           : v == Over    ? " is over the claim: "
                          : " is not as claimed: ")
      .number("claim." + a.slot + ".measured", {a.measured, a.expanded}, a.decimals, a.unit)
      .say(" measured, ")
      .claimed(a)
      .say(" claimed.");
  words.push_back(s.done());
}

/// The targets of the list in use, the test's own first.
std::vector<CropTarget> own_first(const AuditedTest& test) {
  std::vector<CropTarget> list = test.list();
  const auto own = target_of(list, test.record().test);
  if (!own) {
    list.insert(list.begin(), test.stage("")->target);
    return list;
  }
  const auto at = std::ranges::find_if(list, [&](const CropTarget& t) { return t.name == own->name; });
  std::rotate(list.begin(), at, at + 1);
  return list;
}

/// How the words on a target begin.
Sentence for_target(const CropTarget& target, const Band& band) {
  Sentence s("target." + target.name, VerdictWords::Use);
  s.say("For " + target.name + " (")
      .number("target_low_ppfd", band.low, 0, "")
      .say(" to ")
      .number("target_high_ppfd", band.high, 0, "µmol/m²/s")
      .say(", ")
      .number("photoperiod_h", target.photoperiod_h, 0, "h")
      .say(")");
  return s;
}

/// What is served of it where nothing serves the whole area.
void say_part(const AuditedTest& test, const Band& band, const Rectangle& area, const SettleRequest& request,
              const SettlePoint& nearest, Sentence& s) {
  const auto [dimmest, fullest] = test.light()->percents();
  const ServingVerdict verdict = judged(request.rule, band, nearest.figures);
  const auto at_nearest = [&] {
    s.say("at ")
        .length("settle_height", nearest.height->height_m, test.units())
        .say(" and ")
        .percent("settle_dimmer", nearest.setting.percent)
        .say(" the mean is ")
        .number("settle_mean_ppfd", nearest.figures.mean, 0, "µmol/m²/s")
        .tied()
        .say(", along the edge ")
        .number("settle_edge_ppfd", nearest.figures.edge, 0, "")
        .say(" (predicted)");
  };
  if (verdict.too_bright && !verdict.too_dim) {
    // Too bright is not that it serves nothing: less light was not read.
    s.say(dimmest == fullest ? " it is too bright at the one setting that was read: "
                             : " it is too bright at all settings that were read: ");
    at_nearest();
    s.say(dimmest == fullest
              ? ". Whether it serves dimmed is not known: run the dimmer's stair, or walk another setting."
              : ". Whether it serves dimmed further is not known: read a lower setting.");
    return;
  }
  const FloorLight* floor = area == known_area(*test.light()) ? test.floor() : nullptr;
  const ServedArea served =
      floor ? served_area(*floor, test.rule(), band, {area.width_m, area.depth_m}, {}, ServedSure::Without)
            : ServedArea{};
  if (served.scale * std::min(area.width_m, area.depth_m) >= smallest_served_m) {
    s.say(" it serves ")
        .size("served_area", whole_step(served.scale * area.width_m, test.units()),
              whole_step(served.scale * area.depth_m, test.units()), test.units())
        .tied()
        .say(" about the middle, at ")
        .length("settle_height", served.height_m, test.units())
        .say(" and ")
        .percent("settle_dimmer", served.percent)
        .say(" (predicted), not all of ")
        .size("settle_area", area.width_m, area.depth_m, test.units())
        .say(".");
    return;
  }
  s.say(verdict.too_dim && !verdict.too_bright ? " it is too dim here: at its nearest, "
                                               : " its light is too uneven here: at its nearest, ");
  at_nearest();
  s.say(".");
}

/// For each target of the list in use, the test's own first: how to run it for the area that is asked about, as Settle
/// answers, or else how much of it is served.
void say_uses(const AuditedTest& test, std::vector<VerdictWords>& words) {
  if (!test.light() || test.light()->question().fit.sweeps.empty()) return;
  const TestLight& light = *test.light();
  const Settling settling = settling_of(test.record());
  const Rectangle area = area_asked(settling, light);
  const auto& maps = test.maps(area);
  if (!maps) return;
  for (const CropTarget& target : own_first(test)) {
    if (test.stop().stop_requested()) return;
    const Band band = band_of(target, target.photoperiod_h);
    const SettleRequest request = request_asked(settling, test.record().test, light, band);
    const auto best = best_way(maps.value(), request, test.stop());
    if (!best) continue;
    const SettlePoint& p = best.value().point;
    Sentence s = for_target(target, band);
    if (best.value().met) {
      s.say(" hang it at ")
          .length("settle_height", p.height->height_m, test.units())
          .say(" and dim it to ")
          .percent("settle_dimmer", p.setting.percent)
          .say(": all of ")
          .size("settle_area", area.width_m, area.depth_m, test.units())
          .say(" is served with a chance of ")
          .chance("settle_chance", p.chance)
          .tied();
      if (p.setting.power_w) s.say(", for ").number("settle_power_w", *p.setting.power_w, 0, "W");
      s.say(" (predicted).");
    } else {
      say_part(test, band, area, request, p, s);
    }
    words.push_back(s.done());
  }
}

void say_watch(const AuditedTest& test, std::vector<VerdictWords>& words) {
  const std::vector<HeatRow> rows = heat_rows(test.record(), test.units());
  if (const auto hottest = hottest_of_fixture(rows); hottest && hottest->celsius >= burns_at_c) {
    Sentence s("heat", VerdictWords::Watch);
    s.say("It burns at a touch: its hottest place taken is at ")
        .number("surface_temperature", shown_temperature(hottest->celsius, test.units()), 0,
                std::string(temperature_unit(test.units())))
        .say(".");
    words.push_back(s.done());
  }
  if (const auto fall = fall_from_switch_on(test.record().lamp_events, test.evaluation().log()).light;
      fall && *fall >= fall_from) {
    Sentence s("warm_up", VerdictWords::Watch);
    s.say("Wait before you read it: its light falls by ")
        .number("fall_from_switch_on_pct", 100 * *fall, 1, "%")
        .say(" from switch-on until it is stabilized.");
    words.push_back(s.done());
  }
}

}  // namespace

std::vector<VerdictWords> drafted_words(const AuditedTest& test, const Audit& audit) {
  std::vector<VerdictWords> words;
  say_light(test, words);
  say_whole_light(test, words);
  const auto light_is_there = gives_what_is_promised(test, audit);
  for (const AuditedClaim& claim : audit.claims) say_claim(claim, light_is_there, words);
  say_uses(test, words);
  say_watch(test, words);
  take_own_words(words, test.record());
  return words;
}

const char* aspect_id(VerdictWords::Aspect aspect) {
  switch (aspect) {
    case VerdictWords::Light:
      return "light";
    case VerdictWords::Strength:
      return "strength";
    case VerdictWords::Weakness:
      return "weakness";
    case VerdictWords::Use:
      return "use";
    case VerdictWords::Watch:
      return "watch";
  }
  return "";
}

void take_own_words(std::vector<VerdictWords>& words, const TestRecord& record) {
  for (VerdictWords& w : words) {
    w.sentence = w.drafted;
    w.own = w.struck = w.figure_changed = false;
    const auto& own = record.verdict_sentences;
    const auto written = std::ranges::find(own, w.slot, &VerdictSentence::slot);
    if (written == own.end()) continue;
    w.struck = written->words.empty();
    w.own = !w.struck;
    if (w.own) w.sentence = written->words;
    w.figure_changed = written->drafted != w.drafted;
  }
}

}  // namespace sunbreak::evaluation
