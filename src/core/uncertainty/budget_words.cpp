#include "core/uncertainty/budget_words.h"

#include <fmt/format.h>

#include <cctype>
#include <cmath>

namespace sunbreak {

std::array<std::string_view, 3> budget_columns(std::string_view evenness_lead) {
  return {"mean_ppfd", "canopy_efficacy_umol_j", evenness_lead};
}

std::string size_words(const Contribution& c) {
  if (c.term.value <= 0) return {};
  return c.in_meters ? fmt::format("{:.1f} mm", 1000 * c.term.value) : fmt::format("{:.2f} %", 100 * c.term.value);
}

std::string origin_words(const InputQuantity& term) {
  const char* how = term.origin == Origin::Measured ? "measured: " : term.origin == Origin::Assumed ? "assumed: " : "";
  return how + term.words;
}

std::string assumed_words(const Budget& budget) {
  std::string words;
  for (const Contribution& c : budget.contributions) {
    if (c.term.origin != Origin::Assumed || c.term.value <= 0) continue;
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
