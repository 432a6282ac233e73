#pragma once

#include "book/row_mapping.h"

/// The members of RowsOf, for the files that compile them.
namespace sunbreak::book {

template <typename Record>
std::string column_list(const char* between = ", ", const char* after = "") {
  std::string text;
  for_each_column<Record>([&](const auto& column) { append_name(text, column.name, between, after); });
  return text;
}

/// Binds all columns from `first` on; returns the next free index.
template <typename Record>
int bind_record(SQLite::Statement& statement, const Record& record, int first) {
  for_each_column<Record>([&](const auto& column) { bind_value(statement, first++, record.*(column.member)); });
  return first;
}

template <typename Record>
std::string RowsOf<Record>::select_text() {
  return "SELECT id, " + column_list<Record>() + " FROM " + Table<Record>::name + " ";
}

template <typename Record>
std::vector<Record> RowsOf<Record>::read(SQLite::Statement& statement) {
  std::vector<Record> rows;
  while (statement.executeStep()) {
    Record& record = rows.emplace_back();
    record.id = statement.getColumn(0).getInt64();
    int at = 1;
    for_each_column<Record>([&](const auto& column) { read_value(statement, at++, record.*(column.member)); });
  }
  return rows;
}

template <typename Record>
Id RowsOf<Record>::insert(SQLite::Database& db, const Record& record) {
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
void RowsOf<Record>::update(SQLite::Database& db, const Record& record) {
  SQLite::Statement statement(db, std::string("UPDATE ") + Table<Record>::name + " SET " +
                                      column_list<Record>(" = ?, ", "") + " = ? WHERE id = ?");
  statement.bind(bind_record(statement, record, 1), record.id);
  statement.exec();
}

template <typename Record>
void RowsOf<Record>::erase(SQLite::Database& db, Id id) {
  SQLite::Statement statement(db, std::string("DELETE FROM ") + Table<Record>::name + " WHERE id = ?");
  statement.bind(1, id);
  statement.exec();
}

}  // namespace sunbreak::book
