#include "doors/whole_record.h"

#include "record/log_samples.h"
#include "record/utc.h"

namespace sunbreak::doors {

using namespace record;

TestRecord whole_test() {
  const double began_s = 1'773'480'000;
  const auto at = [&](double later_s) { return utc_text(began_s + later_s); };
  TestRecord t;
  t.fixture.id = t.bench.id = t.test.id = 1;
  t.fixture.name = "Bars";
  t.claims = {{1, 1, "power_w", 320, "320 W"}, {2, 1, "coverage", {}, "120 × 120 cm"}};
  t.meters = {{1, "quantum", "sensor", "2026-01-10", 1.01, 0.5, 2.5, 3000.0, 0.02, 0.03},
              {2, "wall", "meter", "2026-01-10", 1, 0, 1.0}};
  t.test.fixture_id = t.test.bench_id = 1;
  t.test.sensor_id = 1;
  t.test.wall_meter_id = 2;
  t.test.columns = t.test.rows = 4;
  t.test.tested_on = "2026-03-14";
  t.test.created_at = at(0);
  t.rungs = {{1, 1, 0.6}, {2, 1, 0.45}};
  t.stops = {{1, 1, 100}, {2, 1, 50}};
  Id reading = 0;
  for (Id sweep = 1; sweep <= 4; ++sweep) {
    Sweep s{sweep, 1, 1 + (sweep - 1) / 2, 1 + (sweep - 1) % 2, "cells", 4, 4};
    s.dark_offset = 0.5;
    s.calibration_factor = 1.01;
    s.power_w = sweep % 2 == 1 ? 322.0 : 165.0;
    t.sweeps.push_back(s);
    for (int station = 0; station < 16; ++station) {
      const int column = station % 4, row = station / 4;
      const double light = (sweep % 2 == 1 ? 1 : 0.5) * (500 + 40 * (column == 1 || column == 2) + 30 * (row % 3 > 0));
      ++reading;
      t.readings.push_back({reading, sweep, station, light, "live", at(60.0 * double(reading)), 5, 1.5});
      t.placements.push_back({reading, sweep, station, reading, ""});
    }
    t.side_readings.push_back({sweep, sweep, 5, "reference", 560, "live", at(60.0 * double(reading) + 5), 5, 1.2});
    t.wall_readings.push_back(
        {sweep, 1, sweep, s.power_w, 230.1, 1.42, 326.0, 0.98, 50.0, 560.0, at(60.0 * double(reading))});
  }
  t.dismissals = {{1, 1, 1, "drift", "5", "moved", "door was open", at(4000)}};
  std::vector<LogSample> samples;
  for (int i = 0; i < 60; ++i) samples.push_back({began_s + 5.0 * i, 580, 330 - 0.1 * i, 230.2, 1.4, 335, 0.97, 50});
  t.log_parts = {{1, 1, "live", "", 0.5, 1.01, 60, pack_samples(samples)}};
  t.lamp_events = {{1, 1, "on", 100, at(0)}, {2, 1, "stop", 50, at(2000)}};
  t.stair_stops = {{1, 1, 100, 322.0, 0.98, at(5000)}, {2, 1, 50, 165.0, 0.95, at(5100)}};
  t.stair_readings = {{1, 1, 5, 560, "live", 5, 1.0}, {2, 2, 5, 282, "live", 5, 0.9}};
  t.target_settings = {{1, 1, "leafy & herbs", "corners", 150, 0.6, 31, 151.2, 104, at(6000)}};
  t.own_sizes = {{1, 1, 0.75, 0.75}};
  t.settlings = {{1, 1, "share:80", 90, 0.1, 0.1, 1, 1, 0.3, 0.7, 300, 1200, "Short days", "widest"}};
  t.card_rows = {{1, 1, "leafy & herbs", 210, 295, 16, 0.6, 50, 4, true},
                 {2, 1, "young plants", 245, 400, 18, {}, {}, {}, false}};
  t.temperatures = {{1, 1, "driver", "infrared", 51.5, 0.95, 0.6, 22.0, true, at(7000), ""}};
  return t;
}

}  // namespace sunbreak::doors
