#pragma once

#include <exception>
#include <filesystem>
#include <stdexcept>

#include "core/result.h"

namespace sunbreak::book {

/// Thrown where a lab book cannot be used and there is nobody to hand a Result to; what() is the problem's sentence.
class BookTrouble : public std::runtime_error {
 public:
  explicit BookTrouble(Problem problem) : std::runtime_error(problem.sentence()), problem_(std::move(problem)) {}
  const Problem& problem() const { return problem_; }

 private:
  Problem problem_;
};

/// What went wrong with a lab book, told as what it was: a full disk, another program's lock, no right to read or
/// write, a medium that can only be read, a disk that fails. Only what SQLite calls corrupt or no database at all is
/// called damaged, with the way to the newest backup.
Problem trouble_with(const std::filesystem::path& file, const std::exception& error);

/// The same of a file that cannot be opened at all, by the system's own error.
Problem cannot_open(const std::filesystem::path& file, int error);

/// A lab book that is damaged.
Problem damaged(const std::filesystem::path& file, const std::string& detail);

}  // namespace sunbreak::book
