#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>

#include "core/bench/edge_shape.h"
#include "core/settle/settle_solver.h"
#include "core/whole_light/reference_rooms.h"
#include "evaluation/light_words.h"
#include "evaluation/lineup/way_light.h"
#include "evaluation/settle_field.h"

namespace sunbreak::evaluation {
namespace {

const Problem nothing_read{"nothing was read", "there is no light to compare", "walk a sweep"};

/// How an error of the edge beside the middle goes over the stations.
std::vector<double> edge_beside_middle(const Layout& layout) {
  std::vector<double> shape;
  for (const Station& s : layout.stations) shape.push_back(edge_shape(layout.measured, s.x_m, s.y_m));
  return shape;
}

/// Predicted light has none of what reading at stations adds.
void without_reading(BudgetQuestion& q) {
  for (InputQuantity* part : {&q.repeatability, &q.position_m, &q.height_m, &q.drift})
    part->value = 0, part->freedom = std::numeric_limits<double>::infinity();
  q.slope_per_m.clear(), q.walked.clear(), q.expected_ppfd.clear();
}

void take_layout(WayLight& light, const Footprint& footprint, const Grid& grid, std::vector<double> ppfd) {
  light.footprint = footprint, light.grid = grid;
  light.layout = lay_out(footprint, grid).value();
  light.ppfd = std::move(ppfd);
  light.as_walked = false;
}

/// Where a test's light was walked, lowest first.
std::set<double> walked_heights(const TestLight& light) {
  std::set<double> heights;
  for (const FitSweep& sweep : light.question().fit.sweeps) heights.insert(sweep.height_m);
  return heights;
}

}  // namespace

std::optional<Problem> hang_at(WayLight& light, const Evaluation& evaluation, double height_m, UnitSystem units,
                               std::stop_token stop) {
  if (std::abs(light.height_m - height_m) <= hung_alike_m) return {};
  const TestLight* test_light = evaluation.light(stop);
  if (!test_light) return nothing_read;
  const auto predicted = test_light->between(height_m, light.percent, {});
  if (!predicted) return predicted.problem();
  const PredictionErrors errors = test_light->between().errors_at(height_m);
  const PredictedFigures& p = predicted.value();
  // Its stations are those of the test's first sweep.
  const Sweep* first = evaluation.record().sweep(test_light->question().sweep_ids.front());
  const Layout& stations = p.layout;
  const bool as_planned = first && stations.stations.size() == evaluation.view(first->id)->layout.stations.size();
  light.grid = as_planned ? grid_of(*first) : Grid{GridKind::Cells, stations.columns, stations.rows, 0, 0, {}};
  light.layout = stations, light.ppfd = p.ppfd;
  light.grid_words = grid_words(stations);
  light.as_walked = false;
  without_reading(light.budget);
  light.budget.level.value = errors.mean_sd;
  light.budget.repeatability.value = errors.scatter_sd;
  light.changes.push_back(fmt::format(
      "Predicted at {}{}: all of it to ± {} %, a place beside the others to ± {} %.", length_text(height_m, units),
      p.way == BetweenWay::Cubic ? " between the walked heights" : " by the whole light",
      plain_number(200 * errors.mean_sd, 1), plain_number(200 * errors.scatter_sd, 1)));
  light.height_m = height_m;
  return {};
}

std::optional<Problem> restate(WayLight& light, const Evaluation& evaluation, const LineUpWay& way, UnitSystem units,
                               std::stop_token stop) {
  const TestLight* test_light = evaluation.light(stop);
  if (!test_light) return nothing_read;
  if (!test_light->found().fits)
    return Problem{"its whole light is not known: " + test_light->found().reason,
                   "it cannot be restated in another room", test_light->found().advice};
  const Footprint footprint = way.footprint.value_or(footprint_of(evaluation.record().bench));
  const bool open = way.room == LineUpWay::Room::OpenFloor;
  const Room room = open ? open_floor(footprint) : white_tent(footprint);
  const double height_m = way.height_m.value_or(light.height_m);
  const auto heights = walked_heights(*test_light);
  // The beam was seen from the walked heights: far beyond them nobody has looked.
  if (const double reach = std::max(0.1, (*heights.rbegin() - *heights.begin()) / 2);
      height_m < *heights.begin() - reach || height_m > *heights.rbegin() + reach)
    return Problem{fmt::format("{} is far from the walked heights", length_text(height_m, units)),
                   "its light there is not known", "walk that height"};
  const Elsewhere elsewhere(test_light->found(), room, room_layout(room));
  const auto restated = test_light->restated(elsewhere, {}, height_m, light.percent, {});
  if (!restated) return restated.problem();
  const Restated own = elsewhere.at({}, height_m, 1);
  const Layout& layout = restated.value().layout;
  take_layout(light, footprint, {GridKind::Cells, layout.columns, layout.rows, 0, 0, {}}, restated.value().ppfd);
  BudgetQuestion& q = light.budget;
  without_reading(q);
  q.edge_m.value = 0;  // the room is as large as it says
  q.level.value = own.mean_ppfd.expanded / 2 / own.mean_ppfd.value;
  q.pattern_shape = edge_beside_middle(light.layout);
  const auto dimmest = static_cast<std::size_t>(std::ranges::min_element(light.ppfd) - light.ppfd.begin());
  if (const double shape = std::abs(q.pattern_shape[dimmest]); shape > 0.1)
    q.pattern.value = own.lowest_over_mean.expanded / 2 / own.lowest_over_mean.value / shape;
  light.height_m = height_m;
  light.walls = open ? "open floor" : "white tent";
  light.grid_words = "the room's own cells";
  light.changes.push_back(
      fmt::format("Restated {} of {}, hung level over its middle at {}: all of it to ± {} %, lowest "
                  "÷ mean to ± {}.",
                  open ? "on an open floor" : "in a white tent", size_text(footprint.width_m, footprint.depth_m, units),
                  length_text(height_m, units), plain_number(200 * q.level.value, 1),
                  plain_number(own.lowest_over_mean.expanded, 3)));
  return {};
}

Result<WayLight> best_light(const Evaluation& evaluation, const EntryQuestion& question, UnitSystem units,
                            std::stop_token stop) {
  auto made = walked_light(evaluation, unread);
  if (!made) return made;
  const TestLight* test_light = evaluation.light(stop);
  if (!test_light) return nothing_read;
  const Rectangle whole = whole_area(*test_light);
  Rectangle area = whole;
  if (const auto& size = question.way.footprint) {
    area = {whole.left_m + (whole.width_m - size->width_m) / 2, whole.front_m + (whole.depth_m - size->depth_m) / 2,
            size->width_m, size->depth_m};
    if (size->width_m > whole.width_m + hung_alike_m || size->depth_m > whole.depth_m + hung_alike_m)
      return Problem{fmt::format("{} was measured", size_text(whole.width_m, whole.depth_m, units)),
                     fmt::format("there is no part of {} in it", size_text(size->width_m, size->depth_m, units)),
                     "choose a smaller footprint"};
  }
  const auto maps = settle_maps(*test_light, area, settle_heights(*test_light), whole.width_m / 2, stop);
  if (!maps) return maps.problem();
  const SettleRequest request{question.band, question.rule, advised({}, *test_light), 0.5};
  const auto best = best_way(maps.value(), request, stop);
  if (!best) return best.problem();
  const bool met = best.value().met;
  const SettlePoint& p = best.value().point;
  WayLight& light = made.value();
  const SettleLattice& lattice = maps.value().lattice;
  take_layout(light, {area.width_m, area.depth_m}, {GridKind::Cells, lattice.columns, lattice.rows, 0, 0, {}},
              settle_cells_ppfd(*p.height, p.setting));
  BudgetQuestion& q = light.budget;
  without_reading(q);
  const SettleErrors& errors = p.height->errors;
  q.level.value = std::hypot(errors.together, p.setting.light_sd);
  q.pattern.value = errors.radial, q.pattern_shape = edge_beside_middle(light.layout);
  q.repeatability.value = errors.local;
  light.height_m = p.height->height_m, light.percent = p.setting.percent, light.power_w = p.setting.power_w;
  light.light_factor = p.setting.light_factor;
  light.grid_words = "the same fine cells";
  light.changes.push_back(
      fmt::format("{} {}: hung at {}, {} %{}, {} sure.", met ? "At its best for" : "Meets nowhere the rule for",
                  question.way.target, length_text(light.height_m, units), short_number(light.percent, 0),
                  light.power_w ? fmt::format(", {:.0f} W", *light.power_w) : "", chance_text(p.chance)));
  return made;
}

}  // namespace sunbreak::evaluation
