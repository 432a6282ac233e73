#include "core/uncertainty/station_slopes.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {

namespace {

double known(double slope) { return std::isnan(slope) ? 0 : slope; }

/// Slope at `at` of the parabola through three neighboring places: at the outer stations too it is the slope there,
/// not that of the whole step inwards.
template <typename Value>
double parabola_slope(const std::vector<double>& places, int first, double at, Value value) {
  const double x0 = places[first], x1 = places[first + 1], x2 = places[first + 2];
  return known(value(first) * (2 * at - x1 - x2) / ((x0 - x1) * (x0 - x2)) +
               value(first + 1) * (2 * at - x0 - x2) / ((x1 - x0) * (x1 - x2)) +
               value(first + 2) * (2 * at - x0 - x1) / ((x2 - x0) * (x2 - x1)));
}

}  // namespace

std::vector<StationSlope> station_slopes(const Layout& layout, std::span<const double> values) {
  std::vector<StationSlope> slopes(values.size());
  if (!layout.is_lattice()) return slopes;
  const auto along = [](int here, const std::vector<double>& places, auto value) {
    const int last = static_cast<int>(places.size()) - 1;
    if (last < 2) return last < 1 ? 0.0 : known((value(1) - value(0)) / (places[1] - places[0]));
    return parabola_slope(places, std::clamp(here - 1, 0, last - 2), places[here], value);
  };
  for (std::size_t i = 0; i < values.size(); ++i) {
    const Station& s = layout.stations[i];
    slopes[i] = {along(s.column, layout.xs_m, [&](int c) { return values[layout.index(c, s.row)]; }),
                 along(s.row, layout.ys_m, [&](int r) { return values[layout.index(s.column, r)]; })};
  }
  return slopes;
}

std::vector<StationSlope> relative_slopes(const Layout& layout, std::span<const double> ppfd) {
  std::vector<double> logs;
  for (const double e : ppfd) logs.push_back(e > 0 ? std::log(e) : NAN);
  return station_slopes(layout, logs);
}

}  // namespace sunbreak
