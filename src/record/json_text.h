#pragma once

#include <nlohmann/json_fwd.hpp>
#include <string>
#include <string_view>

namespace sunbreak::record {

/// JSON is read and written as text here alone: what does so takes seconds to compile.

/// What a text says; is_discarded() where it is no JSON.
nlohmann::json json_of(std::string_view text);

/// A value as text: on one line, or with so many spaces a level. What is no UTF-8 in it becomes U+FFFD.
std::string json_text(const nlohmann::ordered_json& value, int indent = -1);

}  // namespace sunbreak::record
