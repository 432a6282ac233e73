#include "core/quantity/quantity_range.h"

#include <fmt/format.h>

#include <cmath>

#include "core/quantity/number.h"

namespace sunbreak {
namespace {

/// In the unit that people say such a length in.
std::string spoken_length(double length_m) {
  const bool in_cm = std::abs(length_m) < 1;
  return fmt::format("{:.6g} {}", in_cm ? 100 * length_m : length_m, in_cm ? "cm" : "m");
}

bool is_length(const QuantityRange& range) { return range.unit == symbol(LengthUnit::Meter); }

std::string spoken(double value, const QuantityRange& range) {
  if (is_length(range)) return spoken_length(value);
  return fmt::format("{:.6g}{}{}", value, range.unit.empty() ? "" : " ", range.unit);
}

Problem refused(std::string_view text, const QuantityRange& range) {
  return {fmt::format("'{}' is no {}", text, range.what), "", "give " + range.words()};
}

}  // namespace

std::string QuantityRange::words() const {
  const std::string high = spoken(most, *this);
  if (over_least) return fmt::format("more than {} and at most {}", fmt::format("{:.6g}", least), high);
  return fmt::format("{}{} to {}", whole ? "a whole number of " : "",
                     is_length(*this) ? spoken_length(least) : fmt::format("{:.6g}", least), high);
}

std::optional<Problem> range_fault(double value, const QuantityRange& range) {
  if (range.holds(value) && (!range.whole || value == std::floor(value))) return {};
  return refused(spoken(value, range), range);
}

Result<double> parse_within(std::string_view text, const QuantityRange& range) {
  std::string_view number = trimmed(text);
  if (!range.unit.empty() && number.ends_with(range.unit)) number.remove_suffix(range.unit.size());
  const auto value = parse_number(number);
  if (!value || range_fault(*value, range)) return refused(text, range);
  return *value;
}

Result<double> parse_length_within(std::string_view text, const QuantityRange& range) {
  const auto length = parse_length_m(text);
  if (!length) return length;
  if (const auto problem = range_fault(length.value(), range))
    return Problem{fmt::format("'{}' is no {}", text, range.what), "",
                   fmt::format("give {}; check the unit", range.words())};
  return length;
}

std::optional<std::pair<int, int>> parse_counts(std::string_view text, const QuantityRange& range) {
  for (const std::string_view cross : {"x", "X", "×"})
    if (const auto at = text.find(cross); at != std::string_view::npos) {
      const auto first = parse_within(text.substr(0, at), range),
                 second = parse_within(text.substr(at + cross.size()), range);
      if (!first || !second) return {};
      return std::pair{static_cast<int>(first.value()), static_cast<int>(second.value())};
    }
  return {};
}

}  // namespace sunbreak
