#pragma once

#include <Eigen/Core>

namespace sunbreak {

/// A symmetric matrix A with positive eigenvalues, factored as L Lᵀ: made once in n³/3 steps, then asked for many right
/// sides. A matrix without such eigenvalues gives what is no number.
/// Source: Golub and Van Loan, Matrix Computations, 4.2.
class Cholesky {
 public:
  Cholesky() = default;
  /// Of A, n × n, the lower half is read.
  explicit Cholesky(Eigen::MatrixXd matrix);

  /// x with A x = right.
  Eigen::VectorXd solve(Eigen::VectorXd right) const;
  /// The same of many right sides, each a row, in the rows.
  Eigen::MatrixXd solve_rows(Eigen::MatrixXd rights) const;
  /// A itself.
  Eigen::MatrixXd matrix() const;

 private:
  Eigen::MatrixXd lower_;  ///< L; above the diagonal it means nothing
};

}  // namespace sunbreak
