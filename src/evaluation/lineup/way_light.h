#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/uncertainty/budget.h"
#include "evaluation/evaluation.h"
#include "evaluation/lineup/lineup_entry.h"

namespace sunbreak::evaluation {

inline constexpr double hung_alike_m = 0.005;  ///< heights within it are one height

/// The light of a test that counts in a line-up's way, while it is made: a sweep as it was walked, then whatever the
/// way makes of it.
struct WayLight {
  const Sweep* sweep = nullptr;  ///< the walked one that it comes from
  bool as_walked = true;         ///< nothing was changed: its own budget holds
  Footprint footprint;
  Grid grid;
  Layout layout;
  std::vector<double> ppfd;
  BudgetQuestion budget;  ///< how sure it is; its layout, readings and lists are set where it is asked
  double height_m = 0, percent = 100;
  double light_factor = 1;    ///< beside the setting that was walked
  double light_per_watt = 0;  ///< d ln light / d ln watts, where it is dimmed to watts
  std::optional<double> power_w;
  std::string walls, grid_words;
  bool by_lamp = false;  ///< brought to a check lamp: the sensor's own calibration does not count
  std::vector<std::string> changes;
};

/// What the way makes of a test's light; a Problem where it can make nothing of it. Takes what the whole light takes
/// where the way needs it.
Result<WayLight> light_in_way(const Evaluation& evaluation, const EntryQuestion& question, UnitSystem units,
                              std::stop_token stop);

/// "no walls", "reflective walls", or wall by wall where they differ.
std::string walls_words(const Bench& bench);
/// "12 × 12 cells"
std::string grid_words(const Layout& layout);

// The steps, in their order.
Result<WayLight> walked_light(const Evaluation& evaluation, double near_height_m);
std::optional<Problem> hang_at(WayLight& light, const Evaluation& evaluation, double height_m, UnitSystem units,
                               std::stop_token stop);
std::optional<Problem> restate(WayLight& light, const Evaluation& evaluation, const LineUpWay& way, UnitSystem units,
                               std::stop_token stop);
std::optional<Problem> dim(WayLight& light, const Evaluation& evaluation, const LineUpWay& way);
std::optional<Problem> bring_to_lamp(WayLight& light, const Evaluation& evaluation, const LineUpWay& way);
std::optional<Problem> cut_to(WayLight& light, const Footprint& footprint, UnitSystem units);
std::optional<Problem> average_into(WayLight& light, int columns, int rows);

/// Each at its best for a target, over the whole floor or a part about its middle.
Result<WayLight> best_light(const Evaluation& evaluation, const EntryQuestion& question, UnitSystem units,
                            std::stop_token stop);

}  // namespace sunbreak::evaluation
