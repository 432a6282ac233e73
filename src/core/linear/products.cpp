#include "core/linear/products.h"

#include "core/linear/dense_kernel.h"

namespace sunbreak {
namespace {

std::size_t size(Eigen::Index n) { return static_cast<std::size_t>(n); }

using ConstMatrix = Eigen::Ref<const Eigen::MatrixXd>;

ConstDenseColumns columns(const ConstMatrix& a) { return {a.data(), size(a.outerStride())}; }

}  // namespace

void add_product(double alpha, const ConstMatrix& a, const ConstMatrix& b, Eigen::Ref<Eigen::MatrixXd> sum) {
  dense_kernels().add_product(size(a.rows()), size(b.cols()), size(a.cols()), alpha, columns(a),
                              {b.data(), 1, size(b.outerStride())}, {sum.data(), size(sum.outerStride())});
}

void add_square(const ConstMatrix& a, Eigen::Ref<Eigen::MatrixXd> sum) {
  dense_kernels().add_product(size(a.rows()), size(a.rows()), size(a.cols()), 1, columns(a),
                              {a.data(), size(a.outerStride()), 1}, {sum.data(), size(sum.outerStride())});
}

Eigen::VectorXd times(const ConstMatrix& a, const Eigen::Ref<const Eigen::VectorXd>& x) {
  Eigen::VectorXd sum = Eigen::VectorXd::Zero(a.rows());
  dense_kernels().add_product(size(a.rows()), 1, size(a.cols()), 1, columns(a), {x.data(), 1, size(x.size())},
                              {sum.data(), size(sum.size())});
  return sum;
}

Eigen::VectorXd turned_times(const ConstMatrix& a, const Eigen::Ref<const Eigen::VectorXd>& x) {
  Eigen::VectorXd product(a.cols());
  for (Eigen::Index j = 0; j < a.cols(); ++j) product(j) = a.col(j).dot(x);
  return product;
}

}  // namespace sunbreak
