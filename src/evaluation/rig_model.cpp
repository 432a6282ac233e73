#include "evaluation/rig_model.h"

#include <algorithm>

namespace sunbreak::evaluation {

Room room_of(const Bench& bench) {
  const bool open = bench.wall_left == "open";
  const auto stated = [&](const std::string& side, double otherwise) {
    return !side.empty() ? usual_reflectance(side) : open ? 0 : otherwise;
  };
  return {bench.width_m,
          bench.depth_m,
          bench.height_m.value_or(2),
          {usual_reflectance(bench.wall_left), usual_reflectance(bench.wall_right), usual_reflectance(bench.wall_front),
           usual_reflectance(bench.wall_back), stated(bench.ceiling, 0.7), stated(bench.floor, 0.25)}};
}

FixtureOutline outline_of(const TestRecord& test) {
  const Fixture& fixture = test.fixture;
  const Test& hung = test.test;
  FixtureOutline o;
  o.columns = std::max(hung.unit_columns, 1);
  o.rows = std::max(hung.unit_rows, 1);
  o.width_m = fixture.width_m.value_or(0.6 * test.bench.width_m / o.columns);
  o.depth_m = fixture.depth_m.value_or(0.6 * test.bench.depth_m / o.rows);
  o.spacing_x_m = hung.unit_spacing_x_m.value_or(o.width_m);
  o.spacing_y_m = hung.unit_spacing_y_m.value_or(o.depth_m);
  o.turn_deg = hung.unit_turn_deg.value_or(0);
  o.unit_tilt_deg = hung.unit_tilt_deg.value_or(0);
  o.across = fixture.emitters_across.value_or(8);
  o.deep = fixture.emitters_deep.value_or(8);
  o.beam_angle_deg = fixture.beam_angle_deg.value_or(120);
  return o;
}

TapeRule tape_rule(const TestRecord& test) {
  const Meter* sensor = test.meter(test.test.sensor_id);
  return {parse_tape_end(test.test.tape_from).value_or(TapeEnd::Sensor),
          sensor ? sensor->receiving_height_m.value_or(0) : 0, test.test.canopy_height_m.value_or(0)};
}

}  // namespace sunbreak::evaluation
