#pragma once

#include <optional>

#include "exchange/tables/cell_numbers.h"
#include "exchange/tables/sweep_table.h"

namespace sunbreak::exchange {

/// The header row of a long table: which columns (from 0) hold x, y and the value, and the unit the header names.
struct LongHeader {
  int row = 0;
  int x = 0, y = 1, value = 2;
  std::optional<LengthUnit> unit;
  std::string other_quantity;  ///< a value column in lux or another quantity that is not PPFD
};

/// A row among the first ten with an x, a y and a value column.
std::optional<LongHeader> find_long_header(const Rows& cells);

/// The columns the user has named, by title or number, the others by their titles or as x, y, value. A Problem where
/// the table has no such column.
Result<LongHeader> chosen_columns(const Rows& cells, const TableOptions& options);

/// Whether a table without header is three columns of which the first two repeat as a lattice's places do.
bool looks_long(const Rows& cells, const NumberRule& rule);

/// Fills the draft from a long table; a problem where that cannot be.
std::optional<Problem> read_long(TableDraft& draft, const std::optional<LongHeader>& header, const NumberRule& rule,
                                 const TableContext& context, const TableOptions& options);

}  // namespace sunbreak::exchange
