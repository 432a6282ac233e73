#pragma once

#include <cmath>
#include <fstream>
#include <nlohmann/json.hpp>
#include <string>

#include "core/result.h"

namespace sunbreak::cli {

/// JSON has no NaN and no infinity: both are null.
inline nlohmann::ordered_json number(double value) {
  return std::isfinite(value) ? nlohmann::ordered_json(value) : nlohmann::ordered_json(nullptr);
}

/// A whole file; a problem where it cannot be read.
inline Result<std::string> text_of_file(const std::string& path) {
  std::ifstream in(path, std::ios::binary);
  std::string text((std::istreambuf_iterator<char>(in)), {});
  if (!in.good() && text.empty()) return Problem{path + " cannot be read", "", "check the path and its rights"};
  return text;
}

}  // namespace sunbreak::cli
