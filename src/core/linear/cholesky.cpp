#include "core/linear/cholesky.h"

#include "core/linear/dense_kernel.h"
#include "core/linear/products.h"

namespace sunbreak {
namespace {

DenseColumns columns_of(Eigen::MatrixXd& m) { return {m.data(), static_cast<std::size_t>(m.outerStride())}; }
ConstDenseColumns columns_of(const Eigen::MatrixXd& m) { return {m.data(), static_cast<std::size_t>(m.outerStride())}; }

std::size_t count(Eigen::Index n) { return static_cast<std::size_t>(n); }

}  // namespace

Cholesky::Cholesky(Eigen::MatrixXd matrix) : lower_(std::move(matrix)) {
  dense_kernels().factor(count(lower_.rows()), columns_of(lower_));
}

Eigen::VectorXd Cholesky::solve(Eigen::VectorXd right) const {
  dense_kernels().solve(count(lower_.rows()), columns_of(lower_), right.data());
  return right;
}

Eigen::MatrixXd Cholesky::solve_rows(Eigen::MatrixXd rights) const {
  dense_kernels().solve_rows(count(lower_.rows()), columns_of(lower_), count(rights.rows()), columns_of(rights));
  return rights;
}

Eigen::MatrixXd Cholesky::matrix() const {
  const Eigen::MatrixXd l = lower_.triangularView<Eigen::Lower>();
  Eigen::MatrixXd a = Eigen::MatrixXd::Zero(l.rows(), l.cols());
  add_square(l, a);
  return a;
}

}  // namespace sunbreak
