#include "book/package/cell_values.h"

#include <charconv>

#include "book/package/csv_writer.h"
#include "core/quantity/number.h"

namespace sunbreak::book {
namespace {

template <typename Value>
void append_optional(std::string& csv, const std::optional<Value>& value) {
  if (value)
    append_cell(csv, *value);
  else
    csv += ',';
}

template <typename Value>
bool from_optional(const std::string& cell, std::optional<Value>& value) {
  value.reset();
  return cell.empty() || from_cell(cell, value.emplace());
}

template <typename Value>
bool from_whole(const std::string& cell, Value& value) {
  const auto [end, error] = std::from_chars(cell.data(), cell.data() + cell.size(), value);
  return error == std::errc{} && end == cell.data() + cell.size();
}

}  // namespace

void append_cell(std::string& csv, bool value) { csv += value ? ",true" : ",false"; }
void append_cell(std::string& csv, int value) { csv += "," + std::to_string(value); }
void append_cell(std::string& csv, Id value) { csv += "," + std::to_string(value); }
void append_cell(std::string& csv, double value) { csv += "," + number_cell(value); }
void append_cell(std::string& csv, const std::string& value) { csv += "," + quoted_cell(value); }
void append_cell(std::string& csv, const std::optional<double>& value) { append_optional(csv, value); }
void append_cell(std::string& csv, const std::optional<int>& value) { append_optional(csv, value); }
void append_cell(std::string& csv, const std::optional<Id>& value) { append_optional(csv, value); }

bool from_cell(const std::string& cell, bool& value) {
  value = cell == "true";
  return cell == "true" || cell == "false";
}
bool from_cell(const std::string& cell, int& value) { return from_whole(cell, value); }
bool from_cell(const std::string& cell, Id& value) { return from_whole(cell, value); }
bool from_cell(const std::string& cell, double& value) {
  const auto number = parse_number(cell);
  value = number.value_or(0);
  return number.has_value();
}
bool from_cell(const std::string& cell, std::string& value) {
  value = cell;
  return true;
}
bool from_cell(const std::string& cell, std::optional<double>& value) { return from_optional(cell, value); }
bool from_cell(const std::string& cell, std::optional<int>& value) { return from_optional(cell, value); }
bool from_cell(const std::string& cell, std::optional<Id>& value) { return from_optional(cell, value); }

const char* field_type(bool) { return "boolean"; }
const char* field_type(int) { return "integer"; }
const char* field_type(Id) { return "integer"; }
const char* field_type(double) { return "number"; }
const char* field_type(const std::string&) { return "string"; }
const char* field_type(const std::optional<double>&) { return "number"; }
const char* field_type(const std::optional<int>&) { return "integer"; }
const char* field_type(const std::optional<Id>&) { return "integer"; }

}  // namespace sunbreak::book
