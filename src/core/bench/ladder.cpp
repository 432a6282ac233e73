#include "core/bench/ladder.h"

#include <algorithm>
#include <cmath>
#include <string>

#include "core/quantity/length.h"
#include "core/text/pattern.h"

namespace sunbreak {
namespace {

constexpr double rung_step_m = 0.05, lowest_m = 0.15, highest_m = 0.9, clearance_m = 0.3, apart = 1.35, spacings = 1.5;

double to_step(double m) { return std::round(m / rung_step_m) * rung_step_m; }

}  // namespace

std::vector<double> ladder_heights(std::optional<double> bench_height_m, std::optional<double> emitter_spacing_m) {
  const double low =
      std::max(lowest_m, std::ceil(spacings * emitter_spacing_m.value_or(0) / rung_step_m - 1e-9) * rung_step_m);
  double high = highest_m;
  if (bench_height_m)
    high = std::min(high, std::floor((*bench_height_m - clearance_m) / rung_step_m + 1e-9) * rung_step_m);
  std::vector<double> heights{low};
  for (;;) {
    const double next = std::max(to_step(heights.back() * apart), heights.back() + rung_step_m);
    if (next > high + 1e-9) break;
    heights.push_back(next);
  }
  std::reverse(heights.begin(), heights.end());
  return heights;
}

std::vector<double> heights_around(double makers_height_m) {
  const auto whole_cm = [](double m) { return std::round(100 * m) / 100; };
  return {whole_cm(makers_height_m * 4 / 3), makers_height_m, whole_cm(makers_height_m * 2 / 3)};
}

std::optional<double> height_in_words(std::string_view words) {
  static const Pattern length(
      R"re((\d+(?:[.,]\d+)?)\s*(?:(?:-|–|to|bis|and)\s*(\d+(?:[.,]\d+)?)\s*)?(cm|mm|m|in|inch|inches|"|ft|feet|foot)(?![a-z]))re",
      Pattern::Case::DoesNotMatter);
  const auto found = length.find(std::string(words));
  if (!found) return {};
  const std::string unit_text = found->text(3);
  const auto unit = parse_length_unit(unit_text == "\"" ? "in" : unit_text);
  if (!unit) return {};
  const auto number = [](std::string digits) {
    std::replace(digits.begin(), digits.end(), ',', '.');
    return std::stod(digits);
  };
  const double first = number(found->text(1)), last = found->has(2) ? number(found->text(2)) : first;
  return to_m((first + last) / 2, unit.value());
}

}  // namespace sunbreak
