#include "core/checks/smooth_surface.h"

#include <algorithm>
#include <cmath>
#include <utility>
#include <vector>

#include "core/linear/least_squares.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr double stations_a_term = 1.5, most_own_share = 0.8;

/// Legendre polynomials of degree 0 … n at x: they keep the fit well conditioned on an even grid.
std::vector<double> legendre(double x, int n) {
  std::vector<double> p(static_cast<std::size_t>(n) + 1);
  p[0] = 1;
  if (n > 0) p[1] = x;
  for (int k = 1; k < n; ++k) p[k + 1] = ((2 * k + 1) * x * p[k] - k * p[k - 1]) / (k + 1);
  return p;
}

/// Degrees in x and y of the surface's terms.
std::vector<std::pair<int, int>> terms_of(const SmoothDegrees& degrees) {
  std::vector<std::pair<int, int>> terms;
  for (int i = 0; i <= std::max(degrees.even, degrees.odd); ++i)
    for (int j = 0; i + j <= std::max(degrees.even, degrees.odd); ++j) {
      const bool even = i % 2 == 0 && j % 2 == 0;
      if (i + j <= (even ? degrees.even : degrees.odd)) terms.emplace_back(i, j);
    }
  return terms;
}

}  // namespace

std::vector<SurfaceResidual> smooth_residuals(const Layout& layout, std::span<const double> ppfd,
                                              std::span<const char> left_out, const SmoothDegrees& degrees) {
  std::vector<SurfaceResidual> residuals(ppfd.size(), {unread, 0});
  if (!layout.is_lattice() || layout.columns < 4 || layout.rows < 4) return residuals;
  const auto terms = terms_of(degrees);
  const int highest = std::max(degrees.even, degrees.odd);
  const Rectangle& area = layout.measured;
  std::vector<int> used;  // those that are fitted first
  for (std::size_t i = 0; i < ppfd.size(); ++i)
    if (!std::isnan(ppfd[i]) && ppfd[i] > 0) used.push_back(static_cast<int>(i));
  const auto fitted = static_cast<std::size_t>(
      std::stable_partition(used.begin(), used.end(), [&](int i) { return !left_out[i]; }) - used.begin());
  const std::size_t count = used.size(), width = terms.size();
  if (static_cast<double>(count) < stations_a_term * static_cast<double>(width)) return residuals;
  std::vector<double> basis(count * width), light(count);
  std::vector<std::vector<double>> across, deep;  // the polynomials at each column and row of stations
  for (const double x_m : layout.xs_m) across.push_back(legendre(2 * (x_m - area.left_m) / area.width_m - 1, highest));
  for (const double y_m : layout.ys_m) deep.push_back(legendre(2 * (y_m - area.front_m) / area.depth_m - 1, highest));
  const auto row_of = [&](std::size_t row) { return std::span<double>(&basis[row * width], width); };
  for (std::size_t row = 0; row < count; ++row) {
    const Station& s = layout.stations[used[row]];
    const auto &px = across[static_cast<std::size_t>(s.column)], &py = deep[static_cast<std::size_t>(s.row)];
    for (std::size_t t = 0; t < width; ++t) row_of(row)[t] = px[terms[t].first] * py[terms[t].second];
    light[row] = std::log(ppfd[used[row]]);
  }
  LeastSquares surface(width);
  surface.add_all(std::span(basis).first(fitted * width), std::span(light).first(fitted));
  if (!surface.solve() || surface.reciprocal_condition() < 1e-8) return residuals;
  // The surface's variance in units of a reading's: b (FᵀF)⁻¹ bᵀ, b a row of the basis, F those fitted.
  const std::vector<double> variances = surface.variances_at(basis);
  for (std::size_t row = 0; row < count; ++row) {
    const double variance = variances[row];
    double log_ratio = light[row] - surface.at(row_of(row)), leverage = variance;
    if (row < fitted) {
      // A reading is judged by the surface that the others make: its own share is taken out of fit and variance alike.
      if (variance > most_own_share) continue;
      log_ratio /= 1 - variance;
      leverage = variance / (1 - variance);
    }
    residuals[used[row]] = {log_ratio, leverage};
  }
  return residuals;
}

}  // namespace sunbreak
