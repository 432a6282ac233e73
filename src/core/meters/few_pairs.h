#pragma once

#include <fmt/format.h>

#include "core/result.h"

namespace sunbreak {

/// What is said of too few pairs of readings.
inline Problem too_few_pairs(std::size_t count, const char* means, const char* remedy) {
  return {fmt::format("There {} {} pair{} of readings", count == 1 ? "is" : "are", count, count == 1 ? "" : "s"), means,
          remedy};
}

}  // namespace sunbreak
