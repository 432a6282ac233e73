#include "evaluation/audit/floor_light.h"

#include <algorithm>
#include <cmath>

#include "core/figures/nominal.h"
#include "core/quantity/normal_quantile.h"

namespace sunbreak::evaluation {
namespace {

constexpr int floor_cells = 48;
constexpr std::size_t most_heights = 16, settings_kept = 4;
constexpr double smallest_m = 0.1;
constexpr int halvings = 9;

Layout floor_layout(const Rectangle& area) {
  const double longer = std::max(area.width_m, area.depth_m);
  const auto cells = [&](double side) {
    return std::max(6, static_cast<int>(std::lround(floor_cells * side / longer)));
  };
  Layout layout =
      lay_out({area.width_m, area.depth_m}, Grid{GridKind::Cells, cells(area.width_m), cells(area.depth_m), 0, 0, {}})
          .value();
  // On the bench's own coordinates.
  layout.measured = area;
  for (double& x : layout.xs_m) x += area.left_m;
  for (double& y : layout.ys_m) y += area.front_m;
  for (Station& s : layout.stations) s.x_m += area.left_m, s.y_m += area.front_m;
  return layout;
}

/// Every so many of the settings, and the ends.
std::vector<SettleSetting> thinned(const std::vector<SettleSetting>& steps) {
  std::vector<SettleSetting> kept;
  for (std::size_t i = 0; i < steps.size(); ++i)
    if (i % settings_kept == 0 || i + 1 == steps.size()) kept.push_back(steps[i]);
  return kept;
}

SettleFigures times(SettleFigures f, double factor) {
  for (double SettleFigures::*figure : {&SettleFigures::mean, &SettleFigures::edge, &SettleFigures::center,
                                        &SettleFigures::corners, &SettleFigures::lowest, &SettleFigures::highest})
    f.*figure *= factor;
  return f;
}

std::vector<std::size_t> heights_tried(const FloorLight& floor, const ServedWhere& where) {
  if (where.height) return {*where.height};
  std::vector<std::size_t> all(floor.heights_m().size());
  for (std::size_t i = 0; i < all.size(); ++i) all[i] = i;
  return all;
}

std::vector<SettleSetting> settings_tried(const FloorLight& floor, const ServedWhere& where) {
  return where.setting ? std::vector{*where.setting} : floor.settings();
}

}  // namespace

std::vector<double> few_heights(const TestLight& light, UnitSystem units) {
  const std::vector<double> heights = settle_heights(light, units);
  if (heights.size() <= most_heights) return heights;
  std::vector<double> kept;
  for (std::size_t i = 0; i < most_heights; ++i) kept.push_back(heights[i * (heights.size() - 1) / (most_heights - 1)]);
  for (const FitSweep& s : light.question().fit.sweeps) kept.push_back(s.height_m);
  std::ranges::sort(kept);
  kept.erase(std::unique(kept.begin(), kept.end()), kept.end());
  return kept;
}

Rectangle centered(const Rectangle& floor, double width_m, double depth_m) {
  return {floor.left_m + (floor.width_m - width_m) / 2, floor.front_m + (floor.depth_m - depth_m) / 2, width_m,
          depth_m};
}

std::optional<FloorLight> FloorLight::of_bench(const TestLight& light, std::vector<double> heights_m) {
  FloorLight floor;
  floor.layout_ = floor_layout(whole_area(light));
  floor.heights_m_ = std::move(heights_m);
  const SettleMaps settings = settle_settings(light);
  floor.settings_ = thinned(settings.steps);
  std::vector<Vec3> places;
  for (const Station& s : floor.layout_.stations) places.push_back({s.x_m, s.y_m, 0});
  const auto at = light.between().at_places(std::move(places));
  floor.light_ = at->at(floor.heights_m_);
  for (auto& patterns : floor.light_)
    for (const auto& pattern : patterns)
      if (std::ranges::any_of(pattern, [](double e) { return std::isnan(e); })) return {};
  for (const double height : floor.heights_m_)
    floor.together_sd_.push_back(std::hypot(light.between().errors_at(height).mean_sd, light.shared_light_sd()));
  return floor;
}

FloorLight FloorLight::of_room(const TestLight& light, const Room& room, const std::vector<double>& heights_m) {
  FloorLight floor;
  floor.layout_ = floor_layout({0, 0, room.width_m, room.depth_m});
  floor.settings_ = thinned(settle_settings(light).steps);
  for (SettleSetting& s : floor.settings_) s.lower = s.upper = 0, s.upper_share = 0;
  const Elsewhere elsewhere(light.found(), room, floor.layout_);
  for (const double height : heights_m) {
    if (height >= room.height_m) continue;
    floor.heights_m_.push_back(height);
    const Restated r = elsewhere.at({}, height);
    floor.light_.push_back({r.ppfd});
    floor.together_sd_.push_back(std::hypot(r.mean_ppfd.expanded / 2 / r.mean_ppfd.value, light.shared_light_sd()));
  }
  return floor;
}

std::vector<double> FloorLight::ppfd(std::size_t height, const SettleSetting& setting) const {
  const auto& patterns = light_[height];
  std::vector<double> light(layout_.stations.size());
  for (std::size_t i = 0; i < light.size(); ++i)
    light[i] = setting.light_factor * mixed(patterns[static_cast<std::size_t>(setting.lower)][i],
                                            patterns[static_cast<std::size_t>(setting.upper)][i], setting.upper_share);
  return light;
}

SettleFigures FloorLight::figures(const Rectangle& part, std::size_t height, const SettleSetting& setting,
                                  const Band& band) const {
  const Field field(layout_, ppfd(height, setting));
  const Raster raster = field.raster(part, layout_.measured.width_m / layout_.columns);
  SettleFigures f;
  f.lowest = INFINITY;
  for (const double e : raster.ppfd) {
    f.mean += e, f.lowest = std::min(f.lowest, e), f.highest = std::max(f.highest, e);
    f.in_band += band.contains(e), f.too_dim += e<band.low, f.too_bright += e> band.high;
  }
  const auto count = static_cast<double>(raster.ppfd.size());
  f.mean /= count, f.in_band /= count, f.too_dim /= count, f.too_bright /= count;
  f.edge = edge_mean_ppfd(field, part);
  f.center = field.at(part.left_m + part.width_m / 2, part.front_m + part.depth_m / 2);
  f.corners = (raster.at(0, 0) + raster.at(raster.columns - 1, 0) + raster.at(0, raster.rows - 1) +
               raster.at(raster.columns - 1, raster.rows - 1)) /
              4;
  return f;
}

ServedArea served_area(const FloorLight& floor, const SettleRule& rule, const Band& band, const Footprint& sides,
                       const ServedWhere& where) {
  const double least = smallest_m / std::min(sides.width_m, sides.depth_m),
               most = std::min(floor.area().width_m / sides.width_m, floor.area().depth_m / sides.depth_m);
  const auto heights = heights_tried(floor, where);
  const auto settings = settings_tried(floor, where);
  const bool by_share = rule.kind == SettleRule::Kind::Share;
  ServedArea served;
  /// Whether an area so scaled is served with all light times a factor; where, in `served`.
  const auto is_served = [&](double scale, double factor) {
    const Rectangle part = centered(floor.area(), scale * sides.width_m, scale * sides.depth_m);
    for (const std::size_t h : heights) {
      // But for shares in band, figures go with the light: they are worked out once a height and pattern.
      std::optional<SettleFigures> full;
      for (SettleSetting setting : settings) {
        if (by_share) {
          setting.light_factor *= factor;
          if (!judged(rule, band, floor.figures(part, h, setting, band)).met()) continue;
        } else {
          if (!full) {
            SettleSetting whole = setting;
            whole.light_factor = 1;
            full = floor.figures(part, h, whole, band);
          }
          if (!judged(rule, band, times(*full, setting.light_factor * factor)).met()) continue;
        }
        served.height_m = floor.heights_m()[h], served.percent = setting.percent;
        return true;
      }
    }
    return false;
  };
  const auto largest = [&](double factor) {
    if (!is_served(least, factor)) return 0.0;
    if (is_served(most, factor)) return most;
    double low = least, high = most;
    for (int i = 0; i < halvings; ++i) (is_served((low + high) / 2, factor) ? low : high) = (low + high) / 2;
    is_served(low, factor);
    return low;
  };
  served.scale = largest(1);
  if (served.scale == 0) return served;
  const auto at = std::ranges::find(floor.heights_m(), served.height_m) - floor.heights_m().begin();
  const double off = 2 * floor.together_sd(static_cast<std::size_t>(at));
  const ServedArea found = served;
  const double dimmer = largest(1 - off), brighter = largest(1 + off);
  served.height_m = found.height_m, served.percent = found.percent;
  served.expanded = std::max(std::abs(found.scale - dimmer), std::abs(brighter - found.scale));
  return served;
}

std::optional<SurestThere> surest_there(const FloorLight& floor, const SettleRule& rule, const Band& band,
                                        const Rectangle& part, const ServedWhere& where) {
  constexpr int draws = 41;
  bool may_hold = false;
  std::optional<SurestThere> best;
  for (const std::size_t h : heights_tried(floor, where))
    for (const SettleSetting& setting : settings_tried(floor, where)) {
      const SettleFigures f = floor.figures(part, h, setting, band);
      const double sd = std::hypot(floor.together_sd(h), setting.light_sd);
      const auto holds = [&](double factor) {
        if (rule.kind != SettleRule::Kind::Share) return judged(rule, band, times(f, factor)).met();
        SettleSetting off = setting;
        off.light_factor *= factor;
        return judged(rule, band, floor.figures(part, h, off, band)).met();
      };
      int met = 0;
      for (int k = 0; k < draws; ++k) met += holds(1 + sd * normal_quantile((k + 0.5) / draws));
      may_hold = may_hold || holds(1) || holds(1 - 2 * sd) || holds(1 + 2 * sd);
      const double chance = static_cast<double>(met) / draws;
      if (!best || chance > best->chance) best = SurestThere{h, setting, f, chance};
    }
  if (best) best->may_hold = may_hold;
  return best;
}

}  // namespace sunbreak::evaluation
