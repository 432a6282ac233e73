#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <tuple>

/// The rows of the lab book, as plain structs. Table<T> names a struct's table and columns once, for the database and
/// the data package alike. Lengths are meters, power watts, times UTC in ISO 8601; an empty text means "not stated".
namespace sunbreak::book {

using Id = std::int64_t;

template <typename Record, typename Value>
struct Column {
  const char* name;
  Value Record::*member;
  const char* meaning;  ///< with the unit; published in the data package
};
template <typename Record, typename Value>
Column(const char*, Value Record::*, const char*) -> Column<Record, Value>;

template <typename Record>
struct Table;

/// Bytes that only their own code reads.
struct Bytes {
  std::string data;
  bool operator==(const Bytes&) const = default;
};

}  // namespace sunbreak::book
