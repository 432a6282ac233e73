#pragma once

#include <cmath>
#include <nlohmann/json.hpp>

namespace sunbreak::gathering {

/// JSON has no NaN and no infinity: both are null.
inline nlohmann::ordered_json json_number(double value) {
  return std::isfinite(value) ? nlohmann::ordered_json(value) : nlohmann::ordered_json(nullptr);
}

}  // namespace sunbreak::gathering
