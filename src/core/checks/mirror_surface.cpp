#include "core/checks/mirror_surface.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/linear/least_squares.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr std::size_t odd_terms = 15;
constexpr double share_needed = 0.9, least_own_share = 0.2;
using Terms = std::array<double, odd_terms>;

/// Polynomials that change sign in a mirror, x and y from −1 to 1.
Terms odd_part(double x, double y) {
  const double x2 = x * x, y2 = y * y;
  return {x,           x * x2, x * x2 * x2, x * y2,      x * x2 * y2, x * y2 * y2, y,         y * y2,
          y * y2 * y2, y * x2, y * y2 * x2, y * x2 * x2, x * y,       x * y * x2,  x * y * y2};
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
  std::vector<Terms> mean_terms(ppfd.size(), Terms{}), terms(ppfd.size());
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
    for (std::size_t t = 0; t < odd_terms; ++t) mean_terms[group[i]][t] += terms[i][t];
  }
  if (read < share_needed * static_cast<double>(ppfd.size())) return residuals;
  for (std::size_t g = 0; g < members.size(); ++g)
    if (members[g] > 0) {
      mean[g] /= members[g];
      for (double& term : mean_terms[g]) term /= members[g];
    }
  const auto own_terms = [&](std::size_t i) {
    Terms own = terms[i];
    for (std::size_t t = 0; t < odd_terms; ++t) own[t] -= mean_terms[group[i]][t];
    return own;
  };
  std::vector<std::size_t> fitted;
  std::vector<double> basis, off_mean;
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    if (!(ppfd[i] > 0) || left_out[i]) continue;
    const Terms own = own_terms(i);
    fitted.push_back(i);
    basis.insert(basis.end(), own.begin(), own.end());
    off_mean.push_back(std::log(ppfd[i]) - mean[group[i]]);
  }
  LeastSquares odd(odd_terms, 1e-9);
  odd.add_all(basis, off_mean);
  odd.solve();
  const std::vector<double> variances = odd.variances_at(basis);
  for (std::size_t k = 0; k < fitted.size(); ++k) {
    const std::size_t i = fitted[k];
    if (members[group[i]] < 2) continue;
    const double own_share = 1 - 1.0 / members[group[i]] - variances[k];
    if (own_share < least_own_share) continue;
    SurfaceResidual& r = residuals[i];
    r.log_ratio = (off_mean[k] - odd.at(std::span(basis).subspan(k * odd_terms, odd_terms))) / own_share;
    r.leverage = 1 / own_share - 1;
  }
  return residuals;
}

}  // namespace sunbreak
