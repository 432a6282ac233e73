#pragma once

#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/result.h"
#include "exchange/tables/cell_numbers.h"
#include "exchange/tables/sweep_table.h"

namespace sunbreak::exchange {

/// A table with a header row and rows below, taken apart. Rows of another length than the header are left out and told.
struct NamedTable {
  std::vector<std::string> header;
  struct Row {
    int number = 0;  ///< in the file, from 1
    std::vector<std::string> cells;
  };
  std::vector<Row> rows;
  NumberRule rule;
  std::vector<Finding> findings;

  /// The number in a cell; where it is none within `low` … `high` nothing, and a finding that says so.
  std::optional<double> number(const Row& row, std::size_t column, double low, double high);
};

/// The header is the first row that `is_header` knows; a Problem with `wanted` as what to do where no row is one.
Result<NamedTable> named_table(std::string_view bytes,
                               const std::function<bool(const std::vector<std::string>&)>& is_header,
                               const std::string& wanted);

}  // namespace sunbreak::exchange
