#include "core/uncertainty/budget_words.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>

namespace sunbreak {

namespace {
bool is_assumed(const Contribution& c) { return c.term.origin == Origin::Assumed && c.term.value > 0; }
}  // namespace

std::array<std::string_view, 3> budget_columns(std::string_view evenness_lead) {
  return {"mean_ppfd", "canopy_efficacy_umol_j", evenness_lead};
}

std::string size_words(const Contribution& c, UnitSystem units) {
  if (c.term.value <= 0) return {};
  if (!c.in_meters) return fmt::format("{:.2f} %", 100 * c.term.value);
  return units == UnitSystem::Imperial ? fmt::format("{:.2f} in", from_m(c.term.value, LengthUnit::Inch))
                                       : fmt::format("{:.1f} mm", 1000 * c.term.value);
}

std::string origin_words(const InputQuantity& term) {
  const char* how = term.origin == Origin::Measured ? "measured: " : term.origin == Origin::Assumed ? "assumed: " : "";
  return how + term.words;
}

int assumed_parts(const Budget& budget) {
  return static_cast<int>(std::count_if(budget.contributions.begin(), budget.contributions.end(), is_assumed));
}

std::string assumed_words(const Budget& budget) {
  std::string words;
  for (const Contribution& c : budget.contributions) {
    if (!is_assumed(c)) continue;
    std::string label(c.label);
    label[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(label[0])));
    words += (words.empty() ? "" : ", ") + label;
  }
  return words;
}

std::string share_words(double part, double figure) {
  if (!std::isfinite(part) || !std::isfinite(figure) || figure == 0) return "–";
  return fmt::format("{:.2f} %", 100 * std::abs(part / figure));
}

}  // namespace sunbreak
