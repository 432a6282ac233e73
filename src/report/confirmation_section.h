#pragma once

#include <kainjow/mustache.hpp>

#include "core/quantity/display.h"
#include "evaluation/test_light.h"

namespace sunbreak::evaluation {
class Evaluation;
}

namespace sunbreak::report {

/// Predictions that were held against a few readings, place by place. Nothing where there are none, or without a light.
void add_confirmations(kainjow::mustache::data& page, const evaluation::Evaluation& evaluation,
                       const evaluation::TestLight* light, UnitSystem units);

}  // namespace sunbreak::report
