#pragma once

#include "desktop/shell/desk.h"
#include "desktop/widgets/form.h"

namespace sunbreak::desktop {

/// The crop target of the test on the desk: one of the shipped sets, or its own band and photoperiod.
void add_target_fields(Form& form, Desk& desk);

}  // namespace sunbreak::desktop
