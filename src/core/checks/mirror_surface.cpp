#include "core/checks/mirror_surface.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr int odd_terms = 15;
constexpr double share_needed = 0.9, least_own_share = 0.2;
using Terms = Eigen::Matrix<double, odd_terms, 1>;

/// Polynomials that change sign in a mirror, x and y from −1 to 1.
Terms odd_part(double x, double y) {
  const double x2 = x * x, y2 = y * y;
  Terms t;
  t << x, x * x2, x * x2 * x2, x * y2, x * x2 * y2, x * y2 * y2, y, y * y2, y * y2 * y2, y * x2, y * y2 * x2,
      y * x2 * x2, x * y, x * y * x2, x * y * y2;
  return t;
}

}  // namespace

std::vector<SurfaceResidual> mirror_residuals(const Layout& layout, std::span<const double> ppfd,
                                              std::span<const char> left_out) {
  std::vector<SurfaceResidual> residuals(ppfd.size(), {unread, 0});
  if (!layout.is_lattice() || layout.columns < 4 || layout.rows < 4) return residuals;
  // Stations that are mirror images of each other share a number.
  std::vector<int> group(ppfd.size());
  std::vector<int> members(ppfd.size(), 0);
  std::vector<double> mean(ppfd.size(), 0);
  std::vector<Terms> mean_terms(ppfd.size(), Terms::Zero()), terms(ppfd.size());
  int read = 0;
  for (const Station& s : layout.stations) {
    const int i = layout.index(s.column, s.row);
    group[i] =
        layout.index(std::min(s.column, layout.columns - 1 - s.column), std::min(s.row, layout.rows - 1 - s.row));
    terms[i] = odd_part(2.0 * s.column / (layout.columns - 1) - 1, 2.0 * s.row / (layout.rows - 1) - 1);
    if (!(ppfd[i] > 0)) continue;
    ++read;
    if (left_out[i]) continue;
    ++members[group[i]];
    mean[group[i]] += std::log(ppfd[i]);
    mean_terms[group[i]] += terms[i];
  }
  if (read < share_needed * static_cast<double>(ppfd.size())) return residuals;
  for (std::size_t g = 0; g < members.size(); ++g)
    if (members[g] > 0) mean[g] /= members[g], mean_terms[g] /= members[g];

  Eigen::Matrix<double, odd_terms, odd_terms> normal = 1e-9 * Eigen::Matrix<double, odd_terms, odd_terms>::Identity();
  Terms right = Terms::Zero();
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    if (!(ppfd[i] > 0) || left_out[i]) continue;
    const Terms t = terms[i] - mean_terms[group[i]];
    normal += t * t.transpose();
    right += (std::log(ppfd[i]) - mean[group[i]]) * t;
  }
  const Eigen::LDLT<Eigen::Matrix<double, odd_terms, odd_terms>> solver(normal);
  const Terms odd = solver.solve(right);
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    if (!(ppfd[i] > 0) || left_out[i] || members[group[i]] < 2) continue;
    const Terms t = terms[i] - mean_terms[group[i]];
    const double own_share = 1 - 1.0 / members[group[i]] - t.dot(solver.solve(t));
    if (own_share < least_own_share) continue;
    SurfaceResidual& r = residuals[i];
    r.log_ratio = (std::log(ppfd[i]) - mean[group[i]] - odd.dot(t)) / own_share;
    r.leverage = 1 / own_share - 1;
  }
  return residuals;
}

}  // namespace sunbreak
