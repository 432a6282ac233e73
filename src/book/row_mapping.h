#pragma once

#include <SQLiteCpp/Database.h>
#include <SQLiteCpp/Statement.h>

#include <functional>
#include <string>
#include <unordered_map>
#include <vector>

#include "record/kinds.h"

/// Moves records to and from their tables by the columns of their kind. Records are passed without their type where
/// only the kind knows it.
namespace sunbreak::book {

using namespace record;

/// SELECT of all columns from a kind's table, before any condition.
std::string select_text(const Kind& kind);

/// Reads all rows of such a statement, each into the record that `add` gives for it.
void read_rows(SQLite::Statement& statement, const Kind& kind, const std::function<void*()>& add);

/// Writes rows of one database. Keeps each statement that it compiles: an import runs a few of them a hundred thousand
/// times.
class RowWriter {
 public:
  explicit RowWriter(SQLite::Database& db) : db_(db) {}

  /// Adds a row; a record whose id is 0 gets a new one. Returns the id. Throws ImpossibleRow, as the others do, where a
  /// column would hold what its kind says cannot be.
  Id insert(const Kind& kind, const void* row);
  void update(const Kind& kind, const void* row);
  void erase(const Kind& kind, Id id);
  /// Adds a row, or changes the one that stands for the same `unique` columns already.
  void put(const Kind& kind, const void* row, const std::string& unique);

 private:
  SQLite::Statement& prepared(const std::string& sql);

  SQLite::Database& db_;
  std::unordered_map<std::string, SQLite::Statement> statements_;
};

/// Rows of a table where `condition` (SQL, with ? for each of `values`) holds.
template <typename Record, typename... Values>
std::vector<Record> select(const SQLite::Database& db, const std::string& condition, const Values&... values) {
  std::vector<Record> rows;
  SQLite::Statement statement(db, select_text(kind_of<Record>()) + condition);
  int index = 1;
  (statement.bind(index++, values), ...);
  read_rows(statement, kind_of<Record>(), [&]() -> void* { return &rows.emplace_back(); });
  return rows;
}

}  // namespace sunbreak::book
