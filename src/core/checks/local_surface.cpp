#include "core/checks/local_surface.h"

#include <Eigen/Dense>
#include <cmath>

#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr int reach = 2;   ///< neighbors up to so many columns and rows away
constexpr int fewest = 9;  ///< readings that a quadratic surface needs, with three to spare

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
  if (count < fewest) return {unread, 0};
  const Eigen::LDLT<Eigen::Matrix<double, 6, 6>> solver(normal);
  if (solver.rcond() < 1e-9) return {unread, 0};
  // The surface at the station itself is its first coefficient.
  const Eigen::Matrix<double, 6, 1> first = solver.solve(Eigen::Matrix<double, 6, 1>::Unit(0));
  SurfaceResidual r;
  r.log_ratio = std::log(ppfd[station]) - first.dot(right);
  r.leverage = first.dot(spread * first);
  return r;
}

}  // namespace

std::vector<SurfaceResidual> surface_residuals(const Layout& layout, std::span<const double> ppfd,
                                               std::span<const char> left_out) {
  std::vector<SurfaceResidual> residuals(ppfd.size(), {unread, 0});
  if (!layout.is_lattice()) return residuals;
  for (std::size_t i = 0; i < ppfd.size(); ++i)
    if (usable(ppfd[i])) residuals[i] = residual_at(layout, ppfd, left_out, static_cast<int>(i));
  return residuals;
}

}  // namespace sunbreak
