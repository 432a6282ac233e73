#pragma once

#include <filesystem>
#include <string>

namespace sunbreak::book {

/// What came of lab books of which one byte was changed.
struct FlipRounds {
  int flips = 0;
  int refused = 0;    ///< not opened, or a read that was refused, each with a sentence
  int told = 0;       ///< read, and the rows that are not as they were written are named
  int same = 0;       ///< read, and all of it as it was: the byte holds nothing that is read
  int silent = 0;     ///< read as something else without a word
  std::string first;  ///< where that was first
};

/// Changes one byte of a copy of a sound lab book, anywhere in the file, reads all of the copy and holds it against the
/// sound one; so many times.
FlipRounds flip_and_read(const std::filesystem::path& sound, const std::filesystem::path& folder, int flips,
                         unsigned seed);

}  // namespace sunbreak::book
