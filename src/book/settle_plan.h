#pragma once

#include <span>
#include <utility>

#include "book/book.h"
#include "core/bench/grid.h"

namespace sunbreak::book {

/// The sweep that confirms a height and setting of a test, to what a tape and a dial show; null where there is none.
const Sweep* confirmation_at(const TestRecord& test, double height_m, double percent);

/// Plans a short walk that confirms a prediction: a sweep of the stations that tell most, at a height and setting that
/// need not be of the plan. Gives its rung and stop. The one that is there already where it was planned before; refused
/// where a whole sweep was walked there.
Result<std::pair<Id, Id>> plan_confirmation(Book& book, const TestRecord& test, double height_m, double percent,
                                            std::span<const double> predicted_ppfd, const Layout& stations);

}  // namespace sunbreak::book
