#pragma once

#include <filesystem>

#include "book/book.h"
#include "book/test_rows.h"
#include "five_heights.h"

namespace sunbreak::bench {

/// A lab book of so many tests of 5 sweeps of 144 readings: one board in a tent, brighter or dimmer, more or less even,
/// at other watts and prices from test to test; by two sensors and one wall meter.
inline void make_many_tests(const std::filesystem::path& file, int tests) {
  const WholeLightQuestion five = five_heights();
  auto opened = book::Book::open(file);
  if (!opened) throw std::runtime_error(opened.problem().sentence());
  book::Book& book = *opened.value();
  std::mt19937_64 random(20261128);
  std::normal_distribution<double> normal;
  std::uniform_real_distribution<double> uniform;
  record::Bench bench{.id = 1, .name = "Tent"};
  bench.width_m = bench.depth_m = 1.2;
  bench.height_m = 2;
  bench.wall_left = bench.wall_right = bench.wall_front = bench.wall_back = "reflective";
  std::vector<record::Meter> meters{{1, "quantum", "QA", "2026-01-10", 1, 0, 2.5, 4000.0, 0.03, 0.02},
                                    {2, "quantum", "QB", "2026-01-10", 1, 0, 2.5, 4000.0, 0.03, 0.02},
                                    {3, "wall", "W", "2026-01-10", 1, 0, 1.0, 3680.0}};
  for (int n = 0; n < tests; ++n) {
    record::TestRecord r;
    r.test.id = r.fixture.id = 1;
    r.test.fixture_id = 1, r.test.bench_id = 1;
    r.test.name = "test " + std::to_string(n + 1);
    r.test.columns = r.test.rows = 12;
    r.test.reference_every = 0;
    r.test.opening_probe = false;
    r.test.tested_on = "2026-03-14";
    r.bench = bench;
    r.meters = {meters[static_cast<std::size_t>(n % 2)], meters[2]};
    r.test.sensor_id = r.meters.front().id, r.test.wall_meter_id = 3;
    r.fixture.name = "board " + std::to_string(n + 1);
    r.fixture.emitters = "LED";
    r.fixture.price = std::round(80 + 300 * uniform(random));
    r.fixture.currency = "EUR";
    const double light = 0.6 + 0.5 * uniform(random), bend = 0.15 * normal(random), watts = 180 + 80 * uniform(random);
    r.stops = {{1, 1, 100}};
    record::Id reading = 0;
    for (std::size_t h = 0; h < five.sweeps.size(); ++h) {
      const auto id = static_cast<record::Id>(h + 1);
      r.rungs.push_back({id, 1, five.sweeps[h].height_m});
      record::Sweep sweep{id, 1, id, 1, "cells", 12, 12};
      sweep.power_w = watts * light;
      r.sweeps.push_back(sweep);
      for (std::size_t i = 0; i < five.sweeps[h].ppfd.size(); ++i) {
        const Station& s = five.sweeps[h].layout.stations[i];
        const double from_middle = (std::pow(s.x_m - 0.6, 2) + std::pow(s.y_m - 0.6, 2)) / 0.72;
        ++reading;
        r.readings.push_back(
            {reading, id, static_cast<int>(i),
             light * five.sweeps[h].ppfd[i] * (1 + bend * (from_middle - 0.33)) * (1 + 0.005 * normal(random)), "live",
             "2026-03-14T09:30:00.000Z"});
        r.placements.push_back({reading, id, static_cast<int>(i), reading, ""});
      }
    }
    book::add_test(book, r, "Add a test");
  }
  book.forget_history();
}

}  // namespace sunbreak::bench
