#include "evaluation/audit/floor_light.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/figures/nominal.h"
#include "core/quantity/normal_quantile.h"
#include "core/settle/surest.h"

namespace sunbreak::evaluation {
namespace {

constexpr std::size_t settings_kept = 4, most_heights = 24;
/// Of places beside the edge in a room that nothing was read in.
constexpr double unread_room_local = 0.01;
constexpr double smallest_m = 0.1;
constexpr int halvings = 9;

Layout floor_layout(const Rectangle& area, int columns, int rows) {
  Layout layout = lay_out({area.width_m, area.depth_m}, Grid{GridKind::Cells, columns, rows, 0, 0, {}}).value();
  // On the bench's own coordinates.
  layout.measured = area;
  for (double& x : layout.xs_m) x += area.left_m;
  for (double& y : layout.ys_m) y += area.front_m;
  for (Station& s : layout.stations) s.x_m += area.left_m, s.y_m += area.front_m;
  return layout;
}

/// Every so many of the settings, and the ends.
std::vector<SettleSetting> fewer_of(const std::vector<SettleSetting>& steps) {
  std::vector<SettleSetting> kept;
  for (std::size_t i = 0; i < steps.size(); ++i)
    if (i % settings_kept == 0 || i + 1 == steps.size()) kept.push_back(steps[i]);
  return kept;
}

std::vector<SettleSetting> settings_tried(const FloorLight& floor, const std::optional<SettleSetting>& at) {
  return at ? std::vector{*at} : floor.settings();
}

}  // namespace

bool fits_in(const Footprint& size, const Rectangle& floor) {
  constexpr double touching_m = 0.005;
  return size.width_m <= floor.width_m + touching_m && size.depth_m <= floor.depth_m + touching_m;
}

Rectangle centered(const Rectangle& floor, double width_m, double depth_m) {
  return {floor.left_m + (floor.width_m - width_m) / 2, floor.front_m + (floor.depth_m - depth_m) / 2, width_m,
          depth_m};
}

FloorLight FloorLight::of_maps(const SettleMaps& maps) {
  FloorLight floor;
  floor.layout_ = floor_layout(maps.lattice.area, maps.lattice.columns, maps.lattice.rows);
  floor.settings_ = fewer_of(maps.steps);
  const std::size_t every = (maps.heights.size() + most_heights - 1) / most_heights;
  for (std::size_t i = 0; i < maps.heights.size(); ++i) {
    const auto& height = maps.heights[i];
    if (i % every != 0 && i + 1 != maps.heights.size()) continue;
    floor.heights_m_.push_back(height->height_m);
    floor.errors_.push_back(height->errors);
    floor.errors_.back().together = std::hypot(height->errors.together, maps.shared_sd);
    auto& patterns = floor.light_.emplace_back();
    for (const SettlePattern& p : height->patterns)
      patterns.emplace_back(p.lit.begin(), p.lit.begin() + static_cast<std::ptrdiff_t>(maps.lattice.cells));
  }
  return floor;
}

FloorLight FloorLight::of_room(const TestLight& light, const Room& room, const std::vector<double>& heights_m) {
  FloorLight floor;
  const double longer = std::max(room.width_m, room.depth_m);
  const auto cells = [&](double side) {
    return std::max(6, static_cast<int>(std::lround(settle_cells * side / longer)));
  };
  floor.layout_ = floor_layout({0, 0, room.width_m, room.depth_m}, cells(room.width_m), cells(room.depth_m));
  floor.settings_ = fewer_of(settle_settings(light).steps);
  for (SettleSetting& s : floor.settings_) s.lower = s.upper = 0, s.upper_share = 0;
  const Elsewhere elsewhere(light.found(), room, floor.layout_);
  for (const double height : heights_m) {
    if (height >= room.height_m) continue;
    floor.heights_m_.push_back(height);
    const Restated r = elsewhere.at({}, height);
    floor.light_.push_back({r.ppfd});
    floor.errors_.push_back(
        {std::hypot(r.mean_ppfd.expanded / 2 / r.mean_ppfd.value, light.shared_light_sd()), 0, unread_room_local});
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

PartOfFloor::PartOfFloor(const FloorLight& floor, const Rectangle& part) : floor_(floor), part_(part) {
  for (const auto& patterns : floor.light_) patterns_.emplace_back(patterns.size());
}

const PartOfFloor::Pattern& PartOfFloor::pattern(std::size_t height, int which) {
  auto& kept = patterns_[height][static_cast<std::size_t>(which)];
  if (kept) return *kept;
  const Layout& layout = floor_.layout_;
  const Field field(layout, floor_.light_[height][static_cast<std::size_t>(which)]);
  Raster raster = field.raster(part_, layout.measured.width_m / layout.columns);
  const int right = raster.columns - 1, back = raster.rows - 1;
  Pattern p;
  p.mean = std::accumulate(raster.ppfd.begin(), raster.ppfd.end(), 0.0) / static_cast<double>(raster.ppfd.size());
  p.edge = edge_mean_ppfd(field, part_);
  p.center = field.at(part_.left_m + part_.width_m / 2, part_.front_m + part_.depth_m / 2);
  p.corners = (raster.at(0, 0) + raster.at(right, 0) + raster.at(0, back) + raster.at(right, back)) / 4;
  p.ppfd = std::move(raster.ppfd);
  return kept.emplace(std::move(p));
}

SettleFigures PartOfFloor::figures(std::size_t height, const SettleSetting& setting, const Band& band) {
  const Pattern &lower = pattern(height, setting.lower), &upper = pattern(height, setting.upper);
  const double share = std::clamp(setting.upper_share, 0.0, 1.0), of_lower = setting.light_factor * (1 - share),
               of_upper = setting.light_factor * share;
  const auto mix = [&](double Pattern::*figure) { return of_lower * (lower.*figure) + of_upper * (upper.*figure); };
  SettleFigures f;
  f.mean = mix(&Pattern::mean), f.edge = mix(&Pattern::edge);
  f.center = mix(&Pattern::center), f.corners = mix(&Pattern::corners);
  f.lowest = INFINITY;
  int too_dim = 0, too_bright = 0;
  const std::size_t count = lower.ppfd.size();
  for (std::size_t i = 0; i < count; ++i) {
    const double e = of_lower * lower.ppfd[i] + of_upper * upper.ppfd[i];
    f.lowest = std::min(f.lowest, e), f.highest = std::max(f.highest, e);
    too_dim += e < band.low;
    too_bright += e > band.high;
  }
  const auto all = static_cast<double>(count);
  f.too_dim = too_dim / all, f.too_bright = too_bright / all;
  f.in_band = (all - too_dim - too_bright) / all;
  return f;
}

ServedArea served_area(const FloorLight& floor, const SettleRule& rule, const Band& band, const Footprint& sides,
                       const std::optional<SettleSetting>& at, ServedSure sure) {
  const double least = smallest_m / std::min(sides.width_m, sides.depth_m),
               most = std::min(floor.area().width_m / sides.width_m, floor.area().depth_m / sides.depth_m);
  const auto settings = settings_tried(floor, at);
  const bool by_share = rule.kind == SettleRule::Kind::Share;
  ServedArea served;
  /// Whether an area so scaled is served with the light off by so many times its ±, together and of places beside the
  /// edge; where, in `served`.
  const auto is_served = [&](double scale, double together, double places) {
    PartOfFloor part(floor, centered(floor.area(), scale * sides.width_m, scale * sides.depth_m));
    for (std::size_t h = 0; h < floor.heights_m().size(); ++h) {
      // But for shares in band, figures go with the light: they are worked out once a height and pattern.
      std::optional<SettleFigures> full;
      SettleSetting of;
      const double factor = 1 + together * 2 * floor.errors(h).together,
                   share = places * places_beside_edge(floor.errors(h));
      for (SettleSetting setting : settings) {
        if (by_share) {
          setting.light_factor *= factor;
          if (!judged(rule, band, part.figures(h, setting, band)).met()) continue;
        } else {
          if (!full || !of.has_pattern_of(setting)) {
            of = setting;
            of.light_factor = 1;
            full = part.figures(h, of, band);
          }
          if (!judged(rule, band, off_by(*full, setting.light_factor * factor, share)).met()) continue;
        }
        served.height_m = floor.heights_m()[h], served.percent = setting.percent;
        return true;
      }
    }
    return false;
  };
  const auto largest = [&](double together, double places) {
    if (!is_served(least, together, places)) return 0.0;
    if (is_served(most, together, places)) return most;
    double low = least, high = most;
    for (int i = 0; i < halvings; ++i) (is_served((low + high) / 2, together, places) ? low : high) = (low + high) / 2;
    is_served(low, together, places);
    return low;
  };
  served.scale = largest(0, 0);
  if (sure == ServedSure::Without) return served;
  const ServedArea found = served;
  const double widest = std::max({largest(0, 1), largest(1, 1), largest(-1, 1)}),
               narrowest = found.scale == 0 ? 0 : std::min({largest(0, -1), largest(1, -1), largest(-1, -1)});
  served.height_m = found.height_m, served.percent = found.percent;
  served.expanded = std::max(widest - found.scale, found.scale - narrowest);
  return served;
}

std::optional<SurestThere> surest_there(const FloorLight& floor, const SettleRule& rule, const Band& band,
                                        const Rectangle& part, const std::optional<SettleSetting>& at) {
  constexpr int draws = 41;
  bool may_hold = false;
  std::optional<SurestThere> best;
  PartOfFloor there(floor, part);
  for (std::size_t h = 0; h < floor.heights_m().size(); ++h)
    for (const SettleSetting& setting : settings_tried(floor, at)) {
      const SettleFigures f = there.figures(h, setting, band);
      const double sd = std::hypot(floor.errors(h).together, setting.light_sd),
                   share = places_beside_edge(floor.errors(h));
      const auto holds = [&](double factor, double places) {
        if (rule.kind != SettleRule::Kind::Share) return judged(rule, band, off_by(f, factor, places)).met();
        SettleSetting off = setting;
        off.light_factor *= factor;
        return judged(rule, band, there.figures(h, off, band)).met();
      };
      int met = 0;
      for (int k = 0; k < draws; ++k) met += holds(1 + sd * normal_quantile((k + 0.5) / draws), 0);
      may_hold = may_hold || holds(1, share) || holds(1 - 2 * sd, share) || holds(1 + 2 * sd, share);
      const double chance = static_cast<double>(met) / draws;
      if (!best || chance > best->chance) best = SurestThere{h, setting, f, chance};
    }
  if (best) best->may_hold = may_hold;
  return best;
}

}  // namespace sunbreak::evaluation
