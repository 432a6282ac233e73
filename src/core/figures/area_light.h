#pragma once

#include <span>
#include <utility>
#include <vector>

#include "core/bench/grid.h"
#include "core/figures/coverage.h"

namespace sunbreak {

/// How an area is lit: PPFD [µmol m⁻² s⁻¹] as a tester would find it there with a sensor, and shares of the area.
struct AreaLight {
  double mean = 0, edge = 0, center = 0, corners = 0;
  double lowest = 0, highest = 0;  ///< of stations, never between them
  double in_band = 0, too_dim = 0, too_bright = 0;
  double read_share = 1;  ///< of the area, by what each station counts in its mean
  double lowest_over_mean() const { return lowest / mean; }
};

/// The share of an edge's line that has to be read for a mean along it.
inline constexpr double least_edge_read = 0.9;

/// Takes the figures of an area from the values of a lattice's stations. The one place that says what edge, center and
/// corners of an area are, walked or predicted:
/// - the edge is the mean along a closed line. Of all that was measured it is the outermost line of stations; of
///   another area the line half a cell inside its border. Along it the field is straight between stations, so that each
///   station counts by the length of the line that it stands for;
/// - corners are those of that line, the center is the middle of the area;
/// - lowest and highest are of the stations that lie in the area.
class AreaPlan {
 public:
  AreaPlan() = default;
  /// Of a lattice of stations, and an area that may reach beyond them (the outer value holds there). An empty plan
  /// where the stations form no lattice.
  AreaPlan(const Layout& stations, const Rectangle& area);

  bool exists() const { return !mean_.empty(); }
  const Rectangle& area() const { return area_; }
  const Rectangle& edge_line() const { return edge_line_; }
  /// Indices of the stations in the area; where none is, the one nearest to its middle.
  const std::vector<int>& stations() const { return stations_; }

  /// Of one value a station; NaN where a station that it takes was not read.
  double mean(std::span<const double> ppfd) const { return sum(mean_, ppfd); }
  /// Over what was read of the line, where that is nine tenths of it or more.
  double edge(std::span<const double> ppfd) const;
  double center(std::span<const double> ppfd) const { return sum(center_, ppfd); }
  double corners(std::span<const double> ppfd) const { return sum(corners_, ppfd); }
  /// What each of so many stations counts in the mean, and in the edge.
  std::vector<double> mean_weights(std::size_t stations) const { return dense(mean_, stations); }
  std::vector<double> edge_weights(std::size_t stations) const { return dense(edge_, stations); }
  /// Over the stations in the area that were read; NaN where none was.
  double lowest(std::span<const double> ppfd) const;
  double highest(std::span<const double> ppfd) const;

  /// All of these, without shares.
  AreaLight light(std::span<const double> ppfd) const;

 private:
  /// Stations and what they count.
  using Weights = std::vector<std::pair<int, double>>;
  static double sum(const Weights& weights, std::span<const double> ppfd);
  static std::vector<double> dense(const Weights& weights, std::size_t stations);

  Rectangle area_, edge_line_;
  std::vector<int> stations_;
  Weights mean_, edge_, center_, corners_;
};

/// Counts which shares of an area are in a band, too dim, too bright, on the raster of a plan over it. A place that
/// depends on an unread station is in none.
void add_shares(AreaLight& light, const RasterPlan& raster, std::span<const double> ppfd, const Band& band);

/// The line along which an area's edge is read.
Rectangle edge_line(const Layout& stations, const Rectangle& area);

}  // namespace sunbreak
