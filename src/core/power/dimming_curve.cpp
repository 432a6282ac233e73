#include "core/power/dimming_curve.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "core/power/monotone_cubic.h"

namespace sunbreak {
namespace {

constexpr double same_dial_pct = 0.05, highest_dial_pct = 200, no_light_share = 0.002;
/// The range of a few normal deviates is under this many standard deviations nineteen times in twenty.
constexpr double range_by_chance = 3.9;

bool same(double a, double b) { return std::abs(a - b) < same_dial_pct; }

/// Light at full at one station against time: its readings, linear between them and constant outside.
class FullLight {
 public:
  void add(double time_s, const StairLight& light) { readings_.push_back({time_s, light.ppfd}); }
  double at(double time_s) const {
    if (time_s <= readings_.front().first) return readings_.front().second;
    for (std::size_t i = 1; i < readings_.size(); ++i) {
      const auto& [t0, e0] = readings_[i - 1];
      const auto& [t1, e1] = readings_[i];
      if (time_s < t1) return e0 + (e1 - e0) * (time_s - t0) / (t1 - t0);
    }
    return readings_.back().second;
  }
  double drift() const { return readings_.back().second / readings_.front().second - 1; }
  bool again() const { return readings_.size() > 1; }

 private:
  std::vector<std::pair<double, double>> readings_;
};

double mean(const std::vector<double>& values) {
  double sum = 0;
  for (const double v : values) sum += v;
  return sum / static_cast<double>(values.size());
}

std::optional<double> mean_or_none(const std::vector<double>& values) {
  return values.empty() ? std::nullopt : std::optional(mean(values));
}

std::optional<double> between(const std::vector<DimmingPoint>& rows, std::optional<double> DimmingPoint::*value,
                              double dial) {
  std::vector<double> x, y;
  for (auto row = rows.rbegin(); row != rows.rend(); ++row)
    if ((*row).*value) x.push_back(row->dial_pct), y.push_back(*((*row).*value));
  const auto curve = MonotoneCubic::through(x, y);
  if (!curve || dial < x.front() - same_dial_pct || dial > x.back() + same_dial_pct) return {};
  return curve.value().at(dial);
}

}  // namespace

Result<DimmingCurve> dimming_curve(std::span<const StairStep> given) {
  std::vector<StairStep> steps(given.begin(), given.end());
  std::stable_sort(steps.begin(), steps.end(), [](auto& a, auto& b) { return a.time_s < b.time_s; });
  DimmingCurve stair;
  double full = -1;
  bool any = false;
  for (const StairStep& s : steps) {
    if (!(s.dial_pct >= 0 && s.dial_pct <= highest_dial_pct))
      return Problem{fmt::format("a step is at {:g} % of the dial", s.dial_pct),
                     "a dimmer's dial goes from 0 to 100 %, with a boost to 200 % at most", "check that number"};
    any = any || s.power_w || !s.light.empty();
    if (!same(s.dial_pct, 0)) full = same(s.dial_pct, 100) || same(full, 100) ? 100 : std::max(full, s.dial_pct);
  }
  if (!any || full < 0)
    return Problem{"the stair has no step with light or watts", "there is nothing to work out",
                   "read one step at 100 % and one below it"};
  stair.full_dial_pct = full;
  if (!same(full, 100)) stair.full_is_guessed = fmt::format("100 % was not read: {:g} % counts as full.", full);

  std::map<int, FullLight> full_light;
  std::vector<double> full_watts, drifts;
  for (const StairStep& s : steps) {
    if (!same(s.dial_pct, full)) continue;
    if (s.power_w) full_watts.push_back(*s.power_w);
    for (const StairLight& l : s.light)
      if (l.ppfd > 0) full_light[l.station].add(s.time_s, l);
  }
  for (const auto& [station, light] : full_light)
    if (light.again()) drifts.push_back(light.drift());
  stair.drift = mean_or_none(drifts);

  std::sort(steps.begin(), steps.end(), [](auto& a, auto& b) { return a.dial_pct > b.dial_pct; });
  double widest = 0;
  for (auto step = steps.begin(); step != steps.end();) {
    const double dial = step->dial_pct;
    DimmingPoint row;
    row.dial_pct = dial;
    std::vector<double> watts, factors_of_power;
    std::map<int, std::vector<double>> factors;
    double error = 0;
    int errors = 0;
    for (; step != steps.end() && same(step->dial_pct, dial); ++step) {
      if (step->power_w) watts.push_back(*step->power_w);
      if (step->power_factor) factors_of_power.push_back(*step->power_factor);
      for (const StairLight& l : step->light)
        if (const auto of = full_light.find(l.station); of != full_light.end()) {
          factors[l.station].push_back(l.ppfd / of->second.at(step->time_s));
          if (l.error_share) error += *l.error_share, ++errors;
        }
    }
    row.power_w = mean_or_none(watts);
    row.power_factor = mean_or_none(factors_of_power);
    if (same(dial, 0)) {
      stair.standby_w = row.power_w;
      continue;
    }
    if (!factors.empty()) {
      std::vector<double> of_stations;
      for (const auto& [station, values] : factors) of_stations.push_back(mean(values));
      row.stations = static_cast<int>(of_stations.size());
      row.light_factor = mean(of_stations);
      row.off_linear = *row.light_factor - dial / full;
      if (row.stations > 1 && *row.light_factor > no_light_share) {
        const auto [low, high] = std::minmax_element(of_stations.begin(), of_stations.end());
        row.spread = (*high - *low) / *row.light_factor;
        const double by_chance = errors > 0 ? range_by_chance * std::sqrt(2.0) * error / errors : 0;
        if (*row.spread > std::max({one_pattern_spread, by_chance, widest})) {
          widest = *row.spread;
          stair.pattern_changes = fmt::format(
              "At {:g} % of the dial the light factor differs by {:.1f} % between the stations: the dimmer changes the "
              "pattern, and one factor will not do. Walk a sweep at the stops that matter.",
              dial, 100 * *row.spread);
        }
      }
      if (*row.light_factor > no_light_share) stair.lowest_pct = dial;
    }
    if (const auto full_w = mean_or_none(full_watts); full_w && *full_w > 0 && row.power_w)
      row.power_share = *row.power_w / *full_w;
    if (row.light_factor && row.power_share && *row.power_share > 0)
      row.relative_efficacy = *row.light_factor / *row.power_share;
    stair.rows.push_back(row);
  }
  return stair;
}

std::optional<double> DimmingCurve::light_factor_at(double dial_pct) const {
  return between(rows, &DimmingPoint::light_factor, dial_pct);
}

std::optional<double> DimmingCurve::power_at(double dial_pct) const {
  return between(rows, &DimmingPoint::power_w, dial_pct);
}

}  // namespace sunbreak
