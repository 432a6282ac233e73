#pragma once

#include <cstddef>
#include <initializer_list>
#include <limits>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "record/kinds/value.h"

/// How the kinds of records are described: once each, beside their struct, for the lab book and its migration, data
/// packages, copying, checks, the JSON schema and docs/formats.md alike. For example
///
///     struct Shade {
///       Id id = 0, test_id = 0;
///       double share = 0;
///     };
///     template <>
///     struct Described<Shade> {
///       static constexpr Facts facts{.name = "shade", .since = 7};
///       template <typename Columns>
///       static void describe(Columns& columns) {
///         columns.add("test_id", &Shade::test_id, "the test").belongs_to("test");
///         columns.add("share", &Shade::share, "share of the footprint in the shade").between(0, 1);
///       }
///     };
///
/// and one line for it in test_record.h. Lengths are meters, power watts, times UTC in ISO 8601; an empty text means
/// "not stated".
namespace sunbreak::record {

enum class Type { Boolean, Integer, Number, Text, Bytes };

/// One column of a kind of records. `get` and `set` take a record of the column's own kind.
struct Column {
  std::string name, meaning;
  std::string unit;  ///< empty: none
  Type type = Type::Text;
  bool optional = false;  ///< may hold nothing
  int since = 1;          ///< the schema that brought it
  Value before;           ///< what records of earlier schemas hold in it
  std::string refers_to;  ///< the kind whose ids it holds; empty: none
  bool parent = false;    ///< its record is part of the one it refers to, and goes with it
  double least = -std::numeric_limits<double>::infinity(), most = std::numeric_limits<double>::infinity();
  std::vector<std::string> words;             ///< the words it may hold, beside the empty one; empty: any text
  enum { Plain, Date, Moment } time = Plain;  ///< text that is a date, or a moment in UTC

  Value get(const void* record) const { return read(static_cast<const char*>(record) + offset); }
  /// False, and nothing set, where the column cannot hold such a value.
  bool set(void* record, const Value& value) const { return write(static_cast<char*>(record) + offset, value); }

  std::size_t offset = 0;  ///< of the member in its record [bytes]
  Value (*read)(const void* member) = nullptr;
  bool (*write)(void* member, const Value& value) = nullptr;
};

/// What is said of a kind as a whole.
struct Facts {
  const char* name;
  int since = 1;             ///< the schema that brought it
  const char* order = "id";  ///< SQL: the order its rows are read in
  bool undoable = true;      ///< false: rows are only ever added, and no undo takes them away
  bool published = true;     ///< part of a data package
};

/// A kind of records: its facts, and its columns without the id that every record has.
struct Kind {
  Facts facts{};
  std::vector<Column> columns;
  Id& (*id)(void* record) = nullptr;

  std::string_view name() const { return facts.name; }
  /// None where there is no such column.
  const Column* column(std::string_view name) const;
  /// The column that says which record it is part of; none for what stands by itself.
  const Column* parent() const;
};

/// Specialized for each kind, beside its struct.
template <typename Record>
struct Described;

/// Says more of a column just added.
class ColumnDetails {
 public:
  explicit ColumnDetails(Column& column) : column_(column) {}
  ColumnDetails& unit(const char* unit) { return column_.unit = unit, *this; }
  ColumnDetails& between(double least, double most) { return column_.least = least, column_.most = most, *this; }
  ColumnDetails& one_of(std::initializer_list<const char*> words) {
    return column_.words.assign(words.begin(), words.end()), *this;
  }
  ColumnDetails& date() { return column_.time = Column::Date, *this; }
  ColumnDetails& moment() { return column_.time = Column::Moment, *this; }
  ColumnDetails& refers_to(const char* kind) { return column_.refers_to = kind, *this; }
  ColumnDetails& belongs_to(const char* kind) { return column_.parent = true, refers_to(kind); }
  /// The schema that brought the column; earlier records hold what a new record does.
  ColumnDetails& since(int schema) { return column_.since = schema, *this; }
  /// The same, where earlier records hold something else.
  ColumnDetails& since(int schema, std::int64_t before) { return column_.before = before, since(schema); }

 private:
  Column& column_;
};

}  // namespace sunbreak::record
