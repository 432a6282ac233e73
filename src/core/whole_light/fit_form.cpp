#include "core/whole_light/fit_form.h"

#include <algorithm>
#include <cmath>

#include "core/linear/products.h"
#include "core/linear/symmetric_solve.h"
#include "core/whole_light/bounded_quadratic.h"

namespace sunbreak {
namespace {

constexpr double most_expanded = 0.06;

Eigen::VectorXd solved(Eigen::MatrixXd form, Eigen::VectorXd right) {
  const auto n = static_cast<std::size_t>(right.size());
  factor_symmetric({form.data(), n * n}, n);
  solve_factored({form.data(), n * n}, {right.data(), n});
  return right;
}

}  // namespace

LobeFlux mix_of(const Eigen::VectorXd& flux) {
  LobeFlux mix;
  std::copy(flux.begin(), flux.end(), mix.begin());
  return mix;
}

bool FitForm::fixes_whole_light() const { return whole_light_expanded() <= most_expanded; }

double FitForm::whole_light_expanded() const {
  Eigen::VectorXd slopes = Eigen::VectorXd::Zero(form.rows());
  slopes.head(mixes).setOnes();
  return expanded(slopes) / best.flux.sum();
}

double FitForm::expanded(const Eigen::VectorXd& slopes) const {
  Eigen::VectorXd x0(form.rows());
  x0 << best.flux, best.values;
  const auto growth = [&](const Eigen::VectorXd& x) { return x.dot(times(form, x)) - 2 * pull.dot(x); };
  const double least = growth(x0);
  const double first = std::sqrt(reach2 / std::max(slopes.dot(solved(form, slopes)), 1e-300));
  double widest = 0;
  for (const double way : {1.0, -1.0}) {
    // min ½ growth − λ · slopes: the farthest point for what the form has grown by; √growth is nearly linear in λ.
    Eigen::VectorXd x = x0;
    double factor = first, low = 0, high = INFINITY, reach = 0;
    for (int round = 0; round < 40; ++round) {
      x = bounded_minimum(form, pull + way * factor * slopes, lower, upper, x);
      const double grown = std::max(growth(x) - least, 0.0);
      reach = std::abs(slopes.dot(x - x0));
      if (std::abs(grown / reach2 - 1) < 0.02) break;
      (grown < reach2 ? low : high) = factor;
      const double next = factor * std::sqrt(reach2 / std::max(grown, reach2 / 16));
      factor = next > low && next < high ? next : (low + high) / 2;
    }
    widest = std::max(widest, reach);
  }
  return widest;
}

}  // namespace sunbreak
