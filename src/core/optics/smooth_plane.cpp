#include "core/optics/smooth_plane.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace sunbreak {
namespace {

std::vector<double> crowded_lines(double from, double to, int count) {
  if (!(to > from)) return {from};
  std::vector<double> lines(static_cast<std::size_t>(count));
  for (int i = 0; i < count; ++i)
    lines[static_cast<std::size_t>(i)] = from + (to - from) * (1 - std::cos(std::numbers::pi * i / (count - 1))) / 2;
  return lines;
}

/// The four lines about a place, and Lagrange's weight of each.
struct CubicStencil {
  std::size_t first = 0, count = 1;
  std::array<double, 4> weights{1, 0, 0, 0};
};

CubicStencil stencil(const std::vector<double>& lines, double at) {
  if (lines.size() < 4) return {};
  const auto above = std::upper_bound(lines.begin(), lines.end(), at) - lines.begin();
  CubicStencil s;
  s.count = 4;
  s.first = static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(above - 2, 0, std::ssize(lines) - 4));
  for (std::size_t i = 0; i < 4; ++i) {
    s.weights[i] = 1;
    for (std::size_t j = 0; j < 4; ++j)
      if (i != j) s.weights[i] *= (at - lines[s.first + j]) / (lines[s.first + i] - lines[s.first + j]);
  }
  return s;
}

}  // namespace

SmoothPlane::SmoothPlane(double left, double right, double front, double back, int lines,
                         const std::function<double(double, double)>& function)
    : xs_(crowded_lines(left, right, lines)), ys_(crowded_lines(front, back, lines)) {
  values_.reserve(xs_.size() * ys_.size());
  for (const double y : ys_)
    for (const double x : xs_) values_.push_back(function(x, y));
}

double SmoothPlane::at(double x, double y) const {
  const CubicStencil across = stencil(xs_, x), deep = stencil(ys_, y);
  double sum = 0;
  for (std::size_t j = 0; j < deep.count; ++j) {
    const double* row = values_.data() + (deep.first + j) * xs_.size() + across.first;
    double line = 0;
    for (std::size_t i = 0; i < across.count; ++i) line += across.weights[i] * row[i];
    sum += deep.weights[j] * line;
  }
  return sum;
}

}  // namespace sunbreak
