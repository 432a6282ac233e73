#include "record/json_text.h"

#include <nlohmann/json.hpp>

namespace sunbreak::record {

nlohmann::json json_of(std::string_view text) { return nlohmann::json::parse(text, nullptr, false); }

std::string json_text(const nlohmann::ordered_json& value, int indent) {
  return value.dump(indent, ' ', false, nlohmann::ordered_json::error_handler_t::replace);
}

}  // namespace sunbreak::record
