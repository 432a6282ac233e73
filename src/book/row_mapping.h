#pragma once

#include <SQLiteCpp/Database.h>
#include <SQLiteCpp/Statement.h>

#include <string>
#include <type_traits>
#include <vector>

#include "book/records.h"
#include "book/row_values.h"

/// Moves records to and from their tables by the columns that Table<T> names.
namespace sunbreak::book {

template <typename Record, typename Visit>
void for_each_column(Visit visit) {
  std::apply([&](const auto&... column) { (visit(column), ...); }, Table<Record>::columns);
}

/// Binds all columns from `first` on; returns the next free index.
template <typename Record>
int bind_record(SQLite::Statement& statement, const Record& record, int first) {
  for_each_column<Record>([&](const auto& column) { bind_value(statement, first++, record.*(column.member)); });
  return first;
}

template <typename Record>
std::string column_list(const char* between = ", ", const char* after = "") {
  std::string text;
  for_each_column<Record>([&](const auto& column) { append_name(text, column.name, between, after); });
  return text;
}

/// Rows of a table where `condition` (SQL, with ? for each of `values`) holds.
template <typename Record, typename... Values>
std::vector<Record> select(const SQLite::Database& db, const std::string& condition, const Values&... values) {
  SQLite::Statement statement(db,
                              "SELECT id, " + column_list<Record>() + " FROM " + Table<Record>::name + " " + condition);
  int index = 1;
  (bind_value(statement, index++, values), ...);
  std::vector<Record> rows;
  while (statement.executeStep()) {
    Record& record = rows.emplace_back();
    record.id = statement.getColumn(0).getInt64();
    int at = 1;
    for_each_column<Record>([&](const auto& column) { read_value(statement, at++, record.*(column.member)); });
  }
  return rows;
}

/// Adds a row; a record whose id is 0 gets a new one. Returns the id.
template <typename Record>
Id insert(SQLite::Database& db, const Record& record) {
  std::string marks = "?";
  for_each_column<Record>([&](const auto&) { marks += ", ?"; });
  SQLite::Statement statement(db, std::string("INSERT INTO ") + Table<Record>::name + "(id, " + column_list<Record>() +
                                      ") VALUES(" + marks + ")");
  if (record.id != 0) statement.bind(1, record.id);
  bind_record(statement, record, 2);
  statement.exec();
  return db.getLastInsertRowid();
}

template <typename Record>
void update(SQLite::Database& db, const Record& record) {
  SQLite::Statement statement(db, std::string("UPDATE ") + Table<Record>::name + " SET " +
                                      column_list<Record>(" = ?, ", "") + " = ? WHERE id = ?");
  statement.bind(bind_record(statement, record, 1), record.id);
  statement.exec();
}

template <typename Record>
void erase(SQLite::Database& db, Id id) {
  SQLite::Statement statement(db, std::string("DELETE FROM ") + Table<Record>::name + " WHERE id = ?");
  statement.bind(1, id);
  statement.exec();
}

}  // namespace sunbreak::book
