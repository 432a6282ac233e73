#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "core/power/monotone_cubic.h"
#include "evaluation/light_words.h"
#include "evaluation/lineup/way_light.h"
#include "evaluation/stair_records.h"

namespace sunbreak::evaluation {
namespace {

constexpr double at_the_end = 1e-9;

struct DialPoint {
  double light_factor = 1;  ///< beside the walked setting
  std::optional<double> power_w;
};

/// Light and watts over the dial: of the settings walked at the same height, and of the stair brought to them.
std::map<double, DialPoint> dial_of(const WayLight& light, const Evaluation& evaluation) {
  const TestRecord& record = evaluation.record();
  std::map<double, DialPoint> dial;
  const double full = evaluation.figures(light.sweep->id)->mean_ppfd;
  const Rung* here = record.rung(light.sweep->rung_id);
  for (const Sweep& sweep : record.sweeps) {
    const Rung* rung = record.rung(sweep.rung_id);
    const Stop* stop = record.stop(sweep.stop_id);
    const SweepFigures* f = evaluation.figures(sweep.id);
    if (sweep.confirms || !rung || !stop || !f || record.apart(sweep.id) || f->missing > 0 ||
        std::abs(rung->height_m - here->height_m) > hung_alike_m)
      continue;
    dial[stop->percent] = {f->mean_ppfd / full, sweep.power_w};
  }
  dial[light.percent] = {1, light.power_w};
  if (const auto stair = stair_of(record)) {
    const auto factor_here = stair.value().light_factor_at(light.percent),
               power_here = stair.value().power_at(light.percent);
    for (const DimmingPoint& row : stair.value().rows)
      if (row.light_factor && factor_here && *factor_here > 0 && row.power_w && !dial.contains(row.dial_pct))
        dial[row.dial_pct] = {*row.light_factor / *factor_here, light.power_w && power_here && *power_here > 0
                                                                    ? *row.power_w * *light.power_w / *power_here
                                                                    : *row.power_w};
  }
  return dial;
}

}  // namespace

std::optional<Problem> dim(WayLight& light, const Evaluation& evaluation, const LineUpWay& way) {
  if (!light.power_w)
    return Problem{"no watts were read with it", "its dimmer cannot be set by them", "note the watts of that sweep"};
  const auto dial = dial_of(light, evaluation);
  const double center = evaluation.figures(light.sweep->id) ? [&] {
    const auto f = sweep_figures(light.layout, light.ppfd, {});
    return f ? f->center_ppfd : unread;
  }() : unread;
  // What is asked for, what each setting has of it, and the dial by it.
  const bool by_watts = way.power_w.has_value();
  const double wanted = by_watts ? *way.power_w : *way.center_ppfd;
  std::map<double, double> percents, factors, powers;
  for (const auto& [percent, point] : dial) {
    if (!point.power_w) continue;
    const double at = by_watts ? *point.power_w : center * point.light_factor;
    if (!std::isfinite(at)) continue;
    percents[at] = percent, factors[at] = point.light_factor, powers[at] = *point.power_w;
  }
  const std::string unit = by_watts ? "W" : "µmol/m²/s at the center";
  if (percents.empty()) return Problem{"its center was not read", "it cannot be dimmed to it", "read the center"};
  const double least = percents.begin()->first, most = percents.rbegin()->first;
  if (wanted > most * (1 + at_the_end))
    return Problem{fmt::format("it has {:.0f} {} at most", most, unit), fmt::format("it does not reach {:.0f}", wanted),
                   "choose less"};
  if (wanted < least * (1 - at_the_end))
    return Problem{fmt::format("its light is known down to {:.0f} {}", least, unit), "what it gives below is not known",
                   dial.size() > 1 ? "read its stair further down" : "read its stair, or walk another setting"};
  double factor = factors.begin()->second, percent = percents.begin()->second, power = powers.begin()->second,
         slope = 0;
  const auto factor_at = MonotoneCubic::through(factors), percent_at = MonotoneCubic::through(percents),
             power_at = MonotoneCubic::through(powers);
  if (factor_at && percent_at && power_at) {
    factor = factor_at->at(wanted), percent = percent_at->at(wanted), power = power_at->at(wanted);
    const double step = 0.01 * wanted, low = std::max(least, wanted - step), high = std::min(most, wanted + step);
    slope = std::log(factor_at->at(high) / factor_at->at(low)) / std::log(high / low);
  }
  const bool walked = dial.contains(percent) && std::abs(factor - dial.at(percent).light_factor) < at_the_end;
  if (percent == light.percent && factor == 1) return {};
  for (double& e : light.ppfd) e *= factor;
  BudgetQuestion& q = light.budget;
  for (double& e : q.expected_ppfd) e *= factor;
  // A center that was set by reading it is as unsure as that reading.
  q.level.value = std::hypot(q.level.value, walked ? 0 : stair_sd, by_watts ? 0 : q.repeatability.value);
  light.light_per_watt = by_watts ? slope : 0;
  light.light_factor *= factor;
  light.changes.push_back(fmt::format("Dimmed to {} %, {:.0f} W: {} of the light at {} %, by {} (± {} %).",
                                      short_number(percent, 1), power, short_number(factor, 3),
                                      short_number(light.percent, 1), walked ? "a walked setting" : "the stair",
                                      plain_number(walked ? 0 : 200 * stair_sd, 1)));
  light.percent = percent, light.power_w = power;
  light.as_walked = false;
  return {};
}

}  // namespace sunbreak::evaluation
