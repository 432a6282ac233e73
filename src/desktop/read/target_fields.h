#pragma once

#include "desktop/desk/desk.h"
#include "desktop/widgets/form.h"

namespace sunbreak::desktop {

/// A target with its list, band and photoperiod.
QString target_words(const record::CropTarget& target);

/// The crop target of the test on the desk: one from the shelf, or its own band and photoperiod.
void add_target_fields(Form& form, Desk& desk);

/// Growing areas of the tester's own beside the usual nominal footprints.
void add_own_sizes(Form& form, Desk& desk);

}  // namespace sunbreak::desktop
