#pragma once

#include <vector>

namespace sunbreak {

/// What the reference station read, and when.
struct ReferencePoint {
  double time_s = 0;  ///< on any clock; the same for all points of a sweep
  double value = 0;   ///< dark offset taken off, any unit; over 0
  double noise = 0;   ///< relative standard deviation of the value
};

/// How light and sensor changed while a sweep was walked, by a station that was read again: its readings, interpolated
/// linearly in time, scale the sweep to its start (docs/method.md). Before the first point and after the last one the
/// nearest holds. A sweep is not scaled by noise: with fewer than two points, or while no point departs from the first
/// by more than three standard deviations of such a difference (0.3 % at least for each, since no sensor is set down
/// twice in quite the same place), factor() is 1.
class Drift {
 public:
  Drift() = default;
  /// Points in any order; those that are not over 0 are left out.
  explicit Drift(std::vector<ReferencePoint> points);

  /// There is something to compare.
  bool exists() const { return points_.size() >= 2; }
  /// It is told from noise, and the sweep is scaled by it.
  bool significant() const { return significant_; }
  /// What a reading taken at `time_s` is multiplied by.
  double factor(double time_s) const;
  /// The change from the first point that is largest in size, as a share of it: −0.02 is 2 % down.
  double largest_change() const;
  /// The change from the first point to the last.
  double change() const;

 private:
  std::vector<ReferencePoint> points_;
  bool significant_ = false;
};

}  // namespace sunbreak
