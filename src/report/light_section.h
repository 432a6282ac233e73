#pragma once

#include <kainjow/mustache.hpp>

#include "core/quantity/display.h"
#include "evaluation/test_light.h"

namespace sunbreak::report {

/// What was found of the whole light, in sentences and numbers, and the test restated in the reference rooms. Nothing
/// for null.
void add_light_section(kainjow::mustache::data& page, const evaluation::TestLight* light, UnitSystem units);

}  // namespace sunbreak::report
