#include "core/text/pattern.h"

#include <regex>

namespace sunbreak {

struct Pattern::Compiled {
  std::regex expression;
};

Pattern::Pattern(const std::string& expression, Case letters)
    : compiled_(std::make_shared<const Compiled>(
          std::regex(expression, letters == Case::Matters ? std::regex::ECMAScript
                                                          : std::regex::ECMAScript | std::regex::icase))) {}

bool Pattern::fits(const std::string& text) const { return std::regex_match(text, compiled_->expression); }

std::optional<PatternMatch> Pattern::find(const std::string& text, std::size_t from) const {
  std::smatch found;
  const auto flags = from > 0 ? std::regex_constants::match_prev_avail : std::regex_constants::match_default;
  const auto begin = text.begin() + static_cast<std::ptrdiff_t>(from);
  if (!std::regex_search(begin, text.end(), found, compiled_->expression, flags)) return {};
  PatternMatch match{from + static_cast<std::size_t>(found.position()), static_cast<std::size_t>(found.length()), {}};
  for (const auto& group : found) match.groups.push_back(group.matched ? std::optional(group.str()) : std::nullopt);
  return match;
}

}  // namespace sunbreak
