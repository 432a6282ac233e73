#pragma once

#include <functional>

#include "record/test_record.h"

namespace sunbreak::record {

/// Gives each row of a test's record the id that `assign` returns for it, those that others refer to first; what refers
/// to a row is mended before it is asked about itself. Throws std::runtime_error naming table and row where a row
/// refers to one that is not there, or two rows of a table share an id.
void renumber(TestRecord& record, const std::function<Id(const Kind& kind, void* row)>& assign);

/// The same record with its ids counted from 1 in each table: two records with equal content compare equal.
TestRecord with_plain_ids(TestRecord record);

}  // namespace sunbreak::record
