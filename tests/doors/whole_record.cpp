#include "doors/whole_record.h"

#include <map>

#include "record/log_samples.h"
#include "record/utc.h"

namespace sunbreak::doors {

using namespace record;

namespace {

/// A row as a new one is of each kind that has none, of what is there: a kind that is added later is tried at every
/// door, too.
void add_what_is_missing(TestRecord& t) {
  std::map<std::string, Id, std::less<>> there;
  for (TableRows& rows : tables_of(t)) {
    const Kind& kind = rows.kind();
    if (rows.size() == 0) {
      void* row = rows.add();
      kind.id(row) = 1;
      for (const Column& column : kind.columns)
        if (const auto first = there.find(column.refers_to); first != there.end()) column.set(row, first->second);
    }
    there[std::string(kind.name())] = kind.id(rows.at(0));
  }
}

}  // namespace

TestRecord whole_test() {
  const double began_s = 1'773'480'000;
  const auto at = [&](double later_s) { return utc_text(began_s + later_s); };
  TestRecord t;
  t.fixture.id = t.bench.id = t.test.id = 1;
  t.fixture.name = "Bars";
  t.claims = {{1, 1, "power_w", 320, "320 W"}, {2, 1, "coverage", {}, "120 × 120 cm"}};
  t.meters = {{1, "quantum", "sensor", "2026-01-10", 1.01, 0.5, 2.5, 3000.0, 0.02, 0.03},
              {2, "wall", "meter", "2026-01-10", 1, 0, 1.0}};
  t.meters[0].response_nm = "380 400 550 700 720", t.meters[0].response = "0 1 1 0.98 0";
  t.meters[0].response_origin = "head.csv";
  t.meters[0].reference_light_nm = "380 780", t.meters[0].reference_light = "1 3";
  t.meters[0].reference_light_name = "tungsten lamp, 2856 K";
  t.meters.push_back({3, "lux", "lux meter", "2026-01-11", 1.02, 1});
  t.lux_factors = {{1, 3, "under bars", "white", "Bars", "paired", 0.0171, 0.0003, 800, 41000, "900 15.4 40000 684",
                    "sensor", 2.5, "380 560 780", "0 1 0", "2026-02-01", "by hand", 1}};
  t.check_readings = {{1, 1, "lamp A", at(-90000), "301.5 250 249", 61.5, "live", ""},
                      {2, 3, "lamp A", at(-80000), "300 251 250", {}, "typed", "second meter"}};
  t.test.light_class = "white";
  t.test.lux_factor_id = 1;
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
    s.moved_factor = 1.018, s.moved_uncertainty_pct = 0.2;
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
  t.temperatures[0].height_m = 0.6, t.temperatures[0].percent = 100;
  t.temperatures[0].hottest_c = 58.0, t.temperatures[0].coldest_c = 40.0;
  t.box_facts = {{1, 1, "weight", "stated", 6.2, ""},
                 {2, 1, "weight", "checked", 6.35, ""},
                 {3, 1, "ip_code", "stated", {}, "IP65"}};
  t.configurations = {{1, 1, "two bars added", "one each side"}};
  t.rungs.push_back({3, 1, 0.3, false, 1});
  t.stops.push_back({3, 1, 30, false, 1});
  t.sweeps.push_back({5, 1, 3, 3, "cells", 4, 4});
  t.sweeps.back().control = "controller";
  for (int station = 0; station < 16; ++station) {
    ++reading;
    t.readings.push_back({reading, 5, station, 200.0 + station, "typed", at(8000 + station), 1, {}});
    t.placements.push_back({reading, 5, station, reading, ""});
  }
  record::Claim map;
  map.id = 3, map.fixture_id = 1, map.kind = "map", map.unit = "", map.source = "the leaflet",
  map.stated_on = "2026-02-20";
  map.width_m = 0.5, map.depth_m = 0.4, map.height_m = 0.3, map.percent = 75, map.walls = "white",
  map.map_grid = "nodes";
  map.map_columns = 2, map.map_rows = 2, map.map_ppfd = "400 410.5 420 430";
  record::Claim range;
  range.id = 4, range.fixture_id = 1, range.kind = "height_m", range.value = 0.3, range.value_to = 0.45;
  range.unit = "cm", range.stage = "flowering & fruiting";
  record::Claim efficacy;
  efficacy.id = 5, efficacy.fixture_id = 1, efficacy.kind = "efficacy_umol_j", efficacy.value = 2.8;
  efficacy.says = "without driver";
  t.claims.insert(t.claims.end(), {map, range, efficacy});
  t.verdict_sentences = {{1, 1, "light", "Bright enough.", "It brings a mean of 1.", {}},
                         {2, 1, "efficacy", "", "In all directions.", 1}};
  t.growth_notes = {{1, 1, "2026-05-01", "first flowers"}};
  t.spectra = {{1,
                1,
                "at the center",
                "power",
                true,
                "380 450 560 660 780",
                "0 0.5 0.4 0.7 0.01",
                "file",
                "lamp.csv",
                {},
                "2026-05-01T10:00:00Z",
                100,
                0.4,
                {},
                ""}};
  const std::string digest(64, 'a');
  t.fixture_pictures = {{1, 1, "photograph", "on the scales", digest, "image/jpeg", 640, 480, 90000, "a.jpg", at(0)}};
  t.pictures = {{1, 1, 1, {}, {}, "", "photograph", "the tent", digest, "image/png", 64, 48, 900, "b.png", at(10)},
                {2, 1, {}, 1, {}, "", "thermal", "the driver", digest, "image/png", 64, 48, 900, "c.png", at(20)},
                {3, 1, {}, {}, 1, "", "photograph", "", digest, "image/png", 64, 48, 900, "d.png", at(30)},
                {4, 1, {}, {}, {}, "drift", "photograph", "", digest, "image/png", 64, 48, 900, "e.png", at(40)}};
  add_what_is_missing(t);
  return t;
}

}  // namespace sunbreak::doors
