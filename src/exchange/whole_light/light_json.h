#pragma once

#include <nlohmann/json.hpp>

#include "evaluation/test_light.h"

namespace sunbreak::exchange {

/// {"value": …, "expanded_k2": …}; null for what is not known.
nlohmann::ordered_json found_json(const FoundValue& value);

/// Whole light as the command line prints it and a data package carries it; keys are listed in docs/formats.md.
nlohmann::ordered_json whole_light_json(const evaluation::TestLight& light);

}  // namespace sunbreak::exchange
