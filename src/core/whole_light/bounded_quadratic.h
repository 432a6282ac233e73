#pragma once

#include <Eigen/Core>

namespace sunbreak {

/// Minimizes ½ xᵀHx − gᵀx with lower ≤ x ≤ upper, H symmetric and positive definite: the normal equations of a least
/// squares problem, some of whose unknowns may not be negative. Exact within rounding, by sets of unknowns that are
/// held at a bound. `start` only makes it faster.
Eigen::VectorXd bounded_minimum(const Eigen::MatrixXd& h, const Eigen::VectorXd& g, const Eigen::VectorXd& lower,
                                const Eigen::VectorXd& upper, const Eigen::VectorXd& start);

}  // namespace sunbreak
