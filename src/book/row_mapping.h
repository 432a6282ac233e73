#pragma once

#include <SQLiteCpp/Database.h>
#include <SQLiteCpp/Statement.h>

#include <functional>
#include <stop_token>
#include <string>
#include <unordered_map>
#include <vector>

#include "record/faults.h"
#include "record/kinds.h"

/// Moves records to and from their tables by the columns of their kind. Records are passed without their type where
/// only the kind knows it.
namespace sunbreak::book {

using namespace record;

/// SELECT of all columns and the sum from a kind's table, before any condition.
std::string select_text(const Kind& kind);

/// Reads all rows of such a statement, each into the record that `add` gives for it, and notes the damaged ones; those
/// that were noted and are sound now are struck out.
void read_rows(SQLite::Statement& statement, const Kind& kind, const std::function<void*()>& add, DamagedRows& damaged);

/// All damaged rows of a lab book, by a pass over all of it. `stop` is asked now and then.
DamagedRows damaged_rows(const SQLite::Database& db, const std::stop_token& stop = {});

/// Gives every row its sum as it stands: of a lab book that had none.
void sum_all_rows(SQLite::Database& db);

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
  void keep_sum(const Kind& kind, const void* row, Id id);

  SQLite::Database& db_;
  std::unordered_map<std::string, SQLite::Statement> statements_;
};

/// Rows of a table where `condition` (SQL, with ? for each of `values`) holds.
template <typename Record, typename... Values>
std::vector<Record> select(const SQLite::Database& db, DamagedRows& damaged, const std::string& condition,
                           const Values&... values) {
  std::vector<Record> rows;
  SQLite::Statement statement(db, select_text(kind_of<Record>()) + condition);
  int index = 1;
  (statement.bind(index++, values), ...);
  read_rows(
      statement, kind_of<Record>(), [&]() -> void* { return &rows.emplace_back(); }, damaged);
  return rows;
}

}  // namespace sunbreak::book
