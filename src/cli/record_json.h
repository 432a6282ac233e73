#pragma once

#include "record/json.h"

#include "evaluation/retest.h"

namespace sunbreak::cli {

/// The sheet of a fixture: what it costs, and its facts by name, each as stated and as checked.
record::Json sheet_json(const record::TestRecord& test);

/// How its units hang.
record::Json arrangement_json(const record::TestRecord& test);

/// The temperatures of one configuration, each in its state, and what the limits say of them.
record::Json heat_json(const record::TestRecord& test);

record::Json retest_json(const evaluation::Retest& retest);

/// Pictures by what they are of; notes of what grew.
record::Json pictures_json(const record::TestRecord& whole);
record::Json notes_json(const record::TestRecord& whole);

}  // namespace sunbreak::cli
