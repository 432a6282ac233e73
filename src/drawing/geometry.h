#pragma once

#include <algorithm>

namespace sunbreak::drawing {

/// A point of a drawing [px], y down.
struct Point {
  double x = 0, y = 0;
  Point operator+(const Point& o) const { return {x + o.x, y + o.y}; }
  Point operator-(const Point& o) const { return {x - o.x, y - o.y}; }
  Point operator*(double f) const { return {x * f, y * f}; }
};

/// An upright rectangle of a drawing [px].
struct Box {
  double left = 0, top = 0, width = 0, height = 0;

  double right() const { return left + width; }
  double bottom() const { return top + height; }
  Point center() const { return {left + width / 2, top + height / 2}; }
  Point top_left() const { return {left, top}; }
  Point top_right() const { return {right(), top}; }
  Point bottom_left() const { return {left, bottom()}; }
  Point bottom_right() const { return {right(), bottom()}; }
  bool empty() const { return width <= 0 || height <= 0; }

  /// Larger by so much at each side; smaller where it is below 0.
  Box grown(double by) const { return {left - by, top - by, width + 2 * by, height + 2 * by}; }
  bool contains(const Box& o) const {
    return o.left >= left && o.right() <= right() && o.top >= top && o.bottom() <= bottom();
  }
  bool intersects(const Box& o) const {
    return o.left < right() && o.right() > left && o.top < bottom() && o.bottom() > top;
  }
  Box intersected(const Box& o) const {
    const double l = std::max(left, o.left), t = std::max(top, o.top);
    return {l, t, std::min(right(), o.right()) - l, std::min(bottom(), o.bottom()) - t};
  }
  Box united(const Box& o) const {
    const double l = std::min(left, o.left), t = std::min(top, o.top);
    return {l, t, std::max(right(), o.right()) - l, std::max(bottom(), o.bottom()) - t};
  }
  static Box about(const Point& middle, double width, double height) {
    return {middle.x - width / 2, middle.y - height / 2, width, height};
  }
};

}  // namespace sunbreak::drawing
