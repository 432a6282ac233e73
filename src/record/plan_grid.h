#pragma once

#include "core/bench/grid.h"
#include "core/sweep/correction.h"
#include "record/test_record.h"

namespace sunbreak::record {

/// The grid of a plan or of a sweep; `spots` that cannot be read count as none.
template <typename Plan>
Grid grid_of(const Plan& plan);
extern template Grid grid_of(const Test&);
extern template Grid grid_of(const Sweep&);

/// Whether a plan's or sweep's text of spots is a JSON list of {name, x_m, y_m}, each once and finite.
bool spots_are_sound(const std::string& spots);

/// Copies a grid into a plan or a sweep.
template <typename Plan>
void set_grid(Plan& plan, const Grid& grid);
extern template void set_grid(Test&, const Grid&);
extern template void set_grid(Sweep&, const Grid&);

Footprint footprint_of(const Bench& bench);

Correction correction_of(const Sweep& sweep);
/// The factor of the lux meter that a test is walked by; null where it is walked by another meter, or has none yet.
const FittedLuxFactor* lux_factor_of(const TestRecord& record);
/// Whether the test's light meter tells lux.
bool walked_by_lux(const TestRecord& record);
/// As the test's sensor is set now, its lux factor in it; none where the test names no sensor.
Correction correction_of(const TestRecord& record);
Correction correction_of(const LogPart& part);

}  // namespace sunbreak::record
