#pragma once

#include <functional>
#include <vector>

#include "core/settle/settle_card.h"

/// Maps of light that is known in closed form, for cases worked by hand.
namespace sunbreak::trial {

inline constexpr double side_m = 1;

struct MadeHeight {
  double height_m;
  std::function<double(double x, double y)> ppfd;  ///< at full light, of a floor of 1 × 1 m
  SettleErrors errors{};
};

inline Layout made_stations() { return lay_out({side_m, side_m}, {GridKind::Cells, 10, 10, 0, 0, {}}).value(); }

inline std::vector<double> made_light(const SettleLattice& lattice, const std::function<double(double, double)>& ppfd) {
  std::vector<double> light;
  for (const Vec3& place : lattice.places) light.push_back(ppfd(place.x, place.y));
  return light;
}

inline std::vector<double> made_cells(const SettleLattice& lattice, const std::function<double(double, double)>& ppfd) {
  std::vector<double> light;
  for (std::size_t i = 0; i < lattice.cell_count(); ++i) light.push_back(ppfd(lattice.cell(i).x, lattice.cell(i).y));
  return light;
}

/// Settings of 10 to 100 %, light as the dial says, watts 10 + 2 · dial.
inline std::vector<SettleSetting> made_settings(int count) {
  std::vector<SettleSetting> settings;
  for (int k = 0; k < count; ++k) {
    const double percent = 10 + 90.0 * k / (count - 1);
    settings.push_back({percent, percent / 100, 0, 10 + 2 * percent, 0, 0, 0});
  }
  return settings;
}

inline SettleMaps made_maps(const std::vector<MadeHeight>& heights, const Rectangle& area = {0, 0, side_m, side_m}) {
  SettleMaps maps;
  maps.lattice = settle_lattice(area, made_stations());
  for (const MadeHeight& h : heights)
    maps.heights.push_back(std::make_shared<const SettleHeight>(
        settle_height(maps.lattice, h.height_m, {made_light(maps.lattice, h.ppfd)}, h.errors)));
  maps.settings = made_settings(61);
  maps.steps = made_settings(241);
  return maps;
}

inline std::function<double(double, double)> even(double ppfd) {
  return [=](double, double) { return ppfd; };
}
/// From `left` at the left wall to `right` at the right one.
inline std::function<double(double, double)> ramp(double left, double right) {
  return [=](double x, double) { return left + (right - left) * x / side_m; };
}
/// `top` in the middle, falling by `fall` per meter of the larger distance from it: level lines are squares.
inline std::function<double(double, double)> pyramid(double top, double fall) {
  return [=](double x, double y) { return top - fall * std::max(std::abs(x - side_m / 2), std::abs(y - side_m / 2)); };
}

}  // namespace sunbreak::trial
