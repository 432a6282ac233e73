#include "evaluation/audit/floor_light.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/normal_quantile.h"
#include "core/settle/surest.h"

namespace sunbreak::evaluation {
namespace {

constexpr std::size_t settings_kept = 4, most_heights = 24;
/// Of places beside the edge in a room that nothing was read in.
constexpr double unread_room_local = 0.01;
constexpr double smallest_m = 0.1;
constexpr int halvings = 9;

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
  floor.area_ = maps.lattice.area;
  floor.layout_ = maps.lattice.asked;
  floor.settings_ = fewer_of(maps.steps);
  const std::size_t every = (maps.heights.size() + most_heights - 1) / most_heights;
  for (std::size_t i = 0; i < maps.heights.size(); ++i) {
    const auto& height = maps.heights[i];
    if (i % every != 0 && i + 1 != maps.heights.size()) continue;
    floor.heights_m_.push_back(height->height_m);
    floor.errors_.push_back(height->errors);
    floor.errors_.back().together = std::hypot(height->errors.together, maps.shared_sd);
    auto& patterns = floor.light_.emplace_back();
    for (const SettlePattern& p : height->patterns) patterns.push_back(p.ppfd);
  }
  return floor;
}

FloorLight FloorLight::of_room(const TestLight& light, const Room& room, const std::vector<double>& heights_m) {
  FloorLight floor;
  floor.area_ = {0, 0, room.width_m, room.depth_m};
  floor.layout_ = room_layout(room);
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

PartOfFloor::PartOfFloor(const FloorLight& floor, const Rectangle& part)
    : floor_(floor), plan_(floor.layout_, part), raster_(floor.layout_, part, floor.step_m()) {
  for (const auto& patterns : floor.light_) patterns_.emplace_back(patterns.size());
}

const PartOfFloor::Pattern& PartOfFloor::pattern(std::size_t height, int which) {
  auto& kept = patterns_[height][static_cast<std::size_t>(which)];
  if (kept) return *kept;
  const std::vector<double>& light = floor_.light_[height][static_cast<std::size_t>(which)];
  Pattern p{samples_of(raster_, light), {}, plan_.light(light)};
  for (const int s : plan_.stations()) p.stations.push_back(light[static_cast<std::size_t>(s)]);
  return kept.emplace(std::move(p));
}

AreaLight PartOfFloor::figures(std::size_t height, const SettleSetting& setting, const Band& band) {
  const Pattern &lower = pattern(height, setting.lower), &upper = pattern(height, setting.upper);
  const double share = std::clamp(setting.upper_share, 0.0, 1.0), of_lower = setting.light_factor * (1 - share),
               of_upper = setting.light_factor * share;
  const auto mix = [&](double AreaLight::*figure) {
    return of_lower * (lower.light.*figure) + of_upper * (upper.light.*figure);
  };
  AreaLight f;
  f.mean = mix(&AreaLight::mean), f.edge = mix(&AreaLight::edge);
  f.center = mix(&AreaLight::center), f.corners = mix(&AreaLight::corners);
  f.lowest = INFINITY;
  for (std::size_t i = 0; i < lower.stations.size(); ++i) {
    const double e = of_lower * lower.stations[i] + of_upper * upper.stations[i];
    f.lowest = std::min(f.lowest, e), f.highest = std::max(f.highest, e);
  }
  int too_dim = 0, too_bright = 0;
  const std::size_t count = lower.ppfd.size();
  for (std::size_t i = 0; i < count; ++i) {
    const double e = of_lower * lower.ppfd[i] + of_upper * upper.ppfd[i];
    too_dim += e < band.low;
    too_bright += e > band.high;
  }
  const auto all = static_cast<double>(count);
  f.too_dim = too_dim / all, f.too_bright = too_bright / all;
  f.in_band = (all - too_dim - too_bright) / all;
  return f;
}

ServedArea served_area(const FloorLight& floor, const ServingRule& rule, const Band& band, const Footprint& sides,
                       const std::optional<SettleSetting>& at, ServedSure sure) {
  const double least = smallest_m / std::min(sides.width_m, sides.depth_m),
               most = std::min(floor.area().width_m / sides.width_m, floor.area().depth_m / sides.depth_m);
  const auto settings = settings_tried(floor, at);
  const bool by_share = rule.kind == ServingRule::Kind::Share;
  ServedArea served;
  /// Whether an area so scaled is served with the light off by so many times its ±, together and of places beside the
  /// edge; where, in `served`.
  const auto is_served = [&](double scale, double together, double places) {
    PartOfFloor part(floor, centered(floor.area(), scale * sides.width_m, scale * sides.depth_m));
    for (std::size_t h = 0; h < floor.heights_m().size(); ++h) {
      // But for shares in band, figures go with the light: they are worked out once a height and pattern.
      std::optional<AreaLight> full;
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

std::optional<SurestThere> surest_there(const FloorLight& floor, const ServingRule& rule, const Band& band,
                                        const Rectangle& part, const std::optional<SettleSetting>& at) {
  constexpr int draws = 41;
  bool may_hold = false;
  std::optional<SurestThere> best;
  PartOfFloor there(floor, part);
  for (std::size_t h = 0; h < floor.heights_m().size(); ++h)
    for (const SettleSetting& setting : settings_tried(floor, at)) {
      const AreaLight f = there.figures(h, setting, band);
      const double sd = std::hypot(floor.errors(h).together, setting.light_sd),
                   share = places_beside_edge(floor.errors(h));
      const auto holds = [&](double factor, double places) {
        if (rule.kind != ServingRule::Kind::Share) return judged(rule, band, off_by(f, factor, places)).met();
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
