#pragma once

#include "desktop/shelf/record_fields.h"

namespace sunbreak::desktop {

/// What a sensor makes of each wavelength, and the light that it was calibrated under: by which its readings can be
/// corrected under a light whose spectrum is known. Both come from files.
void add_sensor_light_fields(Form& form, Desk& desk, const WhichId& id, QWidget* window);

}  // namespace sunbreak::desktop
