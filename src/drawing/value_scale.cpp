#include "drawing/value_scale.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/display.h"

namespace sunbreak::drawing {
namespace {

constexpr const char* minus = "\u2212";

Rgb between_inks(const Rgb& a, const Rgb& b, double share) {
  const auto mix = [&](std::uint8_t x, std::uint8_t y) {
    return static_cast<std::uint8_t>(std::lround(x + share * (y - x)));
  };
  return {mix(a.red, b.red), mix(a.green, b.green), mix(a.blue, b.blue)};
}

}  // namespace

Rgb ValueScale::color(double value, const Palette& palette) const {
  if (!diverging) return light_color(range.share(value));
  const double share = std::clamp(std::isnan(value) || !(range.high > 0) ? 0.0 : value / range.high, -1.0, 1.0);
  return between_inks(palette.ground, share < 0 ? palette.lake : palette.ember, std::abs(share));
}

std::string ValueText::text(double value) const {
  const std::string words =
      decimals < 0 ? ppfd_text(std::abs(value)) : fmt::format("{:.{}f}", std::abs(value), decimals);
  const bool zero = words.find_first_of("123456789") == std::string::npos;
  if (value < 0 && !zero) return minus + words;
  return value > 0 && with_sign && !zero ? "+" + words : words;
}

std::string tick_text(double value, double step) {
  if (std::abs(value) < step / 1e6) return "0";
  return (value < 0 ? minus : "") + short_number(std::abs(value), 1);
}

}  // namespace sunbreak::drawing
