#pragma once

#include <map>
#include <optional>
#include <span>
#include <vector>

#include "core/result.h"

namespace sunbreak {

/// A piecewise-cubic curve through points that rises and falls only where they do: no overshoot between them. Source:
/// F. N. Fritsch and R. E. Carlson, SIAM J. Numer. Anal. 17 (1980); slopes by the weighted harmonic mean of F. N.
/// Fritsch and J. Butland (1984).
class MonotoneCubic {
 public:
  /// Through (x, y), at least two, x strictly rising; otherwise a Problem.
  static Result<MonotoneCubic> through(std::span<const double> x, std::span<const double> y);
  /// The same through y by x; nothing through fewer than two points.
  static std::optional<MonotoneCubic> through(const std::map<double, double>& points);

  /// Beyond the outer points it keeps their value.
  double at(double x) const;
  double lowest_x() const { return x_.front(); }
  double highest_x() const { return x_.back(); }

 private:
  std::vector<double> x_, y_, slope_;
};

}  // namespace sunbreak
