#pragma once

#include <optional>
#include <string>
#include <utility>

namespace sunbreak {

/// What went wrong with some input: what was seen, what it means for the result, what to do about it.
struct Problem {
  std::string seen;
  std::string means;
  std::string remedy;

  /// All three parts as one line of prose.
  std::string sentence() const;
};

/// A value, or the problem that kept it from being made. For what can fail by input; exceptions are for the rest.
/// To ask for the one that is not there throws std::bad_optional_access.
template <typename T>
class [[nodiscard]] Result {
 public:
  Result(T value) : value_(std::move(value)) {}
  Result(Problem problem) : problem_(std::move(problem)) {}

  bool ok() const { return value_.has_value(); }
  explicit operator bool() const { return ok(); }
  const T& value() const { return value_.value(); }
  T& value() { return value_.value(); }
  const Problem& problem() const { return problem_.value(); }

 private:
  // Not a variant: for each type of value that takes a compiler several times as long.
  std::optional<T> value_;
  std::optional<Problem> problem_;
};

}  // namespace sunbreak
