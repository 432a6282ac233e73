#pragma once

#include <cstddef>

namespace sunbreak {

/// A part of a matrix that is kept column by column: (i, j) stands at i + j · stride.
template <typename Number>
struct ColumnsOf {
  Number* at;
  std::size_t stride;
  ColumnsOf from(std::size_t row, std::size_t column) const { return {at + row + column * stride, stride}; }
  operator ColumnsOf<const Number>() const { return {at, stride}; }
};
using DenseColumns = ColumnsOf<double>;
using ConstDenseColumns = ColumnsOf<const double>;

/// A factor that is looked up place by place: (i, j) stands at i · row + j · column.
struct DenseFactor {
  const double* at;
  std::size_t row, column;
};

/// Copies of the innermost loops of dense matrices for one kind of processor each.
struct DenseKernels {
  /// c (rows × columns) += alpha · a (rows × inner) · b (inner × columns). None lies over another.
  void (*add_product)(std::size_t rows, std::size_t columns, std::size_t inner, double alpha, ConstDenseColumns a,
                      DenseFactor b, DenseColumns c);
  /// Makes L, a = L Lᵀ, of the lower half of a symmetric matrix n × n, in place; what stands above the diagonal means
  /// nothing afterwards.
  void (*factor)(std::size_t n, DenseColumns a);
  /// Each of `count` rows of `rights`, of length n, becomes the solution with L Lᵀ.
  void (*solve_rows)(std::size_t n, ConstDenseColumns l, std::size_t count, DenseColumns rights);
  /// One right side becomes the solution with L Lᵀ.
  void (*solve)(std::size_t n, ConstDenseColumns l, double* right);
  /// sums[row] += Σ a[row · stride + i] · x[i] over the first n places of each row, in single precision.
  void (*add_rows)(std::size_t rows, std::size_t n, const float* a, std::size_t stride, const float* x, float* sums);
};
extern const DenseKernels plain_dense_kernels;
extern const DenseKernels wide_dense_kernels;    ///< vectors of 256 bits
extern const DenseKernels widest_dense_kernels;  ///< of 512 bits

/// The copy for the processor at hand.
const DenseKernels& dense_kernels();

}  // namespace sunbreak
