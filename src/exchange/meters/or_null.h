#pragma once

#include <cmath>
#include <nlohmann/json.hpp>

namespace sunbreak::exchange {

/// JSON has no NaN and no infinity: both are null.
inline nlohmann::ordered_json or_null(double value) {
  return std::isfinite(value) ? nlohmann::ordered_json(value) : nlohmann::ordered_json(nullptr);
}

}  // namespace sunbreak::exchange
