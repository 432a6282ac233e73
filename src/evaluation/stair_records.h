#pragma once

#include "core/heat/surface_temperature.h"
#include "core/power/dimming_curve.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::evaluation {

/// Of a light factor that a stair tells, between or beyond walked settings, relative (k = 1): its readings and what lies
/// between them.
constexpr double stair_sd = 0.004;

/// The stair of a test as it was read, corrected as its sensor is; a Problem where there is none.
Result<DimmingCurve> stair_of(const TestRecord& test);

/// A temperature of a test, with the air taken nearest to it in time.
TemperatureShot shot_of(const TestRecord& test, const Temperature& temperature, UnitSystem units = UnitSystem::Metric);

}  // namespace sunbreak::evaluation
