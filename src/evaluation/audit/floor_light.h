#pragma once

#include <algorithm>
#include <optional>
#include <vector>

#include "core/figures/serving_rule.h"
#include "core/whole_light/elsewhere.h"
#include "evaluation/settle_field.h"

namespace sunbreak::evaluation {

/// Light over a whole floor at several heights. PartOfFloor judges parts of it.
class FloorLight {
 public:
  /// The floor that maps are of, at some two dozen of their heights.
  static FloorLight of_maps(const SettleMaps& maps);
  /// Another room's floor, with the fixture over its middle. `light` has to fit.
  static FloorLight of_room(const TestLight& light, const Room& room, const std::vector<double>& heights_m);

  const Rectangle& area() const { return area_; }
  const Layout& layout() const { return layout_; }
  /// The side of the cells that shares of parts are counted on.
  double step_m() const { return std::max(area().width_m, area().depth_m) / settle_cells; }
  const std::vector<double>& heights_m() const { return heights_m_; }
  const std::vector<SettleSetting>& settings() const { return settings_; }

  /// Of each place of the layout.
  std::vector<double> ppfd(std::size_t height, const SettleSetting& setting) const;

  /// What is left open at a height; together with what the meters do to all light.
  const SettleErrors& errors(std::size_t height) const { return errors_[height]; }

 private:
  friend class PartOfFloor;
  Rectangle area_;
  Layout layout_;
  std::vector<double> heights_m_;
  std::vector<SettleErrors> errors_;
  std::vector<SettleSetting> settings_;
  std::vector<std::vector<std::vector<double>>>
      light_;  ///< by height, pattern and place, for the first setting's light
};

/// A part of a floor, for figures at many settings. Light at a setting is a mix of the patterns of two walked ones, and
/// so is all that is linear in light: each pattern is brought to the part once, when it is first asked for. Refers to
/// the floor; for one thread.
class PartOfFloor {
 public:
  PartOfFloor(const FloorLight& floor, const Rectangle& part);

  /// What is known of it at one of the heights and settings.
  AreaLight figures(std::size_t height, const SettleSetting& setting, const Band& band);

 private:
  struct Pattern {
    std::vector<double> ppfd;      ///< of the raster over the part
    std::vector<double> stations;  ///< of the places in it
    AreaLight light;
  };
  const Pattern& pattern(std::size_t height, int which);

  const FloorLight& floor_;
  AreaPlan plan_;
  RasterPlan raster_;
  std::vector<std::vector<std::optional<Pattern>>> patterns_;  ///< by height
};

/// Whether an area is no larger than a floor, to half a centimeter.
bool fits_in(const Footprint& size, const Rectangle& floor);

/// A part of a floor of given proportions about its middle.
Rectangle centered(const Rectangle& floor, double width_m, double depth_m);

/// How large an area of given proportions about the middle of a floor is served.
struct ServedArea {
  double scale = 0;                    ///< of the given sides; 0 where not even a small one is
  double expanded = 0;                 ///< of it, k = 2
  double height_m = 0, percent = 100;  ///< where that is
};

/// Over all heights, at all settings or at one. Without the ± it takes a seventh of the time, and `expanded` is 0.
enum class ServedSure { With, Without };
ServedArea served_area(const FloorLight& floor, const ServingRule& rule, const Band& band, const Footprint& sides,
                       const std::optional<SettleSetting>& at = {}, ServedSure sure = ServedSure::With);

/// The way that most surely meets a rule over a part of a floor, at all settings or at one, with the chance, by all
/// light being off together.
struct SurestThere {
  std::size_t height = 0;
  SettleSetting setting;
  AreaLight figures;
  double chance = 0;
  bool may_hold = false;  ///< anywhere that was tried, with all light off by its ± (k = 2)
};
std::optional<SurestThere> surest_there(const FloorLight& floor, const ServingRule& rule, const Band& band,
                                        const Rectangle& part, const std::optional<SettleSetting>& at = {});

}  // namespace sunbreak::evaluation
