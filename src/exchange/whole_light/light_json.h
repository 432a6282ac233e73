#pragma once

#include "record/json.h"

#include "evaluation/test_light.h"

namespace sunbreak::exchange {

/// {"value": …, "expanded_k2": …}; null for what is not known.
record::Json found_json(const FoundValue& value);

/// Whole light as the command line prints it and a data package carries it; keys are listed in docs/formats.md.
record::Json whole_light_json(const evaluation::TestLight& light);

}  // namespace sunbreak::exchange
