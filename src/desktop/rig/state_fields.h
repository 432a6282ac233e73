#pragma once

#include "desktop/desk/desk.h"
#include "desktop/widgets/form.h"

namespace sunbreak::desktop {

/// How the fixture's units hang: a lattice about the middle, turned, the outer ones tilted inward.
void add_arrangement_fields(Form& form, Desk& desk);

/// Which configuration of the fixture all is of, its name, and how to add one or take it out.
void add_configuration_fields(Form& form, Desk& desk);

/// How the fixture is driven: of the test from now on, and of the sweep at hand.
void add_control_fields(Form& form, Desk& desk);

/// Hours run, and whether the test repeats an earlier one.
void add_history_fields(Form& form, Desk& desk);

}  // namespace sunbreak::desktop
