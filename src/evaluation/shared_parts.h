#pragma once

#include <functional>
#include <string_view>

#include "record/test_record.h"

namespace sunbreak::evaluation {

using namespace record;

/// What a plug-in meter's watts repeat to from one test to another, beside its calibration: its last digit and the
/// mains. A relative standard deviation.
inline constexpr double watts_repeat = 0.002;

/// Which contributions to the uncertainty of two sweeps, by their id, are alike and cancel where they are compared:
/// those of a meter that both were read with, its calibration where both were corrected by the same factor, the edges
/// of one bench, the sampling by one grid.
std::function<bool(std::string_view contribution)> shared_parts(const TestRecord& a, const Sweep& sweep_a,
                                                                const TestRecord& b, const Sweep& sweep_b);

/// The same meter, in whatever lab book: its card without its number.
bool same_meter(const Meter* a, const Meter* b);

}  // namespace sunbreak::evaluation
