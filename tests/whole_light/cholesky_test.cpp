#include "core/linear/cholesky.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>
#include <vector>

#include "core/linear/dense_kernel.h"
#include "core/processor.h"

namespace sunbreak {
namespace {

/// Those that the processor at hand can run.
std::vector<const DenseKernels*> copies() {
  std::vector<const DenseKernels*> all{&plain_dense_kernels};
  if (has_wide_vectors()) all.push_back(&wide_dense_kernels);
  if (has_widest_vectors()) all.push_back(&widest_dense_kernels);
  return all;
}

class Drawn {
 public:
  explicit Drawn(unsigned seed) : generator_(seed) {}
  Eigen::MatrixXd matrix(Eigen::Index rows, Eigen::Index columns) {
    return Eigen::MatrixXd::NullaryExpr(rows, columns, [&] { return uniform_(generator_); });
  }

 private:
  std::mt19937 generator_;
  std::uniform_real_distribution<> uniform_{-1, 1};
};

/// What stands above the diagonal is no number, so that none may read it.
Eigen::MatrixXd lower_half(Eigen::MatrixXd a) {
  a.triangularView<Eigen::StrictlyUpper>().setConstant(std::nan(""));
  return a;
}

/// Symmetric, eigenvalues well above 0.
Eigen::MatrixXd positive(const Eigen::MatrixXd& drawn) {
  return Eigen::MatrixXd(drawn.lazyProduct(drawn.transpose())) +
         0.5 * Eigen::MatrixXd::Identity(drawn.rows(), drawn.rows());
}

DenseColumns columns(Eigen::MatrixXd& m) { return {m.data(), static_cast<std::size_t>(m.rows())}; }

std::size_t size(Eigen::Index n) { return static_cast<std::size_t>(n); }

constexpr double rounding = 1e-11;

TEST(Cholesky, OfTwoByTwoByHand) {
  Eigen::MatrixXd a(2, 2);
  a << 4, std::nan(""), 2, 5;
  const Cholesky factors(a);
  // 4x + 2y = 8 and 2x + 5y = 12.
  const Eigen::VectorXd x = factors.solve(Eigen::Vector2d(8, 12));
  EXPECT_DOUBLE_EQ(x(0), 1);
  EXPECT_DOUBLE_EQ(x(1), 2);
  for (const DenseKernels* kernels : copies()) {
    Eigen::MatrixXd l = a;
    kernels->factor(2, columns(l));
    EXPECT_DOUBLE_EQ(l(0, 0), 2);
    EXPECT_DOUBLE_EQ(l(1, 0), 1);
    EXPECT_DOUBLE_EQ(l(1, 1), 2);
  }
}

TEST(Cholesky, GivesBackTheMatrixAndSolvesItForEveryProcessor) {
  Drawn draw(11);
  for (const Eigen::Index n : {1, 2, 7, 8, 9, 16, 23, 31, 40, 65, 97, 130}) {
    const Eigen::MatrixXd a = positive(draw.matrix(n, n)), half = lower_half(a);
    EXPECT_LT((Cholesky(half).matrix() - a).cwiseAbs().maxCoeff(), rounding * static_cast<double>(n));
    for (const DenseKernels* kernels : copies()) {
      Eigen::MatrixXd l = half;
      kernels->factor(size(n), columns(l));
      for (const Eigen::Index sides : {1, 2, 5, 25}) {
        const Eigen::MatrixXd x = draw.matrix(sides, n);
        Eigen::MatrixXd rows = x.lazyProduct(a);
        kernels->solve_rows(size(n), columns(l), size(sides), columns(rows));
        EXPECT_LT((rows - x).cwiseAbs().maxCoeff(), rounding * static_cast<double>(n)) << n << " of " << sides;
      }
      const Eigen::VectorXd x = draw.matrix(n, 1);
      Eigen::VectorXd right = a.lazyProduct(x);
      kernels->solve(size(n), columns(l), right.data());
      EXPECT_LT((right - x).cwiseAbs().maxCoeff(), rounding * static_cast<double>(n)) << n;
    }
  }
}

TEST(DenseKernel, AddsProductsOfEverySizeAndNothingBeside) {
  Drawn draw(12);
  for (const DenseKernels* kernels : copies())
    for (const Eigen::Index rows : {1, 3, 8, 13, 24, 29, 61})
      for (const Eigen::Index across : {1, 2, 3, 7, 8, 9, 19})
        for (const Eigen::Index inner : {0, 1, 5, 33}) {
          Eigen::MatrixXd a = draw.matrix(rows, inner), b = draw.matrix(inner, across), turned = b.transpose();
          // One row and column more on each side, which must stay.
          const Eigen::MatrixXd before = draw.matrix(rows + 2, across + 2);
          Eigen::MatrixXd plain = before, other = before;
          kernels->add_product(size(rows), size(across), size(inner), -2, columns(a), {b.data(), 1, size(inner)},
                               columns(plain).from(1, 1));
          kernels->add_product(size(rows), size(across), size(inner), -2, columns(a), {turned.data(), size(across), 1},
                               columns(other).from(1, 1));
          Eigen::MatrixXd expected = before;
          expected.block(1, 1, rows, across) -= 2 * Eigen::MatrixXd(a.lazyProduct(b));
          EXPECT_LT((plain - expected).cwiseAbs().maxCoeff(), rounding) << rows << ' ' << across << ' ' << inner;
          EXPECT_LT((other - expected).cwiseAbs().maxCoeff(), rounding) << rows << ' ' << across << ' ' << inner;
        }
}

TEST(DenseKernel, AddsUpRowsInSinglePrecision) {
  Drawn draw(13);
  for (const DenseKernels* kernels : copies())
    for (const Eigen::Index rows : {1, 3, 4, 7, 12})
      for (const Eigen::Index places : {0, 1, 5, 16, 37}) {
        const Eigen::MatrixXd turned = draw.matrix(places + 2, rows), x = draw.matrix(places, 1),
                              before = draw.matrix(rows, 1);
        const Eigen::MatrixXf a = turned.cast<float>(), x_single = x.cast<float>();
        Eigen::MatrixXf sums = before.cast<float>();
        kernels->add_rows(size(rows), size(places), a.data(), size(places + 2), x_single.data(), sums.data());
        const Eigen::MatrixXd expected = before + turned.topRows(places).transpose().lazyProduct(x);
        EXPECT_LT((sums.cast<double>() - expected).cwiseAbs().maxCoeff(), 1e-5) << rows << ' ' << places;
      }
}

}  // namespace
}  // namespace sunbreak
