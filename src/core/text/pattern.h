#pragma once

#include <cstddef>
#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace sunbreak {

/// Where a pattern fits a text, with a copy of what its groups took; group 0 is all of it.
struct PatternMatch {
  std::size_t position = 0, length = 0;
  std::vector<std::optional<std::string>> groups;

  /// Whether a group took part, if only with an empty text.
  bool has(std::size_t group) const { return groups[group].has_value(); }
  /// What a group took; empty where it took no part.
  std::string text(std::size_t group) const { return groups[group].value_or(std::string()); }
};

/// A regular expression of Perl's grammar, over the bytes of a text. Immutable: threads may share one. What a pattern
/// costs to fit grows with the text: callers bound its length, and one that would take millions of steps does not fit.
class Pattern {
 public:
  enum class Case { Matters, DoesNotMatter };
  /// Throws std::invalid_argument for what is none.
  explicit Pattern(const std::string& expression, Case letters = Case::Matters);

  /// Whether it fits the text from end to end.
  bool fits(const std::string& text) const;
  /// The first place from `from` on that it fits.
  std::optional<PatternMatch> find(const std::string& text, std::size_t from = 0) const;

 private:
  std::optional<PatternMatch> match(const std::string& text, std::size_t from, std::uint32_t options) const;
  struct Compiled;
  std::shared_ptr<const Compiled> compiled_;
};

}  // namespace sunbreak
