#pragma once

#include <optional>
#include <string>

#include "exchange/tables/delimited.h"

namespace sunbreak::exchange {

/// A table of a package, to be read cell by cell: columns are found by name, in any order. Throws std::runtime_error
/// with the place of the first thing that is not as it should be: bytes that are not UTF-8, a column that is named
/// twice, a row with more or fewer cells than columns.
class PackageTable {
 public:
  PackageTable(std::string_view table, const std::string& csv);

  /// Where a column stands; nothing where there is none.
  std::optional<std::size_t> find(const std::string& column) const;
  /// The same of one that has to be there.
  std::size_t at(const std::string& column) const;

  /// Goes on to the next row that holds something; false after the last.
  bool next();
  /// The row at hand as a person counts them, the head being the first.
  std::size_t row() const { return row_ + 1; }
  const std::string& cell(std::size_t at) const { return rows_[row_][at]; }
  /// A cell of a row that next() has been at, by what row() said there.
  const std::string& cell_of(std::size_t row, std::size_t at) const { return rows_[row - 1][at]; }
  [[noreturn]] void refuse(std::size_t at) const;

 private:
  std::string table_;
  Rows rows_;
  std::size_t row_ = 0;
};

}  // namespace sunbreak::exchange
