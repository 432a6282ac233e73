#pragma once

#include <string>

#include "book/book.h"
#include "exchange/tables/sweep_table.h"

namespace sunbreak::book {

/// Takes an understood table into the sweep at a rung and a stop, inside an edit. A sweep of another grid takes the
/// table's; what it had is on record but no longer counts. Stations that the table gives no value for and that have
/// none become missing.
void take_table(Edit& edit, const TestRecord& test, Id rung_id, Id stop_id, const exchange::TableDraft& draft,
                const std::string& source);

/// What the reader of tables has to know of a test, for a sweep with readings or for the plan.
exchange::TableContext table_context(const TestRecord& test, const Sweep* sweep, UnitSystem units);

}  // namespace sunbreak::book
