#include "evaluation/rig_model.h"

#include <algorithm>

namespace sunbreak::evaluation {

Room room_of(const Bench& bench) {
  const bool open = bench.wall_left == "open";
  return {bench.width_m,
          bench.depth_m,
          bench.height_m.value_or(2),
          {usual_reflectance(bench.wall_left), usual_reflectance(bench.wall_right), usual_reflectance(bench.wall_front),
           usual_reflectance(bench.wall_back), open ? 0 : 0.7, open ? 0 : 0.25}};
}

FixtureOutline outline_of(const Fixture& fixture, const Bench& bench) {
  FixtureOutline o;
  o.units = fixture.units;
  o.width_m = fixture.width_m.value_or(0.6 * bench.width_m / std::max(fixture.units, 1));
  o.depth_m = fixture.depth_m.value_or(0.6 * bench.depth_m);
  o.unit_spacing_m = fixture.unit_spacing_m.value_or(o.width_m);
  o.unit_tilt_deg = fixture.unit_tilt_deg.value_or(0);
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
