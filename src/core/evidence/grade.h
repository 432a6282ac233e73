#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/display.h"

namespace sunbreak {

/// How far the record of a sweep bears its figures out.
enum class Grade { Spot, Working, Benchmark };

std::string_view name(Grade grade);

/// What was recorded about a sweep.
struct EvidenceFacts {
  bool lattice = false;  ///< a regular grid; false for spots
  int stations = 0, unread = 0;
  double read_share = 1;  ///< of the area
  double area_m2 = 0;     ///< measured
  bool by_lux = false;
  bool altered = false;  ///< came by a package that was not as its writer left it
  std::string impossible;  ///< what of it cannot be, as the check of plausibility saw it; empty: nothing
  enum { StabilizationNotKnown, NotStabilized, Stabilized } stabilization = StabilizationNotKnown;
  std::string stabilization_words;
  std::optional<double> drift;  ///< largest change at the reference, as a share; none where it was not read again
  std::optional<double> power_w;
  bool power_in_the_same_state = false;  ///< read while the sweep was walked, or close to it
  bool power_carried = false;            ///< read at the same setting with another sweep
  std::string datum;
  std::optional<double> sensor_height_m;
  std::optional<double> months_since_calibration;  ///< when the test was done
  bool walls_stated = false, door_stated = false;
  bool level_checked = false, center_checked = false;
  int open_checks = 0;
  UnitSystem units = UnitSystem::Metric;  ///< that it is told in
};

/// One condition of benchmark grade.
struct Condition {
  std::string_view id;
  bool met = false;
  std::string saw;  ///< what is on record
  std::string way;  ///< what would meet it; empty where it is met
  enum Where { Rig, WarmUp, Walk } where = Rig;
  bool operator==(const Condition&) const = default;
};

/// What is on record, and where that is not enough what would be.
std::string told(const Condition& condition);

struct Evidence {
  Grade grade = Grade::Spot;
  std::vector<Condition> conditions;
  int missing() const;
};

/// Grades a sweep: benchmark where every condition is met, working where one or two are not, otherwise spot. Spot
/// checks, lux-based sweeps, those of an altered package and those of which under least_read of the area was read are
/// spot whatever else is met. The conditions are those of docs/method.md.
Evidence grade(const EvidenceFacts& facts);

}  // namespace sunbreak
