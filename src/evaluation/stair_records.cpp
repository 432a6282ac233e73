#include "evaluation/stair_records.h"

#include <algorithm>
#include <cmath>

namespace sunbreak::evaluation {

Result<DimmingCurve> stair_of(const TestRecord& test) {
  const Correction correction = correction_of(test);
  std::vector<StairStep> steps;
  for (const StairStop& stop : test.stair_stops) {
    StairStep& step = steps.emplace_back();
    step.dial_pct = stop.percent;
    step.time_s = seconds_of(stop.taken_at);
    step.power_w = stop.power_w;
    step.power_factor = stop.power_factor;
    for (const StairReading& r : test.stair_readings) {
      if (r.stair_stop_id != stop.id) continue;
      StairLight light{r.station, corrected_ppfd(r.raw, correction), {}};
      if (r.spread && r.samples > 1 && r.raw > 0) light.error_share = *r.spread / std::sqrt(r.samples) / r.raw;
      step.light.push_back(light);
    }
  }
  return dimming_curve(steps);
}

TemperatureShot shot_of(const TestRecord& test, const Temperature& t, UnitSystem units) {
  TemperatureShot shot;
  shot.read_c = t.read_c;
  shot.method = t.method == "infrared" ? TemperatureMethod::Infrared
                : t.method == "camera" ? TemperatureMethod::Camera
                                       : TemperatureMethod::Contact;
  shot.emissivity_set = t.emissivity_set;
  shot.emissivity_true = t.emissivity_true;
  shot.reflected_c = t.reflected_c;
  shot.bare_metal = t.bare_metal;
  shot.units = units;
  double nearest = INFINITY;
  for (const Temperature& air : test.temperatures) {
    if (air.place != "air" || air.id == t.id) continue;
    const double apart = std::abs(seconds_of(air.taken_at) - seconds_of(t.taken_at));
    if (apart < nearest) nearest = apart, shot.air_c = air.read_c;
  }
  return shot;
}

}  // namespace sunbreak::evaluation
