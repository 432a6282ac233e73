#include "book/row_values.h"

#include <SQLiteCpp/Column.h>

namespace sunbreak::book {
namespace {

template <typename Value>
void bind_optional(SQLite::Statement& statement, int index, const std::optional<Value>& value) {
  if (value)
    bind_value(statement, index, *value);
  else
    statement.bind(index);
}

template <typename Value>
void read_optional(SQLite::Statement& statement, int column, std::optional<Value>& value) {
  value.reset();
  if (!statement.getColumn(column).isNull()) read_value(statement, column, value.emplace());
}

}  // namespace

void bind_value(SQLite::Statement& s, int index, bool value) { s.bind(index, static_cast<int>(value)); }
void bind_value(SQLite::Statement& s, int index, int value) { s.bind(index, value); }
void bind_value(SQLite::Statement& s, int index, Id value) { s.bind(index, value); }
void bind_value(SQLite::Statement& s, int index, double value) { s.bind(index, value); }
void bind_value(SQLite::Statement& s, int index, const std::string& value) { s.bind(index, value); }
void bind_value(SQLite::Statement& s, int index, const Bytes& value) {
  s.bind(index, value.data.data(), static_cast<int>(value.data.size()));
}
void bind_value(SQLite::Statement& s, int index, const std::optional<double>& value) { bind_optional(s, index, value); }
void bind_value(SQLite::Statement& s, int index, const std::optional<int>& value) { bind_optional(s, index, value); }
void bind_value(SQLite::Statement& s, int index, const std::optional<Id>& value) { bind_optional(s, index, value); }

void read_value(SQLite::Statement& s, int column, bool& value) { value = s.getColumn(column).getInt() != 0; }
void read_value(SQLite::Statement& s, int column, int& value) { value = s.getColumn(column).getInt(); }
void read_value(SQLite::Statement& s, int column, Id& value) { value = s.getColumn(column).getInt64(); }
void read_value(SQLite::Statement& s, int column, double& value) { value = s.getColumn(column).getDouble(); }
void read_value(SQLite::Statement& s, int column, std::string& value) { value = s.getColumn(column).getString(); }
void read_value(SQLite::Statement& s, int column, Bytes& value) {
  const SQLite::Column bytes = s.getColumn(column);
  value.data.assign(static_cast<const char*>(bytes.getBlob()), static_cast<std::size_t>(bytes.getBytes()));
}
void read_value(SQLite::Statement& s, int column, std::optional<double>& value) { read_optional(s, column, value); }
void read_value(SQLite::Statement& s, int column, std::optional<int>& value) { read_optional(s, column, value); }
void read_value(SQLite::Statement& s, int column, std::optional<Id>& value) { read_optional(s, column, value); }

void append_name(std::string& list, const char* name, const char* between, const char* after) {
  if (!list.empty()) list += between;
  list += name;
  list += after;
}

}  // namespace sunbreak::book
