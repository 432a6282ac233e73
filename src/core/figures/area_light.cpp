#include "core/figures/area_light.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

#include "core/sweep/field.h"
#include "core/sweep/line_bracket.h"

namespace sunbreak {
namespace {

constexpr double same_m = 1e-6;

/// What the lines of a lattice count in something that is straight between them.
using LineWeights = std::vector<double>;

LineWeights at_place(const std::vector<double>& lines, double place) {
  LineWeights weights(lines.size());
  const LineBracket b = bracket_between(lines, place);
  weights[b.low] += 1 - b.share;
  weights[b.high] += b.share;
  return weights;
}

/// The integral from one place to another.
LineWeights along(const std::vector<double>& lines, double from, double to) {
  std::vector<double> knots{from};
  for (const double line : lines)
    if (line > from + same_m && line < to - same_m) knots.push_back(line);
  knots.push_back(to);
  LineWeights weights(lines.size());
  for (std::size_t i = 1; i < knots.size(); ++i) {
    const double half = (knots[i] - knots[i - 1]) / 2;
    for (const double end : {knots[i - 1], knots[i]}) {
      const LineBracket b = bracket_between(lines, end);
      weights[b.low] += half * (1 - b.share);
      weights[b.high] += half * b.share;
    }
  }
  return weights;
}

bool covers(const Rectangle& area, const Rectangle& other) {
  return area.left_m <= other.left_m + same_m && area.front_m <= other.front_m + same_m &&
         area.left_m + area.width_m >= other.left_m + other.width_m - same_m &&
         area.front_m + area.depth_m >= other.front_m + other.depth_m - same_m;
}

/// The mean distance between neighboring lines; of one line the side it stands in the middle of.
double pitch(const std::vector<double>& lines, double side_m) {
  return lines.size() < 2 ? side_m : (lines.back() - lines.front()) / static_cast<double>(lines.size() - 1);
}

}  // namespace

Rectangle edge_line(const Layout& stations, const Rectangle& area) {
  const auto &xs = stations.xs_m, &ys = stations.ys_m;
  const Rectangle& m = stations.measured;
  if (covers(area, m) && covers(m, area))
    return {xs.front(), ys.front(), xs.back() - xs.front(), ys.back() - ys.front()};
  // Never past the middle of a small area.
  const double dx = std::min(pitch(xs, m.width_m), area.width_m) / 2,
               dy = std::min(pitch(ys, m.depth_m), area.depth_m) / 2;
  return {area.left_m + dx, area.front_m + dy, std::max(0.0, area.width_m - 2 * dx),
          std::max(0.0, area.depth_m - 2 * dy)};
}

AreaPlan::AreaPlan(const Layout& layout, const Rectangle& area) : area_(area) {
  if (!layout.is_lattice() || layout.xs_m.empty() || layout.ys_m.empty()) return;
  const auto &xs = layout.xs_m, &ys = layout.ys_m;
  edge_line_ = sunbreak::edge_line(layout, area);
  using Sums = std::map<int, double>;
  const auto add = [&](Sums& sums, const LineWeights& x, const LineWeights& y) {
    for (std::size_t row = 0; row < y.size(); ++row)
      for (std::size_t column = 0; column < x.size(); ++column)
        if (const double w = x[column] * y[row]; w != 0)
          sums[layout.index(static_cast<int>(column), static_cast<int>(row))] += w;
  };
  const auto put = [](Weights& weights, const Sums& sums) {
    double total = 0;
    for (const auto& [station, w] : sums) total += w;
    for (const auto& [station, w] : sums) weights.emplace_back(station, w / total);
  };
  const double right = area.left_m + area.width_m, back = area.front_m + area.depth_m;
  Sums mean, edge, center, corners;
  if (layout.nine_point && covers(area, layout.measured)) {
    for (const Station& s : layout.stations) mean[layout.index(s.column, s.row)] = s.weight;
  } else {
    add(mean, along(xs, area.left_m, right), along(ys, area.front_m, back));
  }
  const Rectangle& e = edge_line_;
  const double x0 = e.left_m, x1 = e.left_m + e.width_m, y0 = e.front_m, y1 = e.front_m + e.depth_m;
  if (e.width_m <= same_m && e.depth_m <= same_m) {
    add(edge, at_place(xs, x0), at_place(ys, y0));
  } else {
    for (const double y : {y0, y1}) add(edge, along(xs, x0, x1), at_place(ys, y));
    for (const double x : {x0, x1}) add(edge, at_place(xs, x), along(ys, y0, y1));
  }
  for (const double y : {y0, y1})
    for (const double x : {x0, x1}) add(corners, at_place(xs, x), at_place(ys, y));
  const double middle_x = area.left_m + area.width_m / 2, middle_y = area.front_m + area.depth_m / 2;
  add(center, at_place(xs, middle_x), at_place(ys, middle_y));
  put(mean_, mean), put(edge_, edge), put(center_, center), put(corners_, corners);

  double nearest_m = std::numeric_limits<double>::infinity();
  int nearest = 0;
  for (const Station& s : layout.stations) {
    const int station = layout.index(s.column, s.row);
    if (s.x_m >= area.left_m - same_m && s.x_m <= right + same_m && s.y_m >= area.front_m - same_m &&
        s.y_m <= back + same_m)
      stations_.push_back(station);
    if (const double away = std::hypot(s.x_m - middle_x, s.y_m - middle_y); away < nearest_m)
      nearest_m = away, nearest = station;
  }
  if (stations_.empty()) stations_.push_back(nearest);
}

double AreaPlan::sum(const Weights& weights, std::span<const double> ppfd) {
  double sum = 0;
  for (const auto& [station, weight] : weights) sum += weight * ppfd[static_cast<std::size_t>(station)];
  return weights.empty() ? unread : sum;
}

std::vector<double> AreaPlan::dense(const Weights& weights, std::size_t stations) {
  std::vector<double> all(stations);
  for (const auto& [station, weight] : weights) all[static_cast<std::size_t>(station)] = weight;
  return all;
}

double AreaPlan::edge(std::span<const double> ppfd) const {
  double sum = 0, read = 0;
  for (const auto& [station, weight] : edge_)
    if (const double e = ppfd[static_cast<std::size_t>(station)]; !std::isnan(e)) sum += weight * e, read += weight;
  return read >= least_edge_read ? sum / read : unread;
}

double AreaPlan::lowest(std::span<const double> ppfd) const {
  double lowest = unread;
  for (const int s : stations_)
    if (const double e = ppfd[static_cast<std::size_t>(s)]; !std::isnan(e) && !(e >= lowest)) lowest = e;
  return lowest;
}

double AreaPlan::highest(std::span<const double> ppfd) const {
  double highest = unread;
  for (const int s : stations_)
    if (const double e = ppfd[static_cast<std::size_t>(s)]; !std::isnan(e) && !(e <= highest)) highest = e;
  return highest;
}

AreaLight AreaPlan::light(std::span<const double> ppfd) const {
  AreaLight light;
  light.mean = mean(ppfd), light.edge = edge(ppfd), light.center = center(ppfd), light.corners = corners(ppfd);
  light.lowest = lowest(ppfd), light.highest = highest(ppfd);
  for (const auto& [station, weight] : mean_)
    if (std::isnan(ppfd[static_cast<std::size_t>(station)])) light.read_share -= weight;
  return light;
}

void add_shares(AreaLight& light, const RasterPlan& raster, std::span<const double> ppfd, const Band& band) {
  std::vector<double> line(static_cast<std::size_t>(raster.station_columns())),
      samples(static_cast<std::size_t>(raster.columns()));
  int in_band = 0, dim = 0, bright = 0;
  for (int row = 0; row < raster.rows(); ++row) {
    raster.sample_row(ppfd, row, line, samples);
    for (const double e : samples) in_band += band.contains(e), dim += e<band.low, bright += e> band.high;
  }
  const double all = static_cast<double>(raster.columns()) * raster.rows();
  light.in_band = in_band / all, light.too_dim = dim / all, light.too_bright = bright / all;
}

}  // namespace sunbreak
