#pragma once

#include <functional>
#include <string>
#include <string_view>

#include "record/test_record.h"

namespace sunbreak::evaluation {

using namespace record;

/// What a plug-in meter's watts repeat to from one test to another, beside its calibration: its last digit and the
/// mains. A relative standard deviation.
inline constexpr double watts_repeat = 0.002;

/// How much of the contributions to the uncertainty of two sweeps, by their id, is alike and cancels where they are
/// compared, as a correlation: all of those of a meter that both were read with, its calibration where both were
/// corrected by the same factor, the edges of one bench, the sampling by one grid; of its spectral response all under
/// one lamp, and what spectral_apart() leaves under two of one kind.
std::function<double(std::string_view contribution)> shared_parts(const TestRecord& a, const Sweep& sweep_a,
                                                                  const TestRecord& b, const Sweep& sweep_b);

/// What a sensor's spectral response may do otherwise under this light than under another of its kind: lamps that are
/// called alike have spectra that are not. By its response and the spectrum where both are on record: what the sweep is
/// not corrected by, and how sure the correction is. Else as of two white lamps that nothing is known of, which
/// differ by ¾ %. A relative standard uncertainty.
double spectral_apart(const TestRecord& record, const Sweep& sweep);

/// "LED", "sodium", "metal halide", "fluorescent" or "" by how a fixture is described.
std::string kind_of_light(const Fixture& fixture);

/// The same meter, in whatever lab book: its card without its number.
bool same_meter(const Meter* a, const Meter* b);

}  // namespace sunbreak::evaluation
