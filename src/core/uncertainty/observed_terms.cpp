#include "core/uncertainty/observed_terms.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/uncertainty/station_slopes.h"

namespace sunbreak {
namespace {

constexpr double least_scatter = 0.001;

/// Mean square of the relative scatter that unsure places make at some stations.
template <typename Stations>
double by_places(std::span<const double> light, const std::vector<StationSlope>& slopes, double position_m,
                 const Stations& stations) {
  double squares = 0;
  int count = 0;
  for (const int i : stations) {
    if (!(light[i] > 0)) continue;
    squares += std::pow(position_m / light[i], 2) * (slopes[i].x * slopes[i].x + slopes[i].y * slopes[i].y);
    ++count;
  }
  return count > 0 ? squares / count : 0;
}

}  // namespace

InputQuantity repeatability_term(const Layout& layout, std::span<const double> ppfd, const ExpectedLight& expected,
                                 std::span<const Repeats> repeats, double position_m, double usual) {
  std::vector<int> stations;
  std::vector<RepeatedStation> values;
  for (const Repeats& r : repeats) stations.push_back(r.station), values.push_back(r.values);
  const std::vector<double>& light = expected.ppfd;
  const std::vector<StationSlope> slopes = station_slopes(layout, light);
  const auto without_places = [&](double sd, const std::vector<int>& at) {
    return std::max(least_scatter, std::sqrt(std::max(0.0, sd * sd - by_places(light, slopes, position_m, at))));
  };
  if (const auto seen =
          repeatability(values, std::sqrt(usual * usual + by_places(light, slopes, position_m, stations))))
    return {
        without_places(seen->relative_sd, stations), Origin::Measured,
        fmt::format("from {} stations read again, {} degrees of freedom", stations.size(), seen->degrees_of_freedom)};
  if (!std::isnan(expected.noise)) {
    stations.clear();
    for (std::size_t i = 0; i < ppfd.size(); ++i)
      if (!std::isnan(ppfd[i])) stations.push_back(static_cast<int>(i));
    return {without_places(expected.noise, stations), Origin::Measured,
            "from how readings scatter about a smooth surface"};
  }
  return {usual, Origin::Assumed, "usual for a reading taken with care"};
}

InputQuantity drift_term(const Drift& drift, double noise, double usual, double unseen) {
  if (!drift.exists()) return {unseen, Origin::Assumed, "the reference station was not read again"};
  const double unsure = noise * std::sqrt(2.0);
  if (drift.significant()) return {unsure, Origin::Measured, "scaled by the reference; its noise is left"};
  const double trust = usual * usual / (usual * usual + unsure * unsure);
  return {std::hypot(trust * drift.change(), std::sqrt(trust) * unsure), Origin::Measured,
          "what the reference leaves possible"};
}

}  // namespace sunbreak
