#pragma once

#include <nlohmann/json.hpp>

#include "evaluation/retest.h"

namespace sunbreak::cli {

/// The sheet of a fixture: what it costs, and its facts by name, each as stated and as checked.
nlohmann::ordered_json sheet_json(const record::TestRecord& test);

/// How its units hang.
nlohmann::ordered_json arrangement_json(const record::TestRecord& test);

/// The temperatures of one configuration, each in its state, and what the limits say of them.
nlohmann::ordered_json heat_json(const record::TestRecord& test);

nlohmann::ordered_json retest_json(const evaluation::Retest& retest);

/// Pictures by what they are of; notes of what grew.
nlohmann::ordered_json pictures_json(const record::TestRecord& whole);
nlohmann::ordered_json notes_json(const record::TestRecord& whole);

}  // namespace sunbreak::cli
