#include "core/whole_light/bounded_quadratic.h"

#include <algorithm>
#include <cmath>
#include <vector>

#include "core/linear/products.h"
#include "core/linear/symmetric_solve.h"

namespace sunbreak {
namespace {

/// The solution of H x = right over the unknowns of a set alone: a value each, in its order.
std::vector<double> solved_part(const Eigen::MatrixXd& h, const Eigen::VectorXd& right,
                                const std::vector<Eigen::Index>& set) {
  std::vector<double> lower(set.size() * set.size()), x;
  for (std::size_t row = 0; row < set.size(); ++row) {
    for (std::size_t column = 0; column <= row; ++column) lower[row * set.size() + column] = h(set[row], set[column]);
    x.push_back(right(set[row]));
  }
  factor_symmetric(lower, set.size());
  solve_factored(lower, x);
  return x;
}

}  // namespace

Eigen::VectorXd bounded_minimum(const Eigen::MatrixXd& h, const Eigen::VectorXd& g, const Eigen::VectorXd& lower,
                                const Eigen::VectorXd& upper, const Eigen::VectorXd& start) {
  const Eigen::Index n = g.size();
  Eigen::VectorXd x = start.cwiseMax(lower).cwiseMin(upper);
  std::vector<bool> free(static_cast<std::size_t>(n));
  for (Eigen::Index i = 0; i < n; ++i) free[static_cast<std::size_t>(i)] = x(i) > lower(i) && x(i) < upper(i);
  const double tolerance = 1e-11 * std::max(g.cwiseAbs().maxCoeff(), 1e-300);
  std::vector<Eigen::Index> set;
  for (Eigen::Index round = 0; round < 40 * n; ++round) {
    set.clear();
    for (Eigen::Index i = 0; i < n; ++i)
      if (free[static_cast<std::size_t>(i)]) set.push_back(i);
    if (!set.empty()) {
      const std::vector<double> step = solved_part(h, g - times(h, x), set);
      // As far as the first bound.
      double share = 1;
      std::size_t stopped = set.size();
      for (std::size_t k = 0; k < set.size(); ++k) {
        const double to = x(set[k]) + step[k], low = lower(set[k]), high = upper(set[k]);
        if (to >= low && to <= high) continue;
        const double reach = ((to < low ? low : high) - x(set[k])) / step[k];
        if (reach < share) share = std::max(reach, 0.0), stopped = k;
      }
      for (std::size_t k = 0; k < set.size(); ++k) x(set[k]) += share * step[k];
      if (stopped < set.size()) {
        const Eigen::Index i = set[stopped];
        x(i) = step[stopped] < 0 ? lower(i) : upper(i);
        free[static_cast<std::size_t>(i)] = false;
        continue;
      }
    }
    // The least of this face: whichever bound holds back most is let go of.
    const Eigen::VectorXd rest = g - times(h, x);
    Eigen::Index most = -1;
    double wish = 0;
    for (Eigen::Index i = 0; i < n; ++i) {
      if (free[static_cast<std::size_t>(i)] || upper(i) <= lower(i)) continue;
      const double inward = x(i) <= lower(i) ? rest(i) : -rest(i), scaled = inward / std::sqrt(h(i, i));
      if (inward > tolerance && scaled > wish) wish = scaled, most = i;
    }
    if (most < 0) break;
    free[static_cast<std::size_t>(most)] = true;
  }
  return x;
}

}  // namespace sunbreak
