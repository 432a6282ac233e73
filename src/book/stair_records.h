#pragma once

#include "book/bundle.h"
#include "core/heat/surface_temperature.h"
#include "core/power/dimmer_stair.h"

namespace sunbreak::book {

/// The stair of a test as it was read, corrected as its sensor is; a Problem where there is none.
Result<DimmerStair> stair_of(const TestBundle& test);

/// A temperature of a test, with the air taken nearest to it in time.
TemperatureShot shot_of(const TestBundle& test, const Temperature& temperature);

}  // namespace sunbreak::book
