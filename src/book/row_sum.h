#pragma once

#include <cstdint>
#include <string_view>

#include "record/kinds.h"

namespace sunbreak::book {

/// A sum over a row as it was written, kept beside it: where a byte of the file has changed since, the row's values no
/// longer come to it. Any change within eight bytes of a value is told for sure, others but for one in 2⁶⁴. It is no
/// seal: who writes to the file by other means can write the sum, too.
class RowSum {
 public:
  RowSum(const record::Kind& kind, record::Id id);
  /// To be called for each column, in the kind's order.
  void add(const record::Value& value);
  std::int64_t value() const { return static_cast<std::int64_t>(sum_); }

 private:
  void mix(std::uint64_t word);
  void mix(std::string_view bytes);

  std::uint64_t sum_ = 0;
};

/// The sum of a record's values.
std::int64_t row_sum(const record::Kind& kind, const void* row, record::Id id);

/// The sum of a text that is kept as it is, such as a step of the history.
std::int64_t text_sum(std::string_view text);

/// The column that holds the sum, in the table of each kind.
inline constexpr const char* row_sum_column = "row_sum";

}  // namespace sunbreak::book
