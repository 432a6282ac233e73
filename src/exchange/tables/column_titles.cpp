#include "exchange/tables/column_titles.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <set>

#include "core/quantity/length.h"

namespace sunbreak::exchange {
namespace {

bool holds(const TitleWords& words, std::string_view word) {
  return std::find(words.begin(), words.end(), word) != words.end();
}

bool any_of(const TitleWords& words, const std::set<std::string, std::less<>>& names) {
  return std::any_of(words.begin(), words.end(), [&](const std::string& word) { return names.contains(word); });
}

/// The micro sign is no letter here: "mol" is what is left of µmol, unless it is one a day.
bool names_daily_light(const TitleWords& words) {
  return holds(words, "dli") || (holds(words, "mol") && (holds(words, "d") || holds(words, "day")));
}

}  // namespace

TitleWords title_words(std::string_view title) {
  TitleWords words(1);
  for (const char c : title) {
    if (std::isalnum(static_cast<unsigned char>(c)))
      words.back() += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    else if (!words.back().empty())
      words.emplace_back();
  }
  if (words.back().empty()) words.pop_back();
  return words;
}

bool names_other_quantity(const TitleWords& words) {
  static const std::set<std::string, std::less<>> others = {
      "lux", "lx",  "klux",  "klx",    "fc",     "footcandle", "footcandles", "candle", "candles", "candela",
      "cd",  "lm",  "lumen", "lumens", "w",      "mw",         "uw",          "kw",     "watt",    "watts",
      "wm2", "btu", "j",     "joule",  "joules", "mj",         "kelvin",      "cct",    "nit",     "nits"};
  return names_daily_light(words) || any_of(words, others);
}

Problem not_ppfd(const std::string& title) {
  return {fmt::format("the value column is '{}', which is not PPFD", title),
          "figures from it would be wrong by a large factor", "give PPFD in µmol/m²/s"};
}

bool remark_names_other_quantity(const TitleWords& words) {
  static const std::set<std::string, std::less<>> others = {"lux",        "lx",          "klux",   "klx",     "fc",
                                                            "footcandle", "footcandles", "candle", "candles", "wm2"};
  static const std::set<std::string, std::less<>> light = {"ppfd", "umol", "par"};
  if (any_of(words, light)) return false;
  return names_daily_light(words) || any_of(words, others) || (holds(words, "w") && holds(words, "m2"));
}

bool names_light(const TitleWords& words) {
  static const std::set<std::string, std::less<>> names{"ppfd", "value", "reading", "raw", "light", "e",
                                                        "umol", "par",   "lux",     "lx",  "fc",    "dli"};
  return !words.empty() && names.contains(words.front());
}

bool names_place(const TitleWords& words) {
  static const std::set<std::string, std::less<>> names{
      "x",   "y",        "z",        "col",    "column", "row",   "station", "id",   "no",    "nr",   "index", "place",
      "pos", "position", "distance", "height", "width",  "depth", "time",    "date", "point", "spot", "across"};
  static const std::set<std::string, std::less<>> besides{"pos", "position", "no", "nr", "index", "in", "coordinate"};
  if (words.empty() || !names.contains(words.front())) return false;
  return std::all_of(words.begin() + 1, words.end(), [&](const std::string& word) {
    return besides.contains(word) || names.contains(word) || parse_length_unit(word);
  });
}

}  // namespace sunbreak::exchange
