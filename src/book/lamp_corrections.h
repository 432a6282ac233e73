#pragma once

#include <vector>

#include "book/book.h"
#include "core/meters/check_lamp.h"

namespace sunbreak::book {

/// The tests that a sensor which moved was the sensor of since then, with a sweep that is not corrected for it.
std::vector<Test> tests_since(const Book& book, const LampFinding& finding);

/// Corrects those of a test's sweeps that no check lamp has corrected yet.
void correct_by_lamp(Edit& edit, const Book& book, const Test& test, const DriftCorrection& correction);

}  // namespace sunbreak::book
