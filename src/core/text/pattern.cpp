#include "core/text/pattern.h"

#define PCRE2_CODE_UNIT_WIDTH 8
#include <pcre2.h>

#include <stdexcept>

namespace sunbreak {
namespace {

PCRE2_SPTR bytes_of(const std::string& text) { return reinterpret_cast<PCRE2_SPTR>(text.data()); }

}  // namespace

struct Pattern::Compiled {
  std::unique_ptr<pcre2_code, void (*)(pcre2_code*)> code;
};

Pattern::Pattern(const std::string& expression, Case letters) {
  int error = 0;
  PCRE2_SIZE at = 0;
  pcre2_code* code =
      pcre2_compile(bytes_of(expression), expression.size(),
                    PCRE2_DOLLAR_ENDONLY | (letters == Case::Matters ? 0 : PCRE2_CASELESS), &error, &at, nullptr);
  if (!code) throw std::invalid_argument("no regular expression: " + expression);
  compiled_ = std::make_shared<const Compiled>(Compiled{{code, pcre2_code_free}});
}

bool Pattern::fits(const std::string& text) const {
  return match(text, 0, PCRE2_ANCHORED | PCRE2_ENDANCHORED).has_value();
}

std::optional<PatternMatch> Pattern::find(const std::string& text, std::size_t from) const {
  return match(text, from, 0);
}

std::optional<PatternMatch> Pattern::match(const std::string& text, std::size_t from, std::uint32_t options) const {
  const std::unique_ptr<pcre2_match_data, void (*)(pcre2_match_data*)> found(
      pcre2_match_data_create_from_pattern(compiled_->code.get(), nullptr), pcre2_match_data_free);
  if (pcre2_match(compiled_->code.get(), bytes_of(text), text.size(), from, options, found.get(), nullptr) < 0)
    return {};
  const PCRE2_SIZE* const ends = pcre2_get_ovector_pointer(found.get());
  PatternMatch match{ends[0], ends[1] - ends[0], {}};
  for (std::uint32_t group = 0; group < pcre2_get_ovector_count(found.get()); ++group) {
    const PCRE2_SIZE begin = ends[2 * group], end = ends[2 * group + 1];
    match.groups.push_back(begin == PCRE2_UNSET ? std::nullopt : std::optional(text.substr(begin, end - begin)));
  }
  return match;
}

}  // namespace sunbreak
