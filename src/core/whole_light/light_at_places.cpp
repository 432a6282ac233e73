#include "core/whole_light/light_at_places.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <optional>
#include <utility>

#include "core/linear/products.h"
#include "core/whole_light/cubic_light.h"
#include "core/whole_light/residual_pattern.h"
#include "core/whole_light/whole_light_model.h"

namespace sunbreak {

/// A place as a mix of four stations.
struct StationMix {
  std::size_t station[4];
  double weight[4];
};

namespace {

struct LineBeside {
  std::size_t low, high;
  double share;
};

/// Between which two lines a place lies. Beyond the outer ones the outer line's value stays; `onward`: it goes on by
/// half of what it would straight.
LineBeside line_at(const std::vector<double>& lines, double place, bool onward) {
  if (lines.size() < 2) return {0, 0, 0};
  const auto above = std::clamp<std::ptrdiff_t>(std::upper_bound(lines.begin(), lines.end(), place) - lines.begin(), 1,
                                                static_cast<std::ptrdiff_t>(lines.size()) - 1);
  const auto high = static_cast<std::size_t>(above), low = high - 1;
  const double share = (place - lines[low]) / (lines[high] - lines[low]);
  const double within = std::clamp(share, 0.0, 1.0);
  return {low, high, onward ? (share + within) / 2 : within};
}

/// How places mix the stations of a layout; of loose spots each place has the one that it lies on, or none.
std::vector<StationMix> mixes_of(const Layout& layout, const std::vector<Vec3>& places, bool onward) {
  constexpr double same_place_m = 1e-3;
  std::vector<StationMix> mixes;
  for (const Vec3& place : places) {
    StationMix mix{{0, 0, 0, 0}, {0, 0, 0, 0}};
    if (layout.is_lattice()) {
      const LineBeside x = line_at(layout.xs_m, place.x, onward), y = line_at(layout.ys_m, place.y, onward);
      const auto at = [&](std::size_t column, std::size_t row) {
        return static_cast<std::size_t>(layout.index(static_cast<int>(column), static_cast<int>(row)));
      };
      mix = {{at(x.low, y.low), at(x.high, y.low), at(x.low, y.high), at(x.high, y.high)},
             {(1 - x.share) * (1 - y.share), x.share * (1 - y.share), (1 - x.share) * y.share, x.share * y.share}};
    } else {
      for (std::size_t i = 0; i < layout.stations.size(); ++i)
        if (std::hypot(layout.stations[i].x_m - place.x, layout.stations[i].y_m - place.y) < same_place_m)
          mix = {{i, i, i, i}, {1, 0, 0, 0}};
    }
    mixes.push_back(mix);
  }
  return mixes;
}

/// NaN where nothing is mixed, or where a station that matters is unknown.
double mixed_of(const StationMix& mix, std::span<const double> values) {
  double sum = 0, weights = 0;
  for (int k = 0; k < 4; ++k)
    if (mix.weight[k] != 0) sum += mix.weight[k] * values[mix.station[k]], weights += mix.weight[k];
  return weights == 0 ? unread : sum;
}

ResidualPattern pattern_of(const WholeLightQuestion& question, const WholeLight& found) {
  std::vector<Residuals> residuals;
  for (const auto& sweep : found.residuals) {
    residuals.push_back(sweep);
    for (double& r : residuals.back()) r = std::log1p(r);
  }
  for (const OddReading& odd : found.odd)
    residuals[static_cast<std::size_t>(odd.sweep)][static_cast<std::size_t>(odd.station)] = unread;
  return ResidualPattern(question, std::move(residuals), question.sweeps.front().ppfd.size(), unread);
}

}  // namespace

struct LightAtPlaces::Parts {
  const WholeLightQuestion& question;
  const WholeLight& found;
  BetweenWay way;
  std::size_t settings = 1;
  std::vector<StationMix> stations;
  // By the model alone.
  std::optional<ResidualPattern> pattern;
  ModelPlaces places;
  LobeRoom::Exchange exchange;

  /// By height.
  std::vector<std::vector<double>> by_cubic(std::span<const double> heights_m, int setting) const {
    const CubicLight cubic(question, setting, unread);
    const auto s = static_cast<std::size_t>(setting);
    const double factor = s < found.setting_factors.size() ? found.setting_factors[s].value : 1;
    const std::size_t count = question.sweeps.front().ppfd.size();
    std::vector<std::vector<double>> read(heights_m.size(), std::vector<double>(count)), light(heights_m.size());
    for (std::size_t i = 0; i < count; ++i) {
      const StationCurve curve = cubic.of(i);
      for (std::size_t h = 0; h < heights_m.size(); ++h) read[h][i] = curve.at(heights_m[h]) / factor;
    }
    for (std::size_t h = 0; h < heights_m.size(); ++h)
      for (const StationMix& mix : stations) light[h].push_back(mixed_of(mix, read[h]));
    return light;
  }

  std::vector<double> by_model(double height_m, int setting, std::span<const double> smooth) const {
    std::vector<double> factors(question.sweeps.front().ppfd.size()), light;
    for (std::size_t i = 0; i < factors.size(); ++i) factors[i] = pattern->at(setting, height_m, i);
    for (std::size_t i = 0; i < stations.size(); ++i) {
      const double factor = mixed_of(stations[i], factors);
      light.push_back(smooth[i] * (std::isnan(factor) ? 1 : factor));
    }
    return light;
  }
};

LightAtPlaces::LightAtPlaces(const WholeLightQuestion& question, const WholeLight& found, BetweenWay way,
                             std::vector<Vec3> places) {
  auto parts = std::make_unique<Parts>(Parts{question, found, way, 1, {}, {}, {}, {}});
  for (const FitSweep& sweep : question.sweeps)
    parts->settings = std::max(parts->settings, static_cast<std::size_t>(sweep.setting) + 1);
  parts->stations = mixes_of(question.sweeps.front().layout, places, way == BetweenWay::Cubic);
  if (way == BetweenWay::Model) {
    const WholeLightModel& model = *found.model;
    parts->pattern = pattern_of(question, found);
    parts->places = model.places(std::move(places));
    parts->exchange = model.room().exchange(model.parameters().reflectance(model.known.best.values));
  }
  parts_ = std::move(parts);
}

LightAtPlaces::~LightAtPlaces() = default;

std::vector<std::vector<std::vector<double>>> LightAtPlaces::at(std::span<const double> heights_m) const {
  const Parts& p = *parts_;
  std::vector<std::vector<std::vector<double>>> all(heights_m.size());
  if (p.way == BetweenWay::Cubic) {
    for (std::size_t setting = 0; setting < p.settings; ++setting) {
      auto by_height = p.by_cubic(heights_m, static_cast<int>(setting));
      for (std::size_t h = 0; h < heights_m.size(); ++h) all[h].push_back(std::move(by_height[h]));
    }
    return all;
  }
  const WholeLightModel& model = *p.found.model;
  std::vector<Hang> hangs;
  for (const double height : heights_m) hangs.push_back(model.parameters().hang_at(model.known.best.values, height));
  const Eigen::MatrixXd smooth = model.light_of(model.known.best, hangs, p.places, p.exchange);
  for (std::size_t h = 0; h < heights_m.size(); ++h)
    for (std::size_t setting = 0; setting < p.settings; ++setting)
      all[h].push_back(p.by_model(heights_m[h], static_cast<int>(setting),
                                  {smooth.col(static_cast<Eigen::Index>(h)).data(), p.stations.size()}));
  return all;
}

double LightAtPlaces::mean_expanded(double height_m, std::span<const double> weights) const {
  const Parts& p = *parts_;
  if (p.way == BetweenWay::Cubic) return unread;
  const WholeLightModel& model = *p.found.model;
  const FitUnknowns& best = model.known.best;
  const Hang hang = model.parameters().hang_at(best.values, height_m);
  const LobeRoom::Reflections reflections = p.exchange.reflections(p.places.gathering);
  ModelLight light = model.light(p.places, reflections, hang, best.values);
  constexpr int between_heights = -1;
  model.add_slopes(light, p.places, reflections, p.exchange, hang, between_heights, best);
  const Eigen::Map<const Eigen::VectorXd> w(weights.data(), static_cast<Eigen::Index>(weights.size()));
  Eigen::VectorXd slopes(mixes + model.parameters().size());
  slopes << turned_times(light.by_lobe, w), turned_times(light.by_parameter, w);
  const double mean = slopes.head(mixes).dot(best.flux);
  return std::hypot(model.known.expanded(slopes) / mean, model_error);
}

}  // namespace sunbreak
