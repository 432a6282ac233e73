#include "exchange/package/cell_values.h"

#include <charconv>

#include "core/quantity/number.h"
#include "exchange/package/csv_writer.h"

namespace sunbreak::exchange {

void append_cell(std::string& csv, const Column& column, const Value& value) {
  csv += ',';
  if (const auto* whole = std::get_if<std::int64_t>(&value))
    csv += column.type == Type::Boolean ? (*whole ? "true" : "false") : std::to_string(*whole);
  if (const auto* number = std::get_if<double>(&value)) csv += number_cell(*number);
  if (const auto* text = std::get_if<std::string_view>(&value)) csv += quoted_cell(*text);
}

std::optional<Value> value_of_cell(const std::string& cell, Type type) {
  if (type == Type::Text || type == Type::Bytes) return std::string_view(cell);
  if (cell.empty()) return Value{};
  if (type == Type::Boolean) {
    if (cell != "true" && cell != "false") return {};
    return std::int64_t{cell == "true"};
  }
  if (type == Type::Integer) {
    std::int64_t whole = 0;
    const auto [end, error] = std::from_chars(cell.data(), cell.data() + cell.size(), whole);
    if (error != std::errc{} || end != cell.data() + cell.size()) return {};
    return whole;
  }
  const auto number = parse_number(cell);
  return number ? std::optional<Value>(*number) : std::nullopt;
}

const char* field_type(Type type) {
  switch (type) {
    case Type::Boolean:
      return "boolean";
    case Type::Integer:
      return "integer";
    case Type::Number:
      return "number";
    case Type::Text:
    case Type::Bytes:
      break;
  }
  return "string";
}

}  // namespace sunbreak::exchange
