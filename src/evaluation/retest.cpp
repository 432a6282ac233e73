#include "evaluation/retest.h"

#include <fmt/format.h>

#include <cmath>

#include "core/figures/figure_table.h"
#include "core/quantity/uncertain_text.h"
#include "evaluation/budget_question.h"
#include "evaluation/light_words.h"
#include "evaluation/shared_parts.h"

namespace sunbreak::evaluation {
namespace {

constexpr double alike_height_m = 0.005, alike_setting_pct = 0.5, same_side_m = 0.01, few_hours = 50;

const Sweep* counterpart(const TestRecord& earlier, double height_m, double percent) {
  for (const Sweep& sweep : earlier.sweeps) {
    const Rung* rung = earlier.rung(sweep.rung_id);
    const Stop* stop = earlier.stop(sweep.stop_id);
    if (!sweep.confirms && rung && stop && std::abs(rung->height_m - height_m) <= alike_height_m &&
        std::abs(stop->percent - percent) <= alike_setting_pct)
      return &sweep;
  }
  return nullptr;
}

PatternNoise noise_of(const Evaluation& evaluation, const Sweep& sweep, const SweepView& view) {
  const BudgetQuestion q = budget_question(evaluation.record(), sweep, view, evaluation.views());
  return {q.repeatability.value, q.position_m.value, q.height_m.value, q.slope_per_m};
}

RetestedSweep held_against(const Evaluation& now, const Sweep& sweep, const Evaluation& earlier, const Sweep& other) {
  RetestedSweep r;
  r.sweep_id = sweep.id, r.earlier_id = other.id;
  r.height_m = now.record().rung(sweep.rung_id)->height_m;
  r.percent = now.record().stop(sweep.stop_id)->percent;
  const Budget &mine = *now.budget(sweep.id), &its = *earlier.budget(other.id);
  const auto shared = shared_parts(now.record(), sweep, earlier.record(), other);
  const auto change = [&](std::string_view id, double repeats) {
    const auto k = static_cast<std::size_t>(figure_index(id));
    return FigureChange{mine.values[k] / its.values[k],
                        std::hypot(ratio_uncertainty(mine, its, id, shared), 2 * std::sqrt(2.0) * repeats)};
  };
  r.mean = change("mean_ppfd", 0);
  r.power = change("power_w", watts_repeat);
  r.efficacy = change("canopy_efficacy_umol_j", watts_repeat);
  const SweepView &view = *now.view(sweep.id), &before = *earlier.view(other.id);
  if (grid_of(sweep) == grid_of(other) && view.ppfd.size() == before.ppfd.size())
    r.pattern = pattern_change(view.layout, view.ppfd, before.ppfd, noise_of(now, sweep, view),
                               noise_of(earlier, other, before));
  return r;
}

/// Over all pairs alike: the mean change, as sure as the pairs are on average, since what they share is most of it.
FigureChange mean_change(const Retest& retest) {
  double logs = 0, expanded = 0;
  int count = 0;
  for (const RetestedSweep& s : retest.sweeps)
    if (s.mean.known()) logs += std::log(s.mean.ratio), expanded += s.mean.expanded, ++count;
  if (count == 0) return {std::nan(""), std::nan("")};
  return {std::exp(logs / count), expanded / count};
}

std::string place_words(const RetestedSweep& s, UnitSystem units) {
  return fmt::format("{} and {:.4g} %", length_text(s.height_m, units), s.percent);
}

/// "Light fell by 4.2 ± 1.1 %" for a change beyond its ±, or that it stayed within it.
std::string change_sentence(const char* what, const FigureChange& c, const std::string& where) {
  const Told change = sunbreak::told(c.percent(), 100 * c.ratio * c.expanded, 1);
  if (!c.beyond())
    return fmt::format("{} is the same {}: {} %, within ± {} %.", what, where, change.value, change.expanded);
  return fmt::format("{} {} by {} % {}.", what, c.ratio < 1 ? "fell" : "rose",
                     uncertain_text(std::abs(c.percent()), 100 * c.ratio * c.expanded, 1), where);
}

}  // namespace

Retest retest_of(const Evaluation& now, const Evaluation& earlier) {
  const TestRecord &mine = now.record(), &its = earlier.record();
  Retest r;
  r.earlier_title = title_of(its);
  r.earlier_on = its.test.tested_on;
  r.same_unit = mine.test.retest_unit != "another";
  r.same_sensor = same_meter(mine.meter(mine.test.sensor_id), its.meter(its.test.sensor_id));
  if (r.same_unit && mine.test.hours_run && its.test.hours_run)
    r.hours_between = *mine.test.hours_run - *its.test.hours_run;
  const bool same_footprint = std::abs(mine.bench.width_m - its.bench.width_m) <= same_side_m &&
                              std::abs(mine.bench.depth_m - its.bench.depth_m) <= same_side_m;
  for (const Sweep& sweep : mine.sweeps) {
    const SweepView* view = now.view(sweep.id);
    const Rung* rung = mine.rung(sweep.rung_id);
    const Stop* stop = mine.stop(sweep.stop_id);
    if (sweep.confirms || !view || view->read() == 0 || !rung || !stop) continue;
    const Sweep* other = same_footprint ? counterpart(its, rung->height_m, stop->percent) : nullptr;
    const SweepView* before = other ? earlier.view(other->id) : nullptr;
    if (!before || before->read() == 0) {
      ++r.alone;
      continue;
    }
    r.sweeps.push_back(held_against(now, sweep, earlier, *other));
  }
  if (const FigureChange all = mean_change(r); r.hours_between && *r.hours_between >= few_hours && all.known()) {
    const double thousands = *r.hours_between / 1000;
    r.decay_pct_per_1000h = {-all.percent() / thousands, 100 * all.ratio * all.expanded / thousands};
  }
  return r;
}

std::string change_text(const FigureChange& c) {
  if (!c.known()) return "–";
  return uncertain_difference(c.percent(), 100 * c.ratio * c.expanded, 1, "%");
}

std::vector<std::string> retest_sentences(const Retest& r, UnitSystem units) {
  std::vector<std::string> words;
  if (r.sweeps.empty()) {
    words.push_back(fmt::format(
        "Nothing can be held against {}: it has no sweep with readings at a height and setting of this test, over a "
        "footprint of this size.",
        r.earlier_title));
    return words;
  }
  for (const RetestedSweep& s : r.sweeps) {
    const std::string where = "at " + place_words(s, units);
    if (s.mean.known()) words.push_back(change_sentence("Light", s.mean, where));
    if (s.power.known() && s.power.beyond()) words.push_back(change_sentence("Power", s.power, where));
    if (s.pattern && s.pattern->farthest >= 0)
      words.push_back(
          s.pattern->beyond
              ? fmt::format(
                    "Its pattern changed {}: by {} % over the stations, where re-hanging and reading make {} %.", where,
                    plain_number(100 * s.pattern->rms, 1), plain_number(100 * s.pattern->expected_rms, 1))
              : fmt::format("Its pattern is the same {}: {} % over the stations, where {} % can be expected.", where,
                            plain_number(100 * s.pattern->rms, 1), plain_number(100 * s.pattern->expected_rms, 1)));
  }
  if (!r.same_unit)
    words.push_back("Another unit of the model: what differs is between units, not age.");
  else if (r.hours_between && *r.hours_between < 0)
    words.push_back(
        "The hours run are fewer than at the earlier test: lamps were renewed, or one of the two is mistyped. No decay "
        "is stated.");
  else if (r.decay_pct_per_1000h) {
    const auto [decay, sure] = *r.decay_pct_per_1000h;
    words.push_back(std::abs(decay) > sure
                        ? fmt::format("Over {:.0f} h of running the light {} by {} % in 1,000 h.", *r.hours_between,
                                      decay > 0 ? "fell" : "rose", uncertain_text(std::abs(decay), sure, 2))
                        : fmt::format("Over {:.0f} h of running no decay beyond ± {} % in 1,000 h is seen.",
                                      *r.hours_between, sunbreak::told(sure, sure, 2).expanded));
  } else if (r.hours_between) {
    words.push_back(fmt::format("Only {:.0f} h were run between the tests: too few for a decay.", *r.hours_between));
  } else {
    words.push_back("Hours run are not stated for both tests: no decay is stated.");
  }
  if (!r.same_sensor)
    words.push_back(
        "The tests were read with different sensors, or one calibrated in between: both their calibrations count.");
  if (r.alone > 0)
    words.push_back(
        fmt::format("{} sweep{} no counterpart in the earlier test.", r.alone, r.alone == 1 ? " has" : "s have"));
  return words;
}

}  // namespace sunbreak::evaluation
