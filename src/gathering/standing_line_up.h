#pragma once

#include <filesystem>
#include <memory>
#include <optional>
#include <string>

#include "book/book.h"
#include "core/quantity/display.h"
#include "evaluation/lineup/lineup.h"

namespace sunbreak::gathering {

/// The line-up that the tests of a lab book stand in, without guests: the first one that is kept, else all of them by
/// canopy efficacy as measured. Nothing where it cannot be worked out, or not while somebody waits for a page: where
/// many entries are not known yet.
evaluation::StandingLineUp standing_line_up(const book::Book& book, const std::filesystem::path& file,
                                            UnitSystem units);

}  // namespace sunbreak::gathering
