#pragma once

#include <span>
#include <utility>

#include "book/book.h"
#include "core/bench/grid.h"

namespace sunbreak::book {

/// Plans a short walk that confirms a prediction: a sweep of the stations that tell most, at a height and setting that
/// need not be of the plan. Gives its rung and stop. The one that is there already where it was planned before; refused
/// where a whole sweep was walked there.
Result<std::pair<Id, Id>> plan_confirmation(Book& book, const TestRecord& test, double height_m, double percent,
                                            std::span<const double> predicted_ppfd, const Layout& stations);

}  // namespace sunbreak::book
