#include "evaluation/lineup/way_light.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/display.h"
#include "core/sweep/reduction.h"
#include "core/uncertainty/grid_sampling.h"
#include "evaluation/budget_question.h"
#include "evaluation/light_words.h"

namespace sunbreak::evaluation {
namespace {

constexpr double sides_touch_m = 0.005;
constexpr int least_cells = 4;

/// The station of a layout nearest to a place.
std::size_t nearest(const Layout& layout, double x_m, double y_m) {
  std::size_t found = 0;
  double least = INFINITY;
  for (std::size_t i = 0; i < layout.stations.size(); ++i) {
    const double apart = std::hypot(layout.stations[i].x_m - x_m, layout.stations[i].y_m - y_m);
    if (apart < least) least = apart, found = i;
  }
  return found;
}

/// Moves the lists of a budget question to other stations, each with what the nearest of the old ones had.
void carry_lists(BudgetQuestion& q, const Layout& from, const Layout& to, double left_m, double front_m) {
  const auto carried = [&](const std::vector<double>& list) {
    std::vector<double> moved;
    if (list.size() == from.stations.size())
      for (const Station& s : to.stations) moved.push_back(list[nearest(from, s.x_m + left_m, s.y_m + front_m)]);
    return moved;
  };
  q.slope_per_m = carried(q.slope_per_m);
  q.walked = carried(q.walked);
  q.pattern_shape = carried(q.pattern_shape);
  q.expected_ppfd.clear();
}

Grid cells(int columns, int rows) { return {GridKind::Cells, columns, rows, 0, 0, {}}; }

/// What the mean over the cells changes by where a field is made of either half of the readings.
double half_grid_difference(const Layout& layout, std::span<const double> ppfd, const Layout& part, double left_m,
                            double front_m) {
  if (!layout.is_lattice() || layout.columns < 4 || layout.rows < 4) return 0;
  const HalfGrids halves = half_grids(layout, ppfd);
  const auto mean_of = [&](std::span<const double> half) {
    const Field field(layout, filled(layout, half));
    double sum = 0;
    for (const Station& s : part.stations) sum += field.at(s.x_m + left_m, s.y_m + front_m);
    return sum / static_cast<double>(part.stations.size());
  };
  const double a = mean_of(halves.first), b = mean_of(halves.second);
  return std::abs(a - b) / (a + b);
}

bool has_readings(const Evaluation& evaluation, Id sweep_id) {
  const SweepView* view = evaluation.view(sweep_id);
  return view && view->read() > 0;
}

}  // namespace

std::string walls_words(const Bench& b) {
  if (b.wall_left.empty() && b.wall_right.empty() && b.wall_front.empty() && b.wall_back.empty()) return {};
  if (b.wall_left == b.wall_right && b.wall_front == b.wall_back && b.wall_left == b.wall_front)
    return b.wall_left == "open" ? "no walls" : b.wall_left + " walls";
  const auto stated = [](const std::string& wall) { return wall.empty() ? std::string("not stated") : wall; };
  return fmt::format("walls {} left, {} right, {} front, {} back", stated(b.wall_left), stated(b.wall_right),
                     stated(b.wall_front), stated(b.wall_back));
}

std::string grid_words(const Layout& layout) {
  if (!layout.is_lattice()) return fmt::format("{} spots", layout.stations.size());
  return fmt::format("{} × {} {}", layout.columns, layout.rows,
                     layout.kind == GridKind::Nodes   ? "nodes"
                     : layout.kind == GridKind::Inset ? "stations inside a margin"
                     : layout.kind == GridKind::Spots ? "spots"
                                                      : "cells");
}

Result<WayLight> walked_light(const Evaluation& evaluation, double near_height_m) {
  const TestRecord& record = evaluation.record();
  const Sweep* best = nullptr;
  double best_height = 0, best_percent = 0;
  for (const Sweep& sweep : record.sweeps) {
    const Rung* rung = record.rung(sweep.rung_id);
    const Stop* stop = record.stop(sweep.stop_id);
    if (sweep.confirms || !rung || !stop || record.apart(sweep.id) || !has_readings(evaluation, sweep.id)) continue;
    const auto off = [&](double height_m, double percent) {
      return std::pair{std::abs(percent - 100),
                       std::isnan(near_height_m) ? height_m : std::abs(height_m - near_height_m)};
    };
    if (best && off(rung->height_m, stop->percent) >= off(best_height, best_percent)) continue;
    best = &sweep, best_height = rung->height_m, best_percent = stop->percent;
  }
  if (!best) return Problem{"nothing was read", "there is no light to compare", "walk a sweep"};
  const SweepView& view = *evaluation.view(best->id);
  WayLight light;
  light.sweep = best;
  light.footprint = footprint_of(record.bench);
  light.grid = grid_of(*best);
  light.layout = view.layout, light.ppfd = view.ppfd;
  light.budget = budget_question(record, *best, view, evaluation.views());
  light.height_m = best_height, light.percent = best_percent;
  light.power_w = best->power_w;
  light.walls = walls_words(record.bench), light.grid_words = grid_words(view.layout);
  return light;
}

std::optional<Problem> cut_to(WayLight& light, const Footprint& wanted, UnitSystem units) {
  const Rectangle& whole = light.layout.measured;
  if (std::abs(wanted.width_m - whole.width_m) <= sides_touch_m &&
      std::abs(wanted.depth_m - whole.depth_m) <= sides_touch_m)
    return {};
  if (wanted.width_m > whole.width_m + sides_touch_m || wanted.depth_m > whole.depth_m + sides_touch_m)
    return Problem{fmt::format("{} was measured", size_text(whole.width_m, whole.depth_m, units)),
                   fmt::format("there is no part of {} in it", size_text(wanted.width_m, wanted.depth_m, units)),
                   "choose a smaller footprint"};
  const Field field(light.layout, light.ppfd);
  if (!field.exists())
    return Problem{"it was read at loose spots", "light between them is not known", "walk a regular grid"};
  const Footprint part{std::min(wanted.width_m, whole.width_m), std::min(wanted.depth_m, whole.depth_m)};
  const auto as_dense = [](double side, double whole_side, int count) {
    return std::max(least_cells, static_cast<int>(std::lround(side / whole_side * count)));
  };
  const Grid grid = cells(as_dense(part.width_m, whole.width_m, light.layout.columns),
                          as_dense(part.depth_m, whole.depth_m, light.layout.rows));
  Layout layout = lay_out(part, grid).value();
  const double left_m = whole.left_m + (whole.width_m - part.width_m) / 2,
               front_m = whole.front_m + (whole.depth_m - part.depth_m) / 2;
  std::vector<double> ppfd;
  for (const Station& s : layout.stations) ppfd.push_back(field.at(s.x_m + left_m, s.y_m + front_m));
  if (std::ranges::all_of(ppfd, [](double e) { return std::isnan(e); }))
    return Problem{"its middle was not read", "there is no light to compare", "read the missing stations"};
  const double between = half_grid_difference(light.layout, light.ppfd, layout, left_m, front_m);
  BudgetQuestion& q = light.budget;
  if (std::isfinite(between)) q.level.value = std::hypot(q.level.value, between);
  carry_lists(q, light.layout, layout, left_m, front_m);
  light.changes.push_back(
      fmt::format("Only the {} about the middle count, by the field between stations (± {} %); light "
                  "that walls outside of it send back is in it.",
                  size_text(part.width_m, part.depth_m, units), plain_number(200 * between, 1)));
  light.footprint = part, light.grid = grid, light.layout = std::move(layout), light.ppfd = std::move(ppfd);
  light.grid_words = grid_words(light.layout);
  light.as_walked = false;
  return {};
}

std::optional<Problem> average_into(WayLight& light, int columns, int rows) {
  if (light.layout.is_lattice() && light.layout.columns == columns && light.layout.rows == rows &&
      light.layout.kind == GridKind::Cells)
    return {};
  auto reduced = reduce(light.layout, light.ppfd, columns, rows);
  if (!reduced) return reduced.problem();
  const Rectangle& measured = light.layout.measured;
  const Footprint footprint{measured.width_m, measured.depth_m};
  const Grid grid = cells(columns, rows);
  // The same cells, told from the corner of what was measured.
  Layout layout = lay_out(footprint, grid).value();
  BudgetQuestion& q = light.budget;
  q.layout = &light.layout, q.ppfd = light.ppfd;
  q.averaged = sampling_of_mean(q);
  const double readings = static_cast<double>(light.layout.stations.size()) / (columns * rows);
  q.repeatability.value /= std::sqrt(readings), q.position_m.value /= std::sqrt(readings);
  carry_lists(q, light.layout, layout, measured.left_m, measured.front_m);
  light.changes.push_back(fmt::format("{} are averaged into {} × {} cells: extremes grow milder, the mean stays.",
                                      light.grid_words, columns, rows));
  light.ppfd = std::move(reduced.value().ppfd);
  light.footprint = footprint, light.grid = grid, light.layout = std::move(layout);
  light.grid_words = fmt::format("{} × {} cells", columns, rows);
  light.as_walked = false;
  return {};
}

Result<WayLight> light_in_way(const Evaluation& evaluation, const EntryQuestion& question, UnitSystem units,
                              std::stop_token stop) {
  const LineUpWay& way = question.way;
  if (!way.target.empty()) return best_light(evaluation, question, units, stop);
  auto made = walked_light(evaluation, way.height_m.value_or(question.usual_height_m.value_or(unread)));
  if (!made) return made;
  WayLight& light = made.value();
  std::optional<Problem> problem;
  if (way.room != LineUpWay::Room::Own)
    problem = restate(light, evaluation, way, units, stop);
  else if (way.height_m)
    problem = hang_at(light, evaluation, *way.height_m, units, stop);
  if (!problem && !way.check_lamp.empty()) problem = bring_to_lamp(light, evaluation, way);
  if (!problem && (way.power_w || way.center_ppfd)) problem = dim(light, evaluation, way);
  if (!problem && way.footprint && way.room == LineUpWay::Room::Own) problem = cut_to(light, *way.footprint, units);
  if (!problem && way.cells) problem = average_into(light, way.cells->first, way.cells->second);
  if (problem) return *problem;
  return made;
}

}  // namespace sunbreak::evaluation
