#pragma once

#include <optional>

#include "core/checks/finding.h"
#include "core/result.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::evaluation {

/// Why a lux factor must not be used for a test: its light is another than the factor was found under. By the spectra
/// of both where they are known; otherwise by the fixture, or by the word for their class of light. Nothing where it
/// may be used. Levels are each sweep's own to check.
std::optional<Problem> lux_factor_refused(const TestRecord& record, const FittedLuxFactor& factor);

/// Whether a factor was found under this very fixture, whatever either is called.
bool found_under_fixture(const FittedLuxFactor& factor, Id fixture_id);

/// Whether a test's light meter tells lux and no factor is there that makes PPFD of it: nothing may be read then.
std::optional<Problem> lux_factor_missing(const TestRecord& record);

/// Half width of the interval that holds k in 95 %, with how sure the sensor is that told the PPFD: of a usual one
/// where that is not known. Nothing where the factor comes without a word of it.
std::optional<double> whole_k_expanded(const FittedLuxFactor& factor);

/// What corrects the light that a connected sensor tells or a log holds: that is PPFD. Nothing is known of the sensor
/// where the test is walked by a lux meter, and its values are taken as they stand.
Correction live_correction(const TestRecord& record);

/// That stations lie outside of the levels a sweep's lux factor holds for.
std::optional<Finding> lux_level_check(const Sweep& sweep, const SweepView& view);

}  // namespace sunbreak::evaluation
