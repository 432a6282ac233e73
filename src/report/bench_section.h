#pragma once

#include <kainjow/mustache.hpp>

#include "core/quantity/display.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::report {

/// The bench, the meters and how the fixture hung.
void add_bench_section(kainjow::mustache::data& page, const record::TestRecord& record, UnitSystem units);

/// How it was measured, in sentences; `first` is a sweep that was walked, null where none was.
void add_method_section(kainjow::mustache::data& page, const record::TestRecord& record,
                        const evaluation::SweepView* first, UnitSystem units);

}  // namespace sunbreak::report
