#pragma once

#include <functional>
#include <vector>

namespace sunbreak {

/// A smooth function on a rectangle, asked for at the crossings of lines that crowd toward its edges (x = a + w (1 −
/// cos πt)/2) and had between them by cubic interpolation of the four nearest lines each way. For functions that cost
/// much and are wanted at many places.
class SmoothPlane {
 public:
  /// `lines` each way, four at least; a side without extent has one.
  SmoothPlane(double left, double right, double front, double back, int lines,
              const std::function<double(double x, double y)>& function);

  double at(double x, double y) const;

 private:
  std::vector<double> xs_, ys_;
  std::vector<double> values_;  ///< row by row
};

}  // namespace sunbreak
