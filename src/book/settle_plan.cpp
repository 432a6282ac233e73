#include "book/settle_plan.h"

#include <fmt/format.h>

#include <cmath>

#include "book/plan.h"
#include "core/quantity/display.h"
#include "core/settle/confirming_places.h"
#include "record/configurations.h"
#include "record/plan_grid.h"

namespace sunbreak::book {
namespace {

constexpr double same_rung_m = 0.0006, same_stop_pct = 0.06;

/// The rung and the stop of a test there; 0 for one that there is not.
std::pair<Id, Id> rung_and_stop(const TestRecord& test, double height_m, double percent) {
  std::pair<Id, Id> there{0, 0};
  for (const Rung& rung : test.rungs)
    if (std::abs(rung.height_m - height_m) <= same_rung_m) there.first = rung.id;
  for (const Stop& stop : test.stops)
    if (std::abs(stop.percent - percent) <= same_stop_pct) there.second = stop.id;
  return there;
}

}  // namespace

const Sweep* confirmation_at(const TestRecord& test, double height_m, double percent) {
  const auto [rung, stop] = rung_and_stop(test, height_m, percent);
  const Sweep* sweep = test.sweep(rung, stop);
  return sweep && sweep->confirms ? sweep : nullptr;
}

Result<std::pair<Id, Id>> plan_confirmation(Book& book, const TestRecord& test, double height_m, double percent,
                                            std::span<const double> predicted_ppfd, const Layout& stations) {
  const auto spots = confirming_places(stations, predicted_ppfd);
  if (spots.empty())
    return Problem{"the test was walked on loose spots", "there is no grid to choose stations from",
                   "walk a grid first"};
  std::pair<Id, Id> there = rung_and_stop(test, height_m, percent);
  if (const Sweep* sweep = test.sweep(there.first, there.second)) {
    if (sweep->confirms) return there;
    return Problem{fmt::format("{} at {:.4g} % was walked whole", length_text(height_m, UnitSystem::Metric), percent),
                   "there is nothing to confirm", "its figures stand on Read"};
  }
  book.edit("a walk that confirms", [&](Edit& edit) {
    if (there.first == 0) there.first = edit.add(Rung{0, test.test.id, height_m, true, configuration_of(test)});
    if (there.second == 0) there.second = edit.add(Stop{0, test.test.id, percent, true, configuration_of(test)});
    Sweep sweep = sweep_for(edit, test, there.first, there.second);
    record::set_grid(sweep, Grid{GridKind::Spots, 0, 0, 0, 0, spots});
    sweep.confirms = true;
    edit.save(sweep);
  });
  return there;
}

}  // namespace sunbreak::book
