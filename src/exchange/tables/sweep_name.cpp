#include "exchange/tables/sweep_name.h"

#include <algorithm>
#include <string>

#include "core/text/pattern.h"

namespace sunbreak::exchange {
namespace {

constexpr int head_lines = 12;
constexpr auto any_case = Pattern::Case::DoesNotMatter;

double number(std::string digits) {
  std::replace(digits.begin(), digits.end(), ',', '.');
  return std::stod(digits);
}

/// The first match whose neighbors in the text are no part of a longer number, word or size.
std::optional<PatternMatch> standing_alone(const std::string& text, const Pattern& pattern) {
  for (auto at = pattern.find(text); at; at = pattern.find(text, at->position + at->length)) {
    const auto before = at->position > 0 ? text[at->position - 1] : ' ';
    const auto after_at = at->position + at->length;
    const auto after = after_at < text.size() ? text[after_at] : ' ';
    if (std::isalnum(static_cast<unsigned char>(before)) || before == '.' || before == '*' || (before & 0x80)) continue;
    if (std::isalnum(static_cast<unsigned char>(after))) continue;
    return at;
  }
  return {};
}

void read_text(const std::string& text, LengthUnit bare_unit, bool is_head, SweepName& name) {
  static const Pattern length(R"re((\d+(?:[.,]\d+)?)[ _]?(cm|mm|m|in|inch|ft|"))re", any_case),
      named_length(
          R"re((?:height|hang(?:ing)?(?:[ _-]?height)?|rung|h)[ _:=-]*(\d+(?:[.,]\d+)?)(?:[ _]?(cm|mm|m|in|inch|ft|"))?)re",
          any_case),
      percent(R"re((\d+(?:[.,]\d+)?)[ _]?(?:%|pct|percent|pc))re", any_case),
      named_percent(
          R"re((?:dimmer|dimmed|dim|stop|setting|dial|level|power)[ _:=-]*(\d+(?:[.,]\d+)?)(?:[ _]?(?:%|pct|percent))?)re",
          any_case);
  if (!name.height_m) {
    auto found = standing_alone(text, named_length);
    if (!found && !is_head) found = standing_alone(text, length);
    if (found) {
      const std::string unit_text = found->text(2);
      const auto unit =
          unit_text.empty() ? Result<LengthUnit>(bare_unit) : parse_length_unit(unit_text == "\"" ? "in" : unit_text);
      if (unit) {
        name.height_m = to_m(number(found->text(1)), unit.value());
        name.unit_assumed = unit_text.empty();
      }
    }
  }
  if (!name.percent) {
    auto found = standing_alone(text, named_percent);
    if (!found && !is_head) found = standing_alone(text, percent);
    if (found) name.percent = number(found->text(1));
  }
}

}  // namespace

SweepName sweep_named(std::string_view file_name, std::string_view table, LengthUnit bare_unit) {
  SweepName name;
  std::string stem(file_name.substr(0, file_name.rfind('.')));
  std::replace(stem.begin(), stem.end(), '_', ' ');
  read_text(stem, bare_unit, false, name);
  for (int line = 0; line < head_lines && !table.empty(); ++line) {
    const auto end = table.find_first_of("\r\n");
    const std::string text(table.substr(0, std::min<std::size_t>(end, 200)));
    if (std::any_of(text.begin(), text.end(), [](unsigned char c) { return std::isalpha(c); }))
      read_text(text, bare_unit, true, name);
    table = end == std::string_view::npos ? std::string_view() : table.substr(end + 1);
  }
  return name;
}

}  // namespace sunbreak::exchange
