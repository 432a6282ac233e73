#pragma once

#include <optional>
#include <string_view>

namespace sunbreak {

/// Where the tape that measures a height ends; it begins at the stated datum of the fixture.
enum class TapeEnd {
  Sensor,  ///< the sensor's receiving surface: the tape shows the height itself
  Floor,   ///< the floor the sensor stands on
  Canopy   ///< a pretend canopy over that floor
};

/// Nothing where the text is none of "sensor", "floor", "canopy".
std::optional<TapeEnd> parse_tape_end(std::string_view text);

/// What lies between the tape's end and the sensor's receiving surface. Heights over the floor [m].
struct TapeRule {
  TapeEnd end = TapeEnd::Sensor;
  double receiving_height_m = 0;
  double canopy_height_m = 0;

  /// Height over the receiving surface for what the tape shows [m]: h = tape − receiving (floor), h = tape + canopy −
  /// receiving (canopy).
  double height_m(double tape_m) const;
  /// What the tape shows for a height [m]; the inverse.
  double tape_m(double height_m) const;
};

}  // namespace sunbreak
