#include "drawing/light_scale.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace sunbreak::drawing {
namespace {

constexpr std::array<Rgb, 9> scale{{{0x1D, 0x26, 0x38},
                                    {0x2A, 0x3C, 0x50},
                                    {0x33, 0x54, 0x67},
                                    {0x3E, 0x70, 0x78},
                                    {0x57, 0x8D, 0x7E},
                                    {0x84, 0xA6, 0x76},
                                    {0xBF, 0xBB, 0x6D},
                                    {0xF5, 0xD0, 0x73},
                                    {0xFC, 0xF1, 0xD3}}};
// Black and white alone keep 4.5 : 1 on every color of the scale.
constexpr Rgb dark_ink{0, 0, 0}, light_ink{0xFF, 0xFF, 0xFF};

double luminance(const Rgb& c) {
  const auto linear = [](std::uint8_t v) {
    const double s = v / 255.0;
    return s <= 0.03928 ? s / 12.92 : std::pow((s + 0.055) / 1.055, 2.4);
  };
  return 0.2126 * linear(c.red) + 0.7152 * linear(c.green) + 0.0722 * linear(c.blue);
}

double contrast(const Rgb& a, const Rgb& b) {
  const double la = luminance(a), lb = luminance(b);
  return (std::max(la, lb) + 0.05) / (std::min(la, lb) + 0.05);
}

}  // namespace

std::string Rgb::hex() const { return fmt::format("#{:02X}{:02X}{:02X}", red, green, blue); }

double round_step(double span, int most) {
  if (!(span > 0) || !std::isfinite(span)) return 1;
  const double least = span / most, power = std::pow(10, std::floor(std::log10(least)));
  for (const double factor : {1.0, 2.0, 5.0})
    if (factor * power >= least * (1 - 1e-12)) return factor * power;
  return 10 * power;
}

ScaleRange round_range(double lowest, double highest) {
  if (!std::isfinite(lowest) || !std::isfinite(highest)) return {};
  // What is nearly the same looks nearly the same: at least a tenth of the middle is spanned.
  constexpr double least_span = 0.1;
  const double middle = (lowest + highest) / 2, half = least_span / 2 * std::abs(middle);
  lowest = std::min(lowest, middle - half), highest = std::max(highest, middle + half);
  const double step = round_step(std::max(highest - lowest, 1e-9), 8);
  ScaleRange range{std::floor(lowest / step) * step, std::ceil(highest / step) * step};
  if (range.high <= range.low) range.high = range.low + step;
  return range;
}

Rgb light_color(double share) {
  const double at = std::clamp(std::isnan(share) ? 0.0 : share, 0.0, 1.0) * (scale.size() - 1);
  const auto low = std::min<std::size_t>(static_cast<std::size_t>(at), scale.size() - 2);
  const double t = at - static_cast<double>(low);
  const auto mix = [&](std::uint8_t a, std::uint8_t b) {
    return static_cast<std::uint8_t>(std::lround(a + t * (b - a)));
  };
  return {mix(scale[low].red, scale[low + 1].red), mix(scale[low].green, scale[low + 1].green),
          mix(scale[low].blue, scale[low + 1].blue)};
}

Rgb ink_on(const Rgb& ground) {
  return contrast(dark_ink, ground) >= contrast(light_ink, ground) ? dark_ink : light_ink;
}

}  // namespace sunbreak::drawing
