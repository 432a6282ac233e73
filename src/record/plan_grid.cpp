#include "record/plan_grid.h"

#include <algorithm>
#include <cmath>

#include "record/json.h"

namespace sunbreak::record {
namespace {

std::optional<Spot> spot_of(const Json& s) {
  if (!s["x_m"].is_number() || !s["y_m"].is_number()) return {};
  return Spot{s["name"].text(), s["x_m"].number(), s["y_m"].number()};
}

std::vector<Spot> spots_from_json(const std::string& text) {
  std::vector<Spot> spots;
  const Json list = json_of(text);
  if (!list.is_array()) return spots;
  for (const auto& s : list)
    if (auto spot = spot_of(s)) spots.push_back(std::move(*spot));
  return spots;
}

}  // namespace

bool spots_are_sound(const std::string& spots) {
  const Json list = json_of(spots);
  return list.is_array() && list.size() <= most_stations && std::all_of(list.begin(), list.end(), [](const auto& s) {
           const auto spot = spot_of(s);
           return spot && std::isfinite(spot->x_m) && std::isfinite(spot->y_m);
         });
}

template <typename Plan>
Grid grid_of(const Plan& plan) {
  Grid grid{GridKind::Cells, plan.columns, plan.rows, plan.margin_x_m, plan.margin_y_m, spots_from_json(plan.spots)};
  if (const auto kind = parse_grid_kind(plan.grid_kind)) grid.kind = kind.value();
  return grid;
}

template <typename Plan>
void set_grid(Plan& plan, const Grid& grid) {
  plan.grid_kind = name(grid.kind);
  plan.columns = grid.columns;
  plan.rows = grid.rows;
  plan.margin_x_m = grid.margin_x_m;
  plan.margin_y_m = grid.margin_y_m;
  plan.spots.clear();
  if (grid.spots.empty()) return;
  auto spots = Json::array();
  for (const Spot& s : grid.spots) spots.push_back({{"name", s.name}, {"x_m", s.x_m}, {"y_m", s.y_m}});
  plan.spots = json_text(spots);
}

template Grid grid_of(const Test&);
template Grid grid_of(const Sweep&);
template void set_grid(Test&, const Grid&);
template void set_grid(Sweep&, const Grid&);

bool walked_by_lux(const TestRecord& record) {
  const Meter* meter = record.meter(record.test.sensor_id);
  return meter && meter->kind == "lux";
}

const FittedLuxFactor* lux_factor_of(const TestRecord& record) {
  if (!walked_by_lux(record) || !record.test.lux_factor_id) return nullptr;
  const auto found = std::ranges::find(record.lux_factors, *record.test.lux_factor_id, &FittedLuxFactor::id);
  return found != record.lux_factors.end() && found->meter_id == record.test.sensor_id ? &*found : nullptr;
}

Correction correction_of(const Sweep& s) {
  return {s.dark_offset, s.calibration_factor * s.moved_factor, s.spectral_factor};
}
Correction correction_of(const TestRecord& b) {
  const Meter* sensor = b.meter(b.test.sensor_id);
  const FittedLuxFactor* lux = lux_factor_of(b);
  return sensor ? Correction{sensor->dark_offset, sensor->factor * (lux ? lux->k : 1), 1} : Correction{};
}
Correction correction_of(const LogPart& part) { return {part.dark_offset, part.calibration_factor, 1}; }
Footprint footprint_of(const Bench& bench) { return {bench.width_m, bench.depth_m}; }

}  // namespace sunbreak::record
