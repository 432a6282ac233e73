#pragma once

#include <SQLiteCpp/Statement.h>

#include <optional>
#include <string>

#include "book/record_table.h"

/// Single values to and from a database row, one function a type: tables of fifty columns call them instead of holding
/// them all, which keeps what is compiled of every table small.
namespace sunbreak::book {

void bind_value(SQLite::Statement& statement, int index, bool value);
void bind_value(SQLite::Statement& statement, int index, int value);
void bind_value(SQLite::Statement& statement, int index, Id value);
void bind_value(SQLite::Statement& statement, int index, double value);
void bind_value(SQLite::Statement& statement, int index, const std::string& value);
void bind_value(SQLite::Statement& statement, int index, const Bytes& value);
void bind_value(SQLite::Statement& statement, int index, const std::optional<double>& value);
void bind_value(SQLite::Statement& statement, int index, const std::optional<int>& value);
void bind_value(SQLite::Statement& statement, int index, const std::optional<Id>& value);

void read_value(SQLite::Statement& statement, int column, bool& value);
void read_value(SQLite::Statement& statement, int column, int& value);
void read_value(SQLite::Statement& statement, int column, Id& value);
void read_value(SQLite::Statement& statement, int column, double& value);
void read_value(SQLite::Statement& statement, int column, std::string& value);
void read_value(SQLite::Statement& statement, int column, Bytes& value);
void read_value(SQLite::Statement& statement, int column, std::optional<double>& value);
void read_value(SQLite::Statement& statement, int column, std::optional<int>& value);
void read_value(SQLite::Statement& statement, int column, std::optional<Id>& value);

/// Adds a column's name to a list of them.
void append_name(std::string& list, const char* name, const char* between, const char* after);

}  // namespace sunbreak::book
