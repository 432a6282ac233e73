#include "core/checks/local_surface.h"

#include <fmt/format.h>

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "core/checks/mirror_surface.h"
#include "core/quantity/display.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr int reach = 2;   ///< neighbors up to so many columns and rows away
constexpr int fewest = 9;  ///< readings that a quadratic surface needs, with three to spare
constexpr double deviations = 4.2, least_share = 0.05;
constexpr double floor_of_noise = 0.004;  ///< residuals on a computed field are smaller than any sensor's
constexpr double normal_mad = 1.4826;
constexpr double normal_within_three = 0.98658;  ///< standard deviation of a normal one cut off at ±3

bool usable(double ppfd) { return !std::isnan(ppfd) && ppfd > 0; }

SurfaceResidual residual_at(const Layout& layout, std::span<const double> ppfd, std::span<const char> left_out,
                            int station) {
  const Station& s = layout.stations[station];
  Eigen::Matrix<double, 6, 6> normal = Eigen::Matrix<double, 6, 6>::Zero();
  Eigen::Matrix<double, 6, 1> right = Eigen::Matrix<double, 6, 1>::Zero();
  Eigen::Matrix<double, 6, 6> spread = Eigen::Matrix<double, 6, 6>::Zero();
  int count = 0;
  for (int dy = -reach; dy <= reach; ++dy)
    for (int dx = -reach; dx <= reach; ++dx) {
      const int column = s.column + dx, row = s.row + dy;
      if ((dx == 0 && dy == 0) || column < 0 || row < 0 || column >= layout.columns || row >= layout.rows) continue;
      const int i = layout.index(column, row);
      if (!usable(ppfd[i]) || left_out[i]) continue;
      const double weight = 1 / (1.0 + 0.5 * (dx * dx + dy * dy));
      Eigen::Matrix<double, 6, 1> basis;
      basis << 1, dx, dy, dx * dx, dx * dy, dy * dy;
      normal += weight * basis * basis.transpose();
      spread += weight * weight * basis * basis.transpose();
      right += weight * std::log(ppfd[i]) * basis;
      ++count;
    }
  if (count < fewest) return {unread, 0, unread};
  const Eigen::LDLT<Eigen::Matrix<double, 6, 6>> solver(normal);
  if (solver.rcond() < 1e-9) return {unread, 0, unread};
  // The surface at the station itself is its first coefficient.
  const Eigen::Matrix<double, 6, 1> first = solver.solve(Eigen::Matrix<double, 6, 1>::Unit(0));
  SurfaceResidual r;
  r.log_ratio = std::log(ppfd[station]) - first.dot(right);
  r.leverage = first.dot(spread * first);
  r.standard = r.log_ratio / std::sqrt(1 + r.leverage);
  return r;
}

/// Standard deviation of the residuals without the far ones: the median deviation says which those are, the rest is
/// used whole, since a median alone is too unsure to set an alarm by.
double robust_spread(const std::vector<SurfaceResidual>& residuals, std::span<const char> left_out) {
  std::vector<double> sizes;
  for (std::size_t i = 0; i < residuals.size(); ++i)
    if (!std::isnan(residuals[i].standard) && !left_out[i]) sizes.push_back(std::abs(residuals[i].standard));
  if (sizes.empty()) return 0;
  const auto middle = sizes.begin() + static_cast<std::ptrdiff_t>(sizes.size() / 2);
  std::nth_element(sizes.begin(), middle, sizes.end());
  const double bound = 3 * normal_mad * *middle;
  double squares = 0;
  int count = 0;
  for (const double size : sizes)
    if (size <= bound) squares += size * size, ++count;
  return std::max(count > 0 ? std::sqrt(squares / count) / normal_within_three : 0.0, floor_of_noise);
}

}  // namespace

std::vector<SurfaceResidual> surface_residuals(const Layout& layout, std::span<const double> ppfd,
                                               std::span<const char> left_out) {
  std::vector<SurfaceResidual> residuals(ppfd.size(), {unread, 0, unread});
  if (!layout.is_lattice()) return residuals;
  for (std::size_t i = 0; i < ppfd.size(); ++i)
    if (usable(ppfd[i])) residuals[i] = residual_at(layout, ppfd, left_out, static_cast<int>(i));
  return residuals;
}

std::vector<Check> local_surface_checks(const Layout& layout, std::span<const double> ppfd) {
  std::vector<Check> checks;
  std::vector<char> left_out(ppfd.size(), 0);
  const std::size_t most = std::max<std::size_t>(1, ppfd.size() / 12);
  while (checks.size() < most) {
    // The view of a reading that leaves the least to chance judges it.
    const auto local = surface_residuals(layout, ppfd, left_out), mirrored = mirror_residuals(layout, ppfd, left_out);
    const double local_spread = robust_spread(local, left_out), mirrored_spread = robust_spread(mirrored, left_out);
    std::vector<SurfaceResidual> residuals = local;
    double worst_size = 0;
    int worst = -1;
    for (std::size_t i = 0; i < residuals.size(); ++i) {
      if (left_out[i]) continue;
      const double by_local =
          std::isnan(local[i].standard) ? INFINITY : local_spread * std::sqrt(1 + local[i].leverage);
      const double by_mirror =
          std::isnan(mirrored[i].standard) ? INFINITY : mirrored_spread * std::sqrt(1 + mirrored[i].leverage);
      if (by_mirror < by_local) residuals[i] = mirrored[i];
      const double spread = by_mirror < by_local ? mirrored_spread : local_spread;
      const double size =
          std::isnan(residuals[i].standard) || spread <= 0 ? 0 : std::abs(residuals[i].standard) / spread;
      if (size > worst_size) worst_size = size, worst = static_cast<int>(i);
    }
    if (worst < 0 || worst_size <= deviations) break;
    const SurfaceResidual& r = residuals[worst];
    const double expected = ppfd[worst] / std::exp(r.log_ratio), share = ppfd[worst] / expected - 1;
    if (std::abs(share) <= least_share) break;
    left_out[worst] = 1;
    const double factor = ppfd[worst] / expected;
    const bool digit = factor > 4 || factor < 0.25;
    checks.push_back({"far from its neighbors",
                      digit ? Severity::Bad : Severity::Look,
                      {worst},
                      fmt::format("{} where its neighbors make {} likely, {:.0f} % {}", ppfd_text(ppfd[worst]),
                                  ppfd_text(expected), 100 * std::abs(share), share < 0 ? "less" : "more"),
                      "it shifts lowest, highest and evenness",
                      digit ? "look for a slipped digit, then read it again"
                            : "read it again: a tilted sensor, a shadow or a slip"});
  }
  return checks;
}

}  // namespace sunbreak
