#include "core/whole_light/bounded_quadratic.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>
#include <vector>

namespace sunbreak {

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
    const Eigen::VectorXd pull = g - h * x;
    if (!set.empty()) {
      const Eigen::MatrixXd part = h(set, set);
      const Eigen::VectorXd step = part.ldlt().solve(pull(set));
      // As far as the first bound.
      double share = 1;
      std::size_t stopped = set.size();
      for (std::size_t k = 0; k < set.size(); ++k) {
        const double to = x(set[k]) + step(static_cast<Eigen::Index>(k)), low = lower(set[k]), high = upper(set[k]);
        if (to >= low && to <= high) continue;
        const double reach = ((to < low ? low : high) - x(set[k])) / step(static_cast<Eigen::Index>(k));
        if (reach < share) share = std::max(reach, 0.0), stopped = k;
      }
      for (std::size_t k = 0; k < set.size(); ++k) x(set[k]) += share * step(static_cast<Eigen::Index>(k));
      if (stopped < set.size()) {
        const Eigen::Index i = set[stopped];
        x(i) = step(static_cast<Eigen::Index>(stopped)) < 0 ? lower(i) : upper(i);
        free[static_cast<std::size_t>(i)] = false;
        continue;
      }
    }
    // The least of this face: whichever bound holds back most is let go of.
    const Eigen::VectorXd rest = g - h * x;
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
