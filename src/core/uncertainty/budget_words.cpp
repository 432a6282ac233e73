#include "core/uncertainty/budget_words.h"

#include <fmt/format.h>

#include <cmath>

namespace sunbreak {
namespace {
constexpr std::string_view columns[] = {"mean_ppfd", "canopy_efficacy_umol_j", "lowest_over_mean"};
}

std::span<const std::string_view> budget_columns() { return columns; }

std::string size_words(const Contribution& c) {
  if (c.term.value <= 0) return {};
  return c.in_meters ? fmt::format("{:.1f} mm", 1000 * c.term.value) : fmt::format("{:.2f} %", 100 * c.term.value);
}

std::string origin_words(const InputQuantity& term) {
  const char* how = term.origin == Origin::Measured ? "measured: " : term.origin == Origin::Assumed ? "assumed: " : "";
  return how + term.words;
}

std::string share_words(double part, double figure) {
  if (!std::isfinite(part) || !std::isfinite(figure) || figure == 0) return "–";
  return fmt::format("{:.2f} %", 100 * std::abs(part / figure));
}

}  // namespace sunbreak
