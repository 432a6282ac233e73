#include "core/power/monotone_cubic.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {
namespace {

/// Slope at an end by the parabola through three points, held to the sign and size that keep the curve monotone.
double end_slope(double width, double next_width, double secant, double next_secant) {
  const double slope = ((2 * width + next_width) * secant - width * next_secant) / (width + next_width);
  if (slope * secant <= 0) return 0;
  if (secant * next_secant <= 0 && std::abs(slope) > 3 * std::abs(secant)) return 3 * secant;
  return slope;
}

}  // namespace

Result<MonotoneCubic> MonotoneCubic::through(std::span<const double> x, std::span<const double> y) {
  const std::size_t n = x.size();
  const bool rising = std::adjacent_find(x.begin(), x.end(), [](double a, double b) { return !(a < b); }) == x.end();
  if (n < 2 || y.size() != n || !rising)
    return Problem{"a curve needs at least two points at different places", "nothing can be read between them",
                   "measure one more"};
  MonotoneCubic c;
  c.x_.assign(x.begin(), x.end());
  c.y_.assign(y.begin(), y.end());
  std::vector<double> width, secant;
  for (std::size_t i = 0; i + 1 < n; ++i) {
    width.push_back(x[i + 1] - x[i]);
    secant.push_back((y[i + 1] - y[i]) / width[i]);
  }
  c.slope_.assign(n, secant.front());
  if (n == 2) return c;
  for (std::size_t i = 1; i + 1 < n; ++i) {
    const double before = secant[i - 1], after = secant[i];
    const double w1 = 2 * width[i] + width[i - 1], w2 = width[i] + 2 * width[i - 1];
    c.slope_[i] = before * after <= 0 ? 0 : (w1 + w2) / (w1 / before + w2 / after);
  }
  c.slope_.front() = end_slope(width[0], width[1], secant[0], secant[1]);
  c.slope_.back() = end_slope(width[n - 2], width[n - 3], secant[n - 2], secant[n - 3]);
  return c;
}

std::optional<MonotoneCubic> MonotoneCubic::through(const std::map<double, double>& points) {
  std::vector<double> x, y;
  for (const auto& [at, value] : points) x.push_back(at), y.push_back(value);
  auto made = through(x, y);
  return made ? std::optional(std::move(made.value())) : std::nullopt;
}

double MonotoneCubic::at(double x) const {
  if (x <= x_.front()) return y_.front();
  if (x >= x_.back()) return y_.back();
  const auto i = static_cast<std::size_t>(std::upper_bound(x_.begin(), x_.end(), x) - x_.begin()) - 1;
  const double width = x_[i + 1] - x_[i], t = (x - x_[i]) / width, u = 1 - t;
  return u * u * ((1 + 2 * t) * y_[i] + t * width * slope_[i]) +
         t * t * ((1 + 2 * u) * y_[i + 1] - u * width * slope_[i + 1]);
}

}  // namespace sunbreak
