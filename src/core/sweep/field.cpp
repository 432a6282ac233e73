#include "core/sweep/field.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {

Field::Field(const Layout& layout, std::span<const double> ppfd)
    : columns_(layout.columns),
      area_(layout.measured),
      xs_(layout.xs_m),
      ys_(layout.ys_m),
      values_(ppfd.begin(), ppfd.end()) {}

Field::Bracket Field::bracket(const std::vector<double>& places, double place) {
  const int last = static_cast<int>(places.size()) - 1;
  if (place <= places.front()) return {0, 0, 0};
  if (place >= places.back()) return {last, last, 0};
  const int high = static_cast<int>(std::upper_bound(places.begin(), places.end(), place) - places.begin());
  const double share = (place - places[high - 1]) / (places[high] - places[high - 1]);
  // A place on a station's own line does not depend on the next line, which may be unread.
  if (share == 0) return {high - 1, high - 1, 0};
  return {high - 1, high, share};
}

double Field::at(double x_m, double y_m) const {
  if (!exists()) return unread;
  const Bracket x = bracket(xs_, x_m), y = bracket(ys_, y_m);
  const double* low = values_.data() + static_cast<std::size_t>(y.low) * columns_;
  const double* high = values_.data() + static_cast<std::size_t>(y.high) * columns_;
  const double front = low[x.low] + x.share * (low[x.high] - low[x.low]);
  const double back = high[x.low] + x.share * (high[x.high] - high[x.low]);
  return front + y.share * (back - front);
}

Raster Field::raster(const Rectangle& area, double step_m) const {
  Raster raster;
  raster.area = area;
  if (!exists()) return raster;
  // Coarser where the area is large for its step: never more samples than can be worked with.
  const double wanted = area.width_m / step_m * (area.depth_m / step_m);
  if (!(wanted <= most_raster_samples)) step_m *= std::sqrt(wanted / most_raster_samples);
  const auto count = [&](double length_m) {
    const double samples = std::round(length_m / step_m);
    return samples > 1 ? static_cast<int>(std::min(samples, most_raster_samples)) : 1;
  };
  raster.columns = count(area.width_m);
  raster.rows = count(area.depth_m);
  raster.ppfd.resize(static_cast<std::size_t>(raster.columns) * raster.rows);

  std::vector<Bracket> across(raster.columns);
  for (int i = 0; i < raster.columns; ++i) across[i] = bracket(xs_, area.left_m + (i + 0.5) * raster.step_x_m());
  std::vector<double> line(columns_);
  for (int j = 0; j < raster.rows; ++j) {
    const Bracket y = bracket(ys_, area.front_m + (j + 0.5) * raster.step_y_m());
    const double* low = values_.data() + static_cast<std::size_t>(y.low) * columns_;
    const double* high = values_.data() + static_cast<std::size_t>(y.high) * columns_;
    for (int i = 0; i < columns_; ++i) line[i] = low[i] + y.share * (high[i] - low[i]);
    double* out = raster.ppfd.data() + static_cast<std::size_t>(j) * raster.columns;
    for (int i = 0; i < raster.columns; ++i) {
      const Bracket& x = across[i];
      out[i] = line[x.low] + x.share * (line[x.high] - line[x.low]);
    }
  }
  return raster;
}

}  // namespace sunbreak
