#pragma once

#include <string>

#include "core/quantity/display.h"
#include "core/result.h"
#include "paper/pages.h"
#include "record/test_record.h"

namespace sunbreak::paper {

/// A sheet to fill in by hand: for each height and setting of the plan the bench from above with its stations, numbered
/// in the order that Walk asks for them, a cell to write each value into, a box for each time the reference is read
/// once more, and the tape marks of columns and rows; larger grids in parts of 12 × 12. Refuses a plan that cannot be
/// laid out.
Result<std::string> station_sheet_pdf(const record::TestRecord& record, UnitSystem units, const PaperSize& size);

/// The stations' places along the two sides of the bench as strips at true scale, to be cut out and put end to end,
/// with a line of 10 cm (or 4 in) to hold a ruler against.
Result<std::string> tape_strip_pdf(const record::TestRecord& record, UnitSystem units, const PaperSize& size);

}  // namespace sunbreak::paper
