#pragma once

#include <string_view>
#include <vector>

#include "core/meters/agreement.h"
#include "core/meters/check_lamp.h"
#include "core/meters/lux_factor.h"
#include "core/result.h"
#include "exchange/tables/sweep_table.h"

namespace sunbreak::exchange {

/// Pairs of a lux meter and a quantum sensor as a table has them.
struct LuxPairsDraft {
  std::vector<LuxPair> pairs;
  std::vector<Finding> findings;
};

/// A header row with a column of lux (lux, lx, illuminance, klux) and one of PPFD (ppfd, µmol, par, light), then a row
/// for each pair. A row with another number of cells, or with a cell that is not surely a number above zero, is left
/// out and told. A Problem where the columns are not named or no row could be taken.
Result<LuxPairsDraft> read_lux_pairs(std::string_view bytes);

/// Pairs of two sensors as a table has them.
struct SensorPairsDraft {
  std::vector<SensorPair> pairs;
  std::string first, second;  ///< their columns' titles
  std::vector<Finding> findings;
};

/// A header row, then a row for each pair: two columns of light, of which the first is of the sensor that is trusted
/// more (or is titled reference, trusted or first); and, where they are there, places: x and y with their unit (m where
/// it is not named), row and column, or stations such as B3. Otherwise as read_lux_pairs().
Result<SensorPairsDraft> read_sensor_pairs(std::string_view bytes);

/// Readings of a check lamp as a table has them.
struct CheckReadingsDraft {
  std::vector<CheckReading> readings;
  std::vector<std::string> days;  ///< as the table writes them, one a reading
  std::vector<Finding> findings;
};

/// A header row with a column of days (date, day: ISO 8601 or a number), one or more of light (center, left, right,
/// ppfd…, light…), and, where they are there, lamp, meter and watts. Otherwise as read_lux_pairs().
Result<CheckReadingsDraft> read_check_readings(std::string_view bytes);

}  // namespace sunbreak::exchange
