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

double Field::at(double x_m, double y_m) const {
  if (!exists()) return unread;
  const auto x = bracket_between(xs_, x_m), y = bracket_between(ys_, y_m);
  const double* low = values_.data() + static_cast<std::size_t>(y.low) * columns_;
  const double* high = values_.data() + static_cast<std::size_t>(y.high) * columns_;
  const double front = low[x.low] + x.share * (low[x.high] - low[x.low]);
  const double back = high[x.low] + x.share * (high[x.high] - high[x.low]);
  return front + y.share * (back - front);
}

RasterPlan::RasterPlan(const Layout& layout, const Rectangle& area, double step_m) : station_columns_(layout.columns) {
  if (!layout.is_lattice()) return;
  // Coarser where the area is large for its step: never more samples than can be worked with.
  const double wanted = area.width_m / step_m * (area.depth_m / step_m);
  if (!(wanted <= most_raster_samples)) step_m *= std::sqrt(wanted / most_raster_samples);
  const auto count = [&](double length_m) {
    const double samples = std::round(length_m / step_m);
    return samples > 1 ? static_cast<int>(std::min(samples, most_raster_samples)) : 1;
  };
  const int columns = count(area.width_m), rows = count(area.depth_m);
  const double step_x_m = area.width_m / columns, step_y_m = area.depth_m / rows;
  for (int i = 0; i < columns; ++i) {
    across_.push_back(bracket_between(layout.xs_m, area.left_m + (i + 0.5) * step_x_m));
    share_.push_back(across_.back().share);
    if (i == 0 || across_[i].low != across_[i - 1].low || across_[i].high != across_[i - 1].high) begins_.push_back(i);
  }
  begins_.push_back(columns);
  for (int j = 0; j < rows; ++j) along_.push_back(bracket_between(layout.ys_m, area.front_m + (j + 0.5) * step_y_m));
}

void RasterPlan::sample_row(std::span<const double> ppfd, int row, std::span<double> line,
                            std::span<double> samples) const {
  const LineBracket& y = along_[row];
  const double* low = ppfd.data() + static_cast<std::size_t>(y.low) * station_columns_;
  const double* high = ppfd.data() + static_cast<std::size_t>(y.high) * station_columns_;
  for (int i = 0; i < station_columns_; ++i) line[i] = low[i] + y.share * (high[i] - low[i]);
  for (std::size_t run = 0; run + 1 < begins_.size(); ++run) {
    const LineBracket& x = across_[begins_[run]];
    const double from = line[x.low], rise = line[x.high] - from;
    for (int i = begins_[run]; i < begins_[run + 1]; ++i) samples[i] = from + share_[i] * rise;
  }
}

Raster Field::raster(const Rectangle& area, double step_m) const {
  Raster raster;
  raster.area = area;
  if (!exists()) return raster;
  Layout lattice;
  lattice.columns = columns_, lattice.rows = static_cast<int>(ys_.size());
  lattice.xs_m = xs_, lattice.ys_m = ys_;
  const RasterPlan plan(lattice, area, step_m);
  raster.columns = plan.columns();
  raster.rows = plan.rows();
  raster.ppfd.resize(static_cast<std::size_t>(raster.columns) * raster.rows);
  std::vector<double> line(columns_);
  for (int j = 0; j < raster.rows; ++j)
    plan.sample_row(values_, j, line,
                    std::span(raster.ppfd).subspan(static_cast<std::size_t>(j) * raster.columns, raster.columns));
  return raster;
}

}  // namespace sunbreak
