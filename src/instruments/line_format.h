#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace sunbreak::instruments {

/// How a device that streams numbers writes them: which column holds the value, and what it is to be multiplied by.
struct LineFormat {
  char separator = ',';
  int column = 1;     ///< from 1
  double factor = 1;  ///< to µmol/m²/s or W
  char decimal_mark = '.';

  bool operator==(const LineFormat&) const = default;
};

/// The value in a line, or nothing where its column is not there or no plausible number (not finite, or over 10⁷ in
/// size).
std::optional<double> value_in(std::string_view line, const LineFormat& format);

/// What a wall meter's answer says.
struct WallValues {
  double volts = 0, amperes = 0, watts = 0, volt_amperes = 0, power_factor = 0, hertz = 0;
};

/// Six numbers: V, A, W, VA, power factor, Hz; nothing where they are not that.
std::optional<WallValues> wall_values_in(std::string_view line);

}  // namespace sunbreak::instruments
