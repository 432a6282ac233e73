#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/bench/grid.h"
#include "core/evidence/grade.h"
#include "core/quantity/display.h"

namespace sunbreak {

/// What decides whether two entries of a line-up may be held against each other: how their figures came about, after
/// whatever the line-up's way made alike.
struct ComparedFacts {
  Footprint footprint;             ///< that the figures hold for
  std::string walls;               ///< "reflective walls", "no walls"
  std::string grid;                ///< "12 × 12 cells"
  int columns = 0, rows = 0;       ///< of a lattice
  std::optional<double> height_m;  ///< that was walked, or predicted
  std::string height_rule;         ///< where each has a height of its own by one rule: that rule
  std::string sensor;              ///< "quantum sensor", "lux meter"
  std::optional<Grade> grade;      ///< of the evidence; none where nothing is read
  bool simulated = false;          ///< nothing was measured
};

/// What has to be alike for a figure to be compared; watts at the wall need none of it but that both were measured.
enum class Needs : std::uint8_t {
  Nothing = 0,
  Sensor = 1,  ///< sensor class and grade
  Space = 2,   ///< footprint and walls
  Height = 4,
  Grid = 8,
  Mean = Sensor | Space | Height,  ///< a mean hardly goes with the grid
  All = Mean | Grid
};
constexpr Needs operator|(Needs a, Needs b) {
  return static_cast<Needs>(static_cast<std::uint8_t>(a) | static_cast<std::uint8_t>(b));
}
constexpr bool needs(Needs what, Needs part) {
  return (static_cast<std::uint8_t>(what) & static_cast<std::uint8_t>(part)) != 0;
}

/// One reason why two entries may not be held against each other.
struct Unlike {
  enum What { Footprints, Walls, Grids, Heights, Sensors, Grades, Simulations } what = Footprints;
  std::string words;                  ///< "footprints of 120 × 120 cm and 60 × 120 cm"
  std::vector<std::string> switches;  ///< the ways that would make them alike, as a line-up's way is written
};

/// Footprints count as alike within 2 % a side, heights within 1 cm.
inline constexpr double alike_side = 0.02, alike_height_m = 0.01;

/// Every reason why not, the hardest to mend last; empty where two may be compared.
std::vector<Unlike> why_not(const ComparedFacts& a, const ComparedFacts& b, Needs needed, UnitSystem units);

/// The reasons as one sentence.
std::string why_not_words(std::span<const Unlike> reasons);

/// Which of many entries may be compared: as why_not() has it, told fast.
class Comparability {
 public:
  Comparability(std::span<const ComparedFacts> facts, Needs needed);
  bool may(int a, int b) const {
    return may_classes(classes_[static_cast<std::size_t>(a)], classes_[static_cast<std::size_t>(b)]);
  }

  // Entries that are alike in all that counts are of one class; which classes may be compared is one table.
  int class_of(int entry) const { return classes_[static_cast<std::size_t>(entry)]; }
  const char* row(int of_class) const { return table_.data() + static_cast<std::size_t>(of_class) * count_; }
  bool may_classes(int a, int b) const { return row(a)[b] != 0; }

 private:
  std::vector<int> classes_;
  std::size_t count_ = 0;
  std::vector<char> table_;
};

}  // namespace sunbreak
