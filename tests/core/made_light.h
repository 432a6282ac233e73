#pragma once

#include <vector>

namespace sunbreak {

/// A point that gives light downward: its strength straight down [µmol s⁻¹ sr⁻¹], and how that goes with the angle.
struct Glow {
  double x_m = 0, y_m = 0, strength = 1;
  double exponent = 1;   ///< cosᵐ of the angle
  double wing = 0;       ///< what is added aside: 1 + wing · sin²
  double hood_deg = 90;  ///< beyond it a hood shades the light, over a few degrees
};

/// Light made for trials, by points and their mirror images in the walls: nothing of the product's own room or lamps.
class MadeLight {
 public:
  /// Walls that send `mirror` of the light back, as mirrors do.
  MadeLight(double width_m, double depth_m, double mirror, std::vector<Glow> glows);
  /// PPFD facing up at a place of the floor, with the lamp so high over it.
  double at(double x_m, double y_m, double height_m) const;

 private:
  std::vector<Glow> all_;  ///< with their images
};

}  // namespace sunbreak
