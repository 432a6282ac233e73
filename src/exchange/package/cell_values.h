#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

/// Single values to and from the cells of a package's tables.
namespace sunbreak::exchange {

using namespace record;

/// Adds a comma and the value; what is not stated is an empty cell.
void append_cell(std::string& csv, const Column& column, const Value& value);

/// Reads a whole cell, which has to outlive the value; nothing where it does not hold one of that type. An empty cell
/// is an empty text, or nothing.
std::optional<Value> value_of_cell(const std::string& cell, Type type);

/// What the descriptor calls the type.
const char* field_type(Type type);

}  // namespace sunbreak::exchange
