#include "book/row_mapping.h"

#include <SQLiteCpp/Column.h>

namespace sunbreak::book {
namespace {

/// The names of a kind's columns, each followed by `after`.
std::string column_list(const Kind& kind, const char* after = "") {
  std::string list;
  for (const Column& column : kind.columns) list += (list.empty() ? "" : ", ") + column.name + after;
  return list;
}

void bind_value(SQLite::Statement& statement, int index, const Column& column, const Value& value) {
  if (std::holds_alternative<std::monostate>(value)) return statement.bind(index);
  if (const auto* whole = std::get_if<std::int64_t>(&value)) return statement.bind(index, *whole);
  if (const auto* number = std::get_if<double>(&value)) return statement.bind(index, *number);
  const auto text = std::get<std::string_view>(value);
  if (column.type == Type::Bytes) return statement.bind(index, text.data(), static_cast<int>(text.size()));
  statement.bind(index, std::string(text));
}

Value value_of(const SQLite::Column& cell, Type type) {
  if (cell.isNull()) return {};
  switch (type) {
    case Type::Boolean:
      return std::int64_t{cell.getInt64() != 0};
    case Type::Integer:
      return cell.getInt64();
    case Type::Number:
      return cell.getDouble();
    case Type::Text: {
      const char* text = cell.getText();  // before its size: asking for text may turn the cell into one
      return std::string_view(text, static_cast<std::size_t>(cell.getBytes()));
    }
    case Type::Bytes:
      break;
  }
  const void* bytes = cell.getBlob();
  return std::string_view(static_cast<const char*>(bytes), static_cast<std::size_t>(cell.getBytes()));
}

/// Binds all columns from `first` on; returns the next free index.
int bind_row(SQLite::Statement& statement, const Kind& kind, const void* row, int first) {
  for (const Column& column : kind.columns) bind_value(statement, first++, column, column.get(row));
  return first;
}

Id id_of(const Kind& kind, const void* row) { return kind.id(const_cast<void*>(row)); }

}  // namespace

std::string select_text(const Kind& kind) {
  return "SELECT id, " + column_list(kind) + " FROM " + std::string(kind.name()) + " ";
}

void read_rows(SQLite::Statement& statement, const Kind& kind, const std::function<void*()>& add) {
  while (statement.executeStep()) {
    void* row = add();
    kind.id(row) = statement.getColumn(0).getInt64();
    int at = 1;
    for (const Column& column : kind.columns) column.set(row, value_of(statement.getColumn(at++), column.type));
  }
}

Id insert_row(SQLite::Database& db, const Kind& kind, const void* row) {
  std::string marks = "?";
  for (std::size_t i = 0; i < kind.columns.size(); ++i) marks += ", ?";
  SQLite::Statement statement(
      db, "INSERT INTO " + std::string(kind.name()) + "(id, " + column_list(kind) + ") VALUES(" + marks + ")");
  if (const Id id = id_of(kind, row); id != 0) statement.bind(1, id);
  bind_row(statement, kind, row, 2);
  statement.exec();
  return db.getLastInsertRowid();
}

void update_row(SQLite::Database& db, const Kind& kind, const void* row) {
  SQLite::Statement statement(
      db, "UPDATE " + std::string(kind.name()) + " SET " + column_list(kind, " = ?") + " WHERE id = ?");
  statement.bind(bind_row(statement, kind, row, 1), id_of(kind, row));
  statement.exec();
}

void erase_row(SQLite::Database& db, const Kind& kind, Id id) {
  SQLite::Statement statement(db, "DELETE FROM " + std::string(kind.name()) + " WHERE id = ?");
  statement.bind(1, id);
  statement.exec();
}

}  // namespace sunbreak::book
