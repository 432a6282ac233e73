#pragma once

#include <string>
#include <utility>
#include <variant>

namespace sunbreak {

/// What went wrong with some input: what was seen, what it means for the result, what to do about it.
struct Problem {
  std::string seen;
  std::string means;
  std::string remedy;

  /// All three parts as one line of prose.
  std::string sentence() const {
    std::string text = seen;
    for (const std::string& part : {means, remedy})
      if (!part.empty()) text += "; " + part;
    return text + ".";
  }
};

/// A value, or the problem that kept it from being made. For what can fail by input; exceptions are for the rest.
template <typename T>
class [[nodiscard]] Result {
 public:
  Result(T value) : content_(std::move(value)) {}
  Result(Problem problem) : content_(std::move(problem)) {}

  bool ok() const { return std::holds_alternative<T>(content_); }
  explicit operator bool() const { return ok(); }
  const T& value() const { return std::get<T>(content_); }
  T& value() { return std::get<T>(content_); }
  const Problem& problem() const { return std::get<Problem>(content_); }

 private:
  std::variant<T, Problem> content_;
};

}  // namespace sunbreak
