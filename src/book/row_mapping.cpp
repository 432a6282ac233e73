#include "book/row_mapping.h"

#include <SQLiteCpp/Column.h>

#include <fmt/format.h>

#include <limits>

#include "book/row_sum.h"
#include "record/faults.h"

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
    // What is of another type there is no value of the column: it is told as a fault, never made into a number.
    case Type::Integer:
      return cell.isInteger() ? cell.getInt64() : std::int64_t{std::numeric_limits<int>::min()};
    case Type::Number:
      return cell.isFloat() || cell.isInteger() ? cell.getDouble() : std::numeric_limits<double>::quiet_NaN();
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

std::string insert_text(const Kind& kind) {
  std::string marks = "?";
  for (std::size_t i = 0; i < kind.columns.size(); ++i) marks += ", ?";
  return "INSERT INTO " + std::string(kind.name()) + "(id, " + column_list(kind) + ") VALUES(" + marks + ")";
}

}  // namespace

std::string select_text(const Kind& kind) {
  return "SELECT id, " + column_list(kind) + ", " + row_sum_column + " FROM " + std::string(kind.name()) + " ";
}

void read_rows(SQLite::Statement& statement, const Kind& kind, const std::function<void*()>& add,
               DamagedRows& damaged) {
  while (statement.executeStep()) {
    void* row = add();
    const Id id = statement.getColumn(0).getInt64();
    kind.id(row) = id;
    RowSum sum(kind, id);
    int at = 1;
    for (const Column& column : kind.columns) {
      const SQLite::Column cell = statement.getColumn(at++);
      const Value value = value_of(cell, column.type);
      sum.add(value);
      column.set(row, value);
    }
    if (statement.getColumn(at).getInt64() != sum.value())
      damaged.emplace(kind.name(), id);
    else if (!damaged.empty())
      damaged.erase({kind.name(), id});  // written anew since
  }
}

namespace {

/// Tells of each row its id, the sum of what it holds and the sum that stands beside it.
void each_sum(const SQLite::Database& db, const Kind& kind, const std::stop_token& stop,
              const std::function<void(Id id, std::int64_t found, std::int64_t kept)>& tell) {
  SQLite::Statement statement(db, select_text(kind));
  while (!stop.stop_requested() && statement.executeStep()) {
    const Id id = statement.getColumn(0).getInt64();
    RowSum sum(kind, id);
    int at = 1;
    for (const Column& column : kind.columns) sum.add(value_of(statement.getColumn(at++), column.type));
    tell(id, sum.value(), statement.getColumn(at).getInt64());
  }
}

}  // namespace

DamagedRows damaged_rows(const SQLite::Database& db, const std::stop_token& stop) {
  DamagedRows damaged;
  for (const Kind& kind : kinds())
    each_sum(db, kind, stop, [&](Id id, std::int64_t found, std::int64_t kept) {
      if (found != kept) damaged.emplace(kind.name(), id);
    });
  return damaged;
}

void sum_all_rows(SQLite::Database& db) {
  for (const Kind& kind : kinds()) {
    std::vector<std::pair<Id, std::int64_t>> sums;
    each_sum(db, kind, {}, [&](Id id, std::int64_t found, std::int64_t) { sums.emplace_back(id, found); });
    SQLite::Statement keep(db, fmt::format("UPDATE {} SET {} = ? WHERE id = ?", kind.name(), row_sum_column));
    for (const auto& [id, sum] : sums) {
      keep.bind(1, sum);
      keep.bind(2, id);
      keep.exec();
      keep.reset();
    }
  }
}

SQLite::Statement& RowWriter::prepared(const std::string& sql) {
  const auto found = statements_.find(sql);
  SQLite::Statement& statement =
      found != statements_.end() ? found->second : statements_.try_emplace(sql, db_, sql).first->second;
  statement.reset();
  statement.clearBindings();
  return statement;
}

namespace {
void refuse_impossible(const Kind& kind, const void* row) {
  if (const auto fault = row_fault(kind, row)) throw ImpossibleRow(*fault);
}
}  // namespace

Id RowWriter::insert(const Kind& kind, const void* row) {
  refuse_impossible(kind, row);
  SQLite::Statement& statement = prepared(insert_text(kind));
  if (const Id id = id_of(kind, row); id != 0) statement.bind(1, id);
  bind_row(statement, kind, row, 2);
  statement.exec();
  statement.reset();
  const Id id = db_.getLastInsertRowid();
  keep_sum(kind, row, id);
  return id;
}

void RowWriter::keep_sum(const Kind& kind, const void* row, Id id) {
  SQLite::Statement& statement =
      prepared("UPDATE " + std::string(kind.name()) + " SET " + row_sum_column + " = ? WHERE id = ?");
  statement.bind(1, row_sum(kind, row, id));
  statement.bind(2, id);
  statement.exec();
  statement.reset();
}

void RowWriter::update(const Kind& kind, const void* row) {
  refuse_impossible(kind, row);
  SQLite::Statement& statement =
      prepared("UPDATE " + std::string(kind.name()) + " SET " + column_list(kind, " = ?") + " WHERE id = ?");
  const Id id = id_of(kind, row);
  statement.bind(bind_row(statement, kind, row, 1), id);
  statement.exec();
  statement.reset();
  keep_sum(kind, row, id);
}

void RowWriter::erase(const Kind& kind, Id id) {
  SQLite::Statement& statement = prepared("DELETE FROM " + std::string(kind.name()) + " WHERE id = ?");
  statement.bind(1, id);
  statement.exec();
  statement.reset();
}

void RowWriter::put(const Kind& kind, const void* row, const std::string& unique) {
  refuse_impossible(kind, row);
  std::string changes;
  for (const Column& column : kind.columns)
    changes += (changes.empty() ? "" : ", ") + column.name + " = excluded." + column.name;
  SQLite::Statement& statement =
      prepared(insert_text(kind) + " ON CONFLICT(" + unique + ") DO UPDATE SET " + changes + " RETURNING id");
  bind_row(statement, kind, row, 2);
  statement.executeStep();
  const Id id = statement.getColumn(0).getInt64();
  statement.reset();
  keep_sum(kind, row, id);
}

}  // namespace sunbreak::book
