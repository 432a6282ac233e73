#pragma once

#include <kainjow/mustache.hpp>

#include "record/test_record.h"
#include "report/figure_sink.h"

namespace sunbreak::report {

/// The spectra of a configuration over each other, and what each says of the light.
void add_spectrum_section(kainjow::mustache::data& page, const record::TestRecord& record, FigureSink& sink);

}  // namespace sunbreak::report
