#pragma once

#include <vector>

#include "book/book.h"
#include "evaluation/crop_targets.h"

namespace sunbreak::book {

/// The targets on the shelf, in the order they were put there.
std::vector<CropTarget> crop_targets(const Book& book);

/// Puts the lists that ship with the application back as they were, beside the user's own. Adds what is missing and
/// mends what was changed.
void restore_shipped_targets(Edit& edit, const Book& book);

}  // namespace sunbreak::book
