#pragma once

#include <nlohmann/json.hpp>
#include <random>
#include <vector>

#include "core/bench/grid.h"
#include "core/figures/sweep_figures.h"

namespace sunbreak::bench {

/// A dense sweep of a lamp-like hump with reading noise, from a fixed seed.
struct SampleSweep {
  Layout layout;
  std::vector<double> ppfd;
  FigureContext context{320.0, 12, Band{600, 1000}, usual_metric_sizes()};
};

/// PPFD that the area curve is asked for.
inline std::vector<double> area_levels() {
  std::vector<double> levels;
  for (int i = 0; i <= 160; ++i) levels.push_back(7.5 * i);
  return levels;
}

inline SampleSweep sample_sweep(int columns, int rows) {
  SampleSweep s{lay_out({1.2, 1.2}, {GridKind::Cells, columns, rows, 0, 0, {}}).value(), {}};
  std::mt19937_64 random(20260314);
  for (const Station& station : s.layout.stations) {
    const double dx = station.x_m - 0.61, dy = station.y_m - 0.58,
                 noise = static_cast<double>(random() % 2001) / 100 - 10;
    s.ppfd.push_back(1150 / (1 + 1.9 * (dx * dx + dy * dy)) / (1 + 0.7 * dx * dx) + noise - 120);
  }
  return s;
}

/// What the peer has to know of a sample sweep's plan; the readings are added to it.
inline nlohmann::json plan_json(const SampleSweep& s) {
  nlohmann::json sizes = nlohmann::json::array(), levels = nlohmann::json::array();
  for (const Footprint& size : s.context.nominal_sizes) sizes.push_back({size.width_m, size.depth_m});
  for (const double level : area_levels()) levels.push_back(level);
  return {{"columns", s.layout.columns},
          {"rows", s.layout.rows},
          {"width_m", s.layout.footprint.width_m},
          {"depth_m", s.layout.footprint.depth_m},
          {"power_w", *s.context.power_w},
          {"photoperiod_h", s.context.photoperiod_h},
          {"sizes", sizes},
          {"levels", levels}};
}

}  // namespace sunbreak::bench
