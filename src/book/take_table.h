#pragma once

#include <string>

#include "book/bundle.h"
#include "book/import/sweep_table.h"

namespace sunbreak::book {

/// Takes an understood table into the sweep at a rung and a stop, inside an edit. A sweep of another grid takes the
/// table's; what it had is on record but no longer counts. Stations that the table gives no value for and that have
/// none become missing.
void take_table(Edit& edit, const TestBundle& test, Id rung_id, Id stop_id, const TableDraft& draft,
                const std::string& source);

/// What the reader of tables has to know of a test, for a sweep with readings or for the plan.
TableContext table_context(const TestBundle& test, const Sweep* sweep);

}  // namespace sunbreak::book
