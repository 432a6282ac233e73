#pragma once

#include <cstdint>
#include <string>

namespace sunbreak::drawing {

struct Rgb {
  std::uint8_t red = 0, green = 0, blue = 0;
  std::string hex() const;
};

/// The PPFD range that a light scale spans [µmol m⁻² s⁻¹], with round ends.
struct ScaleRange {
  double low = 0, high = 1000;
  double share(double ppfd) const { return high > low ? (ppfd - low) / (high - low) : 0.5; }
  bool operator==(const ScaleRange&) const = default;
};

/// The smallest range with round ends that holds both values, and spans a tenth of their middle or more.
ScaleRange round_range(double lowest, double highest);

/// A round step that cuts a span into at most `most` parts: 1, 2 or 5 times a power of ten.
double round_step(double span, int most);

/// The light scale's color at a share of its range: dark blue at 0 through green to pale yellow at 1, lightness rising
/// evenly. Shares outside 0 … 1 keep the end colors.
Rgb light_color(double share);

/// Dark or light ink, whichever stands out more on a color of the scale (WCAG relative luminance).
Rgb ink_on(const Rgb& ground);

}  // namespace sunbreak::drawing
