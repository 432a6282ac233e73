#include "book/take_table.h"

#include <algorithm>
#include <cmath>

#include "book/plan.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::book {

using namespace evaluation;

void take_table(Edit& edit, const TestRecord& test, Id rung_id, Id stop_id, const exchange::TableDraft& draft,
                const std::string& source) {
  const Sweep* present = test.sweep(rung_id, stop_id);
  Sweep sweep = sweep_for(edit, test, rung_id, stop_id);
  std::vector<StationState> before;
  if (present)
    if (const auto view = view_sweep(test, *present)) before = view.value().states;
  const bool other_grid = !(grid_of(sweep) == draft.grid);
  if (other_grid) {
    for (std::size_t i = 0; i < before.size(); ++i) edit.clear_station(sweep.id, static_cast<int>(i));
    set_grid(sweep, draft.grid);
    edit.save(sweep);
    before.clear();
  }
  const std::string now = utc_now();
  for (std::size_t i = 0; i < draft.raw.size(); ++i) {
    const int station = static_cast<int>(i);
    if (!std::isnan(draft.raw[i]))
      edit.accept({0, sweep.id, station, draft.raw[i], source, now});
    else if (i >= before.size() || before[i].kind != StationState::Read)
      edit.declare_missing(sweep.id, station, "not in the table");
  }
}

exchange::TableContext table_context(const TestRecord& test, const Sweep* sweep, UnitSystem units) {
  const bool walked = sweep && std::any_of(test.placements.begin(), test.placements.end(),
                                           [&](const Placement& p) { return p.sweep_id == sweep->id && p.reading_id; });
  const Grid planned = walked ? grid_of(*sweep) : grid_of(test.test);
  exchange::TableContext context{footprint_of(test.bench), planned.kind, std::nullopt, planned, units,
                                 walked_by_lux(test)};
  if (planned.margin_x_m > 0) context.margin_m = planned.margin_x_m;
  return context;
}

}  // namespace sunbreak::book
