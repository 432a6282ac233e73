#include "core/bench/infer_grid.h"

#include <algorithm>
#include <cmath>
#include <string>

namespace sunbreak {
namespace {

constexpr double tolerance_of_spacing = 0.08;

struct Axis {
  int count = 0;
  double margin_m = 0;
  std::vector<int> lines;  ///< one a place
};

/// Lines `origin + i · spacing`, i = 0 … count−1, that all places lie on; nothing where one does not.
std::optional<std::vector<int>> on_lines(std::span<const double> places, double origin, double spacing, int count) {
  std::vector<int> lines;
  lines.reserve(places.size());
  for (const double place : places) {
    const double at = (place - origin) / spacing;
    const double line = std::round(at);
    if (!(std::abs(at - line) <= tolerance_of_spacing) || line < 0 || line >= count) return {};
    lines.push_back(static_cast<int>(line));
  }
  return lines;
}

int count_distinct(std::span<const double> places) {
  std::vector<double> sorted(places.begin(), places.end());
  std::sort(sorted.begin(), sorted.end());
  return static_cast<int>(std::unique(sorted.begin(), sorted.end()) - sorted.begin());
}

std::optional<Axis> fit_axis(std::span<const double> places, double length_m, GridKind kind,
                             std::optional<double> margin_m) {
  const int distinct = count_distinct(places);
  double origin = 0, span = length_m;
  Axis axis;
  if (kind == GridKind::Inset) {
    const auto [low, high] = std::minmax_element(places.begin(), places.end());
    axis.margin_m = margin_m.value_or((*low + length_m - *high) / 2);
    if (axis.margin_m < 0 || 2 * axis.margin_m >= length_m) return {};
    origin = axis.margin_m;
    span = length_m - 2 * axis.margin_m;
  }
  const int fewest = kind == GridKind::Cells ? 1 : 2;
  for (int count = std::max(fewest, std::min(distinct, 2000)); count <= std::min(2 * distinct, 2000); ++count) {
    const double spacing = kind == GridKind::Cells ? span / count : span / (count - 1);
    const double first = kind == GridKind::Cells ? spacing / 2 : origin;
    if (auto lines = on_lines(places, first, spacing, count)) {
      axis.count = count;
      axis.lines = std::move(*lines);
      return axis;
    }
    // Coordinates may be rounded or jittered so that one line shows as several distinct values.
    if (count == distinct)
      for (int fewer = distinct - 1; fewer >= std::max(fewest, distinct / 4); --fewer) {
        const double wider = kind == GridKind::Cells ? span / fewer : span / (fewer - 1);
        if (auto lines = on_lines(places, kind == GridKind::Cells ? wider / 2 : origin, wider, fewer)) {
          axis.count = fewer;
          axis.lines = std::move(*lines);
          return axis;
        }
      }
  }
  return {};
}

}  // namespace

Result<PlacedPoints> infer_grid(const Footprint& footprint, GridKind kind, std::span<const Place> places,
                                std::optional<double> margin_m) {
  PlacedPoints result;
  result.grid.kind = kind;
  if (places.empty()) return Problem{"the table names no place", "", "give x, y and value in each row"};
  std::vector<double> xs, ys;
  for (const Place& p : places) {
    xs.push_back(p.x_m);
    ys.push_back(p.y_m);
  }
  const auto x = fit_axis(xs, footprint.width_m, kind, margin_m);
  const auto y = fit_axis(ys, footprint.depth_m, kind, margin_m);
  if (!x || !y)
    return Problem{
        std::string("the places of the readings lie on no '") + std::string(name(kind)) + "' grid of this footprint",
        "they cannot be given to stations", "check the footprint, the unit of the places and the kind of grid"};
  result.grid.columns = x->count;
  result.grid.rows = y->count;
  result.grid.margin_x_m = x->margin_m;
  result.grid.margin_y_m = y->margin_m;
  for (std::size_t i = 0; i < places.size(); ++i) result.stations.push_back(y->lines[i] * x->count + x->lines[i]);
  return result;
}

}  // namespace sunbreak
