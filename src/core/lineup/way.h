#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <utility>

#include "core/bench/footprint.h"
#include "core/quantity/display.h"
#include "core/result.h"

namespace sunbreak {

/// The one declared way in which the entries of a line-up are held against each other: which light of each test counts,
/// and what is made alike. Without any of it: as measured.
struct LineUpWay {
  enum class Room { Own, OpenFloor, WhiteTent };

  std::optional<double> height_m;            ///< all hung alike; else at the walked height nearest to the usual one
  std::optional<double> power_w;             ///< all dimmed to the same watts, by the stair
  std::optional<double> center_ppfd;         ///< all dimmed to the same PPFD at the center
  std::string target;                        ///< each at its best setting for it: a name, or "555-925"
  std::optional<Footprint> footprint;        ///< of each only this part about the middle; of a reference room its size
  std::optional<std::pair<int, int>> cells;  ///< readings averaged into so many cells
  Room room = Room::Own;
  std::string check_lamp;  ///< each brought to the board of a check lamp that its sensor read; its name
  double lamp_ppfd = 0;    ///< that the lamp is taken to read [µmol m⁻² s⁻¹], mean of its stations

  bool as_measured() const { return *this == LineUpWay{}; }
  /// Whether it looks at light that was predicted from the whole light, which takes seconds a test.
  bool needs_whole_light() const { return room != Room::Own || height_m.has_value() || !target.empty(); }
  bool operator==(const LineUpWay&) const = default;
};

/// From "as-measured", or one or several of "equal-watts:300", "equal-center:800", "height:45cm", "best:TARGET",
/// "footprint:90x90cm", "grid:6x6", "open-floor", "white-tent", "check-lamp:NAME=400", joined by "+"; or the same as
/// way_text() writes it. Refuses what cannot go together.
Result<LineUpWay> parse_way(std::string_view text);

/// The text for a command line: exact, the same whatever units are shown.
std::string way_id(const LineUpWay& way);

/// The text for a field that can be typed in: "equal watts 300 W + height 45 cm"; lengths to the digits that are shown.
std::string way_text(const LineUpWay& way, UnitSystem units);

/// The way as it is printed with a line-up. `usual_height_m` is where all hang as measured.
std::string way_words(const LineUpWay& way, std::optional<double> usual_height_m, UnitSystem units);

}  // namespace sunbreak
