#pragma once

#include <kainjow/mustache.hpp>

#include "core/quantity/display.h"
#include "record/test_record.h"

namespace sunbreak::report {

/// The fixture: what it is, what it costs, the facts of its box, each with who says so, and what its maker claims.
void add_fixture_section(kainjow::mustache::data& page, const record::TestRecord& record, UnitSystem units);

/// How its units hang, in words; empty for one that hangs plainly.
std::string arrangement_words(const record::TestRecord& record, UnitSystem units);

}  // namespace sunbreak::report
