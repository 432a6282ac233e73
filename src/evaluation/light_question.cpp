#include "evaluation/light_question.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "core/checks/between_sweeps.h"
#include "core/sweep/reduction.h"
#include "core/whole_light/believed_room.h"
#include "evaluation/rig_model.h"

namespace sunbreak::evaluation {
namespace {

/// A denser grid is brought to cells of this many each way: the beam is smooth.
constexpr std::size_t dense_stations = 2500;
constexpr int dense_cells = 48;

/// Half an inch where more of the walked heights are whole ones of it than whole centimeters. It is read off the
/// record, so that advice is the same in whatever units it is looked at.
double tape_step_m(const WholeLightQuestion& fit) {
  constexpr double centimeter_m = 0.01, half_inch_m = 0.0127, reading_m = 2e-4;
  const auto whole = [&](double step_m) {
    return std::ranges::count_if(fit.sweeps, [&](const FitSweep& s) {
      return std::abs(s.height_m - std::round(s.height_m / step_m) * step_m) < reading_m;
    });
  };
  return whole(half_inch_m) > whole(centimeter_m) ? half_inch_m : centimeter_m;
}

}  // namespace

LightQuestion light_question(const TestRecord& test_record, const SweepViews& views, const BudgetQuestion& budget) {
  LightQuestion q;
  const Bench& bench = test_record.bench;
  q.fit.room = room_of(bench);
  q.fit.sides = believed_sides({bench.wall_left, bench.wall_right, bench.wall_front, bench.wall_back}, bench.floor,
                               bench.ceiling);
  q.fit.outline = outline_of(test_record);
  // A fixture hangs below the ceiling, whatever is stated or assumed of that.
  constexpr double over_the_highest_m = 0.1;
  for (const Rung& rung : test_record.planned_rungs())
    q.fit.room.height_m = std::max(q.fit.room.height_m, rung.height_m + over_the_highest_m);
  q.fit.noise = budget.repeatability.value;
  q.fit.place_m = budget.position_m.value;
  q.fit.height_sd_m = q.fit.datum_sd_m = budget.height_m.value / std::sqrt(2.0);
  std::vector<Stop> stops;
  for (const Stop& stop : test_record.stops)
    if (std::any_of(test_record.sweeps.begin(), test_record.sweeps.end(), [&](const Sweep& s) {
          const auto view = views.find(s.id);
          return s.stop_id == stop.id && !s.confirms && view != views.end() && view->second->read() > 0;
        }))
      stops.push_back(stop);
  std::stable_sort(stops.begin(), stops.end(),
                   [](const Stop& a, const Stop& b) { return std::abs(a.percent - 100) < std::abs(b.percent - 100); });
  for (const Stop& stop : stops) {
    LightSetting& setting = q.settings.emplace_back(LightSetting{stop.id, stop.percent, {}});
    double sum = 0, count = 0;
    for (const Sweep& sweep : test_record.sweeps) {
      const auto view = views.find(sweep.id);
      if (sweep.stop_id != stop.id || sweep.confirms || view == views.end() || view->second->read() == 0) continue;
      if (sweep.power_w) sum += *sweep.power_w, count += 1;
      const Rung* rung = test_record.rung(sweep.rung_id);
      if (!rung) continue;
      FitSweep fit{rung->height_m, static_cast<int>(q.settings.size()) - 1, view->second->layout, view->second->ppfd};
      if (fit.layout.is_lattice() && fit.layout.stations.size() > dense_stations)
        if (auto reduced = reduce(fit.layout, fit.ppfd, std::min(dense_cells, fit.layout.columns),
                                  std::min(dense_cells, fit.layout.rows)))
          fit.layout = reduced.value().layout, fit.ppfd = reduced.value().ppfd;
      q.fit.sweeps.push_back(std::move(fit));
      q.sweep_ids.push_back(sweep.id);
      q.views.push_back(view->second);
    }
    if (count > 0) setting.power_w = sum / count;
  }
  q.least_height_m = sunbreak::least_height_m(test_record.fixture.emitter_spacing_m);
  q.height_step_m = tape_step_m(q.fit);
  if (const auto steps = parse_dimmer_steps(test_record.fixture.dimmer_steps)) q.dimmer = steps.value();
  return q;
}

}  // namespace sunbreak::evaluation
