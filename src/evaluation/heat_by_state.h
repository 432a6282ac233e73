#pragma once

#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "core/quantity/display.h"
#include "core/result.h"
#include "record/test_record.h"

namespace sunbreak::evaluation {

using namespace record;

/// A temperature of a test with what is known of the state it was taken in.
struct HeatRow {
  Id id = 0;
  std::string place;  ///< with its material, where it is a swatch
  std::optional<double> height_m, percent, minutes_on;
  Result<double> surface_c{0.0};               ///< of the place itself
  std::optional<double> hottest_c, coldest_c;  ///< of a thermal picture, corrected likewise
  std::optional<double> rise_k;                ///< over the air
  bool canopy = false;                         ///< on what would be lit, not on the fixture
  bool on_fixture = false;                     ///< neither that nor the air or a wall around it
  std::optional<double> over_limit;            ///< by how much it is over the limit of its kind [K]
};

/// The temperatures of a test as they were taken, each at its height, setting and time since switch-on: as noted, or by
/// what the lamp had been told last.
std::vector<HeatRow> heat_rows(const TestRecord& test, UnitSystem units);

/// The hottest place of the fixture itself among those that `wanted` holds for (all where it is empty), and how hot it
/// is [°C], the hottest spot of a thermal picture included; nothing where none was taken.
struct HottestPlace {
  const HeatRow* row = nullptr;
  double celsius = 0;
};
std::optional<HottestPlace> hottest_of_fixture(const std::vector<HeatRow>& rows,
                                               const std::function<bool(const HeatRow&)>& wanted = {});

/// What the limits that the tester set say of settings and heights: which are within them and which are not, and
/// whether boost is worth its heat. Empty where no limit is set.
std::vector<std::string> heat_verdicts(const TestRecord& test, UnitSystem units);

/// Materials that canopies are stood in for by, with their emissivity: those that ship, then the test's own.
struct Swatch {
  std::string material;
  double emissivity = 0.95;
};
std::vector<Swatch> swatches(const std::vector<Temperature>& used);

}  // namespace sunbreak::evaluation
