#pragma once

#include <string>

#include "book/target_shelf.h"
#include "core/result.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::cli {

/// A test from a lab book, by its number or name (the only one where neither is given), or the one in a data package.
/// What is set apart in it is said on the error output.
Result<record::TestRecord> source_test(const std::string& file, const std::string& test);

/// The crop targets on that lab book's shelf; for a data package those that ship.
std::vector<record::CropTarget> source_targets(const std::string& file);

}  // namespace sunbreak::cli
