#pragma once

#include "book/book.h"

namespace sunbreak::book {

/// Attaches pictures to the fixture of a sample test, its driver's temperature and a note of what grew: drawn by a
/// program, no photographs.
void add_sample_pictures(Edit& edit, const Test& test, Id driver_temperature, Id growth_note);

}  // namespace sunbreak::book
