#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/sweep/line_bracket.h"

namespace sunbreak {

/// A value that was not read.
inline constexpr double unread = __builtin_nan("");

/// The field sampled at the middles of equal small cells, front row first.
struct Raster {
  Rectangle area;
  int columns = 0, rows = 0;
  std::vector<double> ppfd;  ///< NaN where a station that the place depends on was not read

  double step_x_m() const { return area.width_m / columns; }
  double step_y_m() const { return area.depth_m / rows; }
  double sample_area_m2() const { return step_x_m() * step_y_m(); }
  double at(int column, int row) const { return ppfd[static_cast<std::size_t>(row) * columns + column]; }
};

inline constexpr double most_raster_samples = 4e6;
inline constexpr double raster_step_m = 0.01;  ///< that published areas are counted at

/// Where a raster's samples lie between the stations of a lattice: made once for many sweeps over the same lattice.
class RasterPlan {
 public:
  RasterPlan() = default;
  /// In cells as near to `step_m` as divides the area evenly, or coarser where that would be over most_raster_samples.
  RasterPlan(const Layout& layout, const Rectangle& area, double step_m);

  int columns() const { return static_cast<int>(across_.size()); }
  int rows() const { return static_cast<int>(along_.size()); }
  /// Gives a row of samples [columns()] of a sweep; `line` is room for one value a column of stations.
  void sample_row(std::span<const double> ppfd, int row, std::span<double> line, std::span<double> samples) const;
  int station_columns() const { return station_columns_; }

 private:
  int station_columns_ = 0;
  std::vector<LineBracket> across_, along_;
  std::vector<double> share_;  ///< of the samples of a row, as across_ has them
  std::vector<int> begins_;    ///< the first sample of each run between the same two station columns
};

/// The continuous field between stations: bilinear, keeping the outer value from the outer stations to the edge of the
/// measured area. Defined on lattices only. A place is unknown where any of the stations it depends on was not read.
class Field {
 public:
  /// `ppfd` holds one value a station [µmol m⁻² s⁻¹], NaN where unread; it is copied.
  Field(const Layout& layout, std::span<const double> ppfd);

  bool exists() const { return columns_ > 0; }

  const Rectangle& area() const { return area_; }
  /// The lines that the stations lie on, ascending [m].
  const std::vector<double>& xs_m() const { return xs_; }
  const std::vector<double>& ys_m() const { return ys_; }
  /// The value at the crossing of two of them.
  double at_station(int column, int row) const { return values_[static_cast<std::size_t>(row) * columns_ + column]; }

  /// PPFD at a place of the measured area [m from the front-left corner]; NaN where unknown.
  double at(double x_m, double y_m) const;

  /// Samples the measured area in cells as near to `step_m` as divides it evenly, or coarser where that would be over
  /// most_raster_samples.
  Raster raster(double step_m = raster_step_m) const { return raster(area_, step_m); }

  /// The same over part of the measured area.
  Raster raster(const Rectangle& area, double step_m) const;

 private:
  int columns_ = 0;
  Rectangle area_;
  std::vector<double> xs_, ys_, values_;
};

}  // namespace sunbreak
