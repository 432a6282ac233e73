#pragma once

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

}  // namespace sunbreak::bench
