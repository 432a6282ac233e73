#pragma once

#include <SQLiteCpp/Database.h>
#include <SQLiteCpp/Statement.h>

#include <string>
#include <vector>

#include "book/records.h"
#include "book/row_values.h"

/// Moves records to and from their tables by the columns that Table<T> names.
namespace sunbreak::book {

template <typename Record, typename Visit>
void for_each_column(Visit visit) {
  std::apply([&](const auto&... column) { (visit(column), ...); }, Table<Record>::columns);
}

/// What needs all columns of a record at once. Compiled once for every record (rows_of_*.cpp), since tables of fifty
/// columns are slow to compile.
template <typename Record>
struct RowsOf {
  /// SELECT of all columns from the record's table, before any condition.
  static std::string select_text();
  /// All rows of such a statement.
  static std::vector<Record> read(SQLite::Statement& statement);
  static Id insert(SQLite::Database& db, const Record& record);
  static void update(SQLite::Database& db, const Record& record);
  static void erase(SQLite::Database& db, Id id);
};

/// Rows of a table where `condition` (SQL, with ? for each of `values`) holds.
template <typename Record, typename... Values>
std::vector<Record> select(const SQLite::Database& db, const std::string& condition, const Values&... values) {
  SQLite::Statement statement(db, RowsOf<Record>::select_text() + condition);
  int index = 1;
  (bind_value(statement, index++, values), ...);
  return RowsOf<Record>::read(statement);
}

/// Adds a row; a record whose id is 0 gets a new one. Returns the id.
template <typename Record>
Id insert(SQLite::Database& db, const Record& record) {
  return RowsOf<Record>::insert(db, record);
}

template <typename Record>
void update(SQLite::Database& db, const Record& record) {
  RowsOf<Record>::update(db, record);
}

template <typename Record>
void erase(SQLite::Database& db, Id id) {
  RowsOf<Record>::erase(db, id);
}

}  // namespace sunbreak::book
