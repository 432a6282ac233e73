#pragma once

#include <cstdint>
#include <string>
#include <string_view>
#include <variant>

namespace sunbreak::record {

/// Numbers a row within its table; 0: not in a table yet.
using Id = std::int64_t;

/// Bytes that only their own code reads.
struct Bytes {
  std::string data;
  bool operator==(const Bytes&) const = default;
};

/// One cell of a record, whatever its type: nothing (not stated), a whole number (no and yes as 0 and 1), a number, or
/// text or bytes. The text lies in the record or wherever the cell was read from, and is gone with it.
using Value = std::variant<std::monostate, std::int64_t, double, std::string_view>;

}  // namespace sunbreak::record
