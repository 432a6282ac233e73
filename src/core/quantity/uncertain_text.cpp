#include "core/quantity/uncertain_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace sunbreak {
namespace {

constexpr int most_decimals = 9;

std::string plain(double value, int decimals) {
  std::string text = fmt::format("{:.{}f}", std::abs(value), decimals);
  const bool zero = text.find_first_not_of("0.") == std::string::npos;
  return value < 0 && !zero ? "−" + text : text;
}

std::string with_unit(std::string text, std::string_view unit) {
  if (unit.empty()) return text;
  return text + (unit == "°" ? "" : " ") + std::string(unit);
}

/// What no decimal would show is what rounding left, and no uncertainty.
bool is_known(double expanded) { return std::isfinite(expanded) && expanded > 0.5 * std::pow(10, -most_decimals); }

}  // namespace

int decimals_told(double expanded, int usual) {
  if (!is_known(expanded)) return usual;
  // As rounded to two digits, so that 0.0996 counts as 0.10.
  const double power = std::floor(std::log10(expanded));
  const double two_digits = std::round(expanded / std::pow(10, power - 1)) * std::pow(10, power - 1);
  const int first = static_cast<int>(-std::floor(std::log10(two_digits) + 1e-9));
  return std::clamp(std::clamp(usual, first, first + 1), 0, most_decimals);
}

Told told(double value, double expanded, int usual_decimals) {
  const int decimals = decimals_told(expanded, usual_decimals);
  return {std::isnan(value) ? "–" : plain(value, decimals), is_known(expanded) ? plain(expanded, decimals) : ""};
}

Told told_difference(double value, double expanded, int usual_decimals) {
  Told pair = told(value, expanded, usual_decimals);
  if (value > 0 && pair.value.find_first_of("123456789") != std::string::npos) pair.value.insert(0, "+");
  return pair;
}

std::string uncertain_text(double value, double expanded, int usual_decimals, std::string_view unit) {
  return with_unit(told(value, expanded, usual_decimals).text(), unit);
}

std::string uncertain_difference(double value, double expanded, int usual_decimals, std::string_view unit) {
  return with_unit(told_difference(value, expanded, usual_decimals).text(), unit);
}

}  // namespace sunbreak
