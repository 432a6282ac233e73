#pragma once

#include <optional>
#include <string>

#include "book/record_table.h"

/// Single values to and from the cells of a package's tables, one function a type.
namespace sunbreak::book {

/// Adds a comma and the value; what is not known is an empty cell.
void append_cell(std::string& csv, bool value);
void append_cell(std::string& csv, int value);
void append_cell(std::string& csv, Id value);
void append_cell(std::string& csv, double value);
void append_cell(std::string& csv, const std::string& value);
void append_cell(std::string& csv, const std::optional<double>& value);
void append_cell(std::string& csv, const std::optional<int>& value);
void append_cell(std::string& csv, const std::optional<Id>& value);

/// Reads a whole cell; false where it does not hold such a value.
bool from_cell(const std::string& cell, bool& value);
bool from_cell(const std::string& cell, int& value);
bool from_cell(const std::string& cell, Id& value);
bool from_cell(const std::string& cell, double& value);
bool from_cell(const std::string& cell, std::string& value);
bool from_cell(const std::string& cell, std::optional<double>& value);
bool from_cell(const std::string& cell, std::optional<int>& value);
bool from_cell(const std::string& cell, std::optional<Id>& value);

/// What the descriptor calls the type.
const char* field_type(bool);
const char* field_type(int);
const char* field_type(Id);
const char* field_type(double);
const char* field_type(const std::string&);
const char* field_type(const std::optional<double>&);
const char* field_type(const std::optional<int>&);
const char* field_type(const std::optional<Id>&);

}  // namespace sunbreak::book
