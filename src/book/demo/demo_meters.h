#pragma once

#include <vector>

#include "record/kinds/check_lamp_reading.h"
#include "record/kinds/fitted_lux_factor.h"
#include "record/kinds/meter.h"

namespace sunbreak::book {

/// The response of the sample sensor "QS-1" and the light that it was calibrated under.
void know_response(record::Meter& sensor);

/// The borrowed lux meter, and its factor under the fixture "Ostler Six-Bar", found beside the loft sensor.
record::Meter sample_lux_meter();
record::FittedLuxFactor sample_lux_factor(record::Id lux_meter, record::Id fixture);

/// Seven weeks of a check lamp by two sensors, of which the second moves in the fifth week.
std::vector<record::CheckLampReading> sample_check_readings(record::Id steady, record::Id moving);

}  // namespace sunbreak::book
