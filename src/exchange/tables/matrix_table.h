#pragma once

#include <optional>

#include "exchange/tables/cell_numbers.h"
#include "exchange/tables/sweep_table.h"

namespace sunbreak::exchange {

/// Fills the draft from a table that lies as the stations do; a problem where that cannot be.
std::optional<Problem> read_matrix(TableDraft& draft, const NumberRule& rule, const TableContext& context,
                                   const TableOptions& options);

}  // namespace sunbreak::exchange
