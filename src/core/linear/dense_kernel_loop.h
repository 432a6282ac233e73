#pragma once

#include <algorithm>
#include <cmath>
#include <cstring>

#include "core/linear/dense_kernel.h"

/// The innermost loops, included by one file for each kind of processor that they are compiled for.
namespace sunbreak {
namespace {

#if defined(__AVX512F__)
constexpr std::size_t lanes = 8, tile_vectors = 3, tile_columns = 8;
#elif defined(__AVX2__)
constexpr std::size_t lanes = 4, tile_vectors = 3, tile_columns = 4;
#else
constexpr std::size_t lanes = 2, tile_vectors = 2, tile_columns = 4;
#endif
typedef double Lanes __attribute__((vector_size(lanes * sizeof(double))));

/// From so few columns on they are factored one by one.
constexpr std::size_t few = 8;
/// Columns of which only what lies below their first is brought up to date.
constexpr std::size_t strip = 32;

/// Adds to a tile of c as many rows and columns as the sums of it that the processor holds.
template <typename Vector, std::size_t vectors, std::size_t columns>
inline void add_tile(std::size_t inner, double alpha, ConstDenseColumns a, DenseFactor b, DenseColumns c) {
  constexpr std::size_t width = sizeof(Vector) / sizeof(double);
  Vector sums[columns][vectors] = {};
  for (std::size_t k = 0; k < inner; ++k) {
    Vector rows[vectors];
#pragma GCC unroll 3
    for (std::size_t v = 0; v < vectors; ++v) std::memcpy(&rows[v], a.at + k * a.stride + v * width, sizeof(Vector));
#pragma GCC unroll 8
    for (std::size_t j = 0; j < columns; ++j) {
      const double times = b.at[k * b.row + j * b.column];
#pragma GCC unroll 3
      for (std::size_t v = 0; v < vectors; ++v) sums[j][v] += rows[v] * times;
    }
  }
#pragma GCC unroll 8
  for (std::size_t j = 0; j < columns; ++j)
#pragma GCC unroll 3
    for (std::size_t v = 0; v < vectors; ++v) {
      double* const to = c.at + j * c.stride + v * width;
      Vector now;
      std::memcpy(&now, to, sizeof(Vector));
      now += sums[j][v] * alpha;
      std::memcpy(to, &now, sizeof(Vector));
    }
}

template <std::size_t columns>
inline void add_columns(std::size_t rows, std::size_t inner, double alpha, ConstDenseColumns a, DenseFactor b,
                        DenseColumns c) {
  std::size_t i = 0;
  for (; i + tile_vectors * lanes <= rows; i += tile_vectors * lanes)
    add_tile<Lanes, tile_vectors, columns>(inner, alpha, a.from(i, 0), b, c.from(i, 0));
  for (; i + lanes <= rows; i += lanes) add_tile<Lanes, 1, columns>(inner, alpha, a.from(i, 0), b, c.from(i, 0));
  for (; i < rows; ++i) add_tile<double, 1, columns>(inner, alpha, a.from(i, 0), b, c.from(i, 0));
}

void add_product_in_loop(std::size_t rows, std::size_t columns, std::size_t inner, double alpha, ConstDenseColumns a,
                         DenseFactor b, DenseColumns c) {
  const auto of_b = [&](std::size_t column) { return DenseFactor{b.at + column * b.column, b.row, b.column}; };
  std::size_t j = 0;
  for (; j + tile_columns <= columns; j += tile_columns)
    add_columns<tile_columns>(rows, inner, alpha, a, of_b(j), c.from(0, j));
  for (; j + 2 <= columns; j += 2) add_columns<2>(rows, inner, alpha, a, of_b(j), c.from(0, j));
  if (j < columns) add_columns<1>(rows, inner, alpha, a, of_b(j), c.from(0, j));
}

/// Lᵀ's part that stands in rows `row` and below of L, for products from the right.
inline DenseFactor turned(ConstDenseColumns l, std::size_t row) { return {l.at + row, l.stride, 1}; }

/// Factors n columns of a, with all their rows from the diagonal down: first the left half, by which the right is then
/// brought up to date.
void factor_columns(std::size_t rows, std::size_t n, DenseColumns a) {
  if (n <= few) {
    for (std::size_t j = 0; j < n; ++j) {
      double* const column = a.at + j * a.stride;
      for (std::size_t k = 0; k < j; ++k) {
        const double* const earlier = a.at + k * a.stride;
        const double times = earlier[j];
#pragma omp simd
        for (std::size_t i = j; i < rows; ++i) column[i] -= times * earlier[i];
      }
      const double root = std::sqrt(column[j]), inverse = 1 / root;
      column[j] = root;
#pragma omp simd
      for (std::size_t i = j + 1; i < rows; ++i) column[i] *= inverse;
    }
    return;
  }
  const std::size_t half = std::max(few, n / 2 / few * few);
  factor_columns(rows, half, a);
  for (std::size_t j = half; j < n; j += strip)
    add_product_in_loop(rows - j, std::min(strip, n - j), half, -1, a.from(j, 0), turned(a, j), a.from(j, j));
  factor_columns(rows - half, n - half, a.from(half, half));
}

void factor_in_loop(std::size_t n, DenseColumns a) { factor_columns(n, n, a); }

/// Y Lᵀ = the right sides, then X L = Y: a few columns at a time.
void solve_rows_in_loop(std::size_t n, ConstDenseColumns l, std::size_t count, DenseColumns rights) {
  const auto subtract = [&](std::size_t from, double times, std::size_t to) {
    const double* const known = rights.at + from * rights.stride;
    double* const column = rights.at + to * rights.stride;
#pragma omp simd
    for (std::size_t i = 0; i < count; ++i) column[i] -= times * known[i];
  };
  const auto divide = [&](std::size_t j) {
    const double inverse = 1 / l.at[j + j * l.stride];
    double* const column = rights.at + j * rights.stride;
#pragma omp simd
    for (std::size_t i = 0; i < count; ++i) column[i] *= inverse;
  };
  for (std::size_t first = 0; first < n; first += few) {
    const std::size_t end = std::min(first + few, n);
    add_product_in_loop(count, end - first, first, -1, rights, turned(l, first), rights.from(0, first));
    for (std::size_t j = first; j < end; ++j) {
      for (std::size_t k = first; k < j; ++k) subtract(k, l.at[j + k * l.stride], j);
      divide(j);
    }
  }
  for (std::size_t end = n; end > 0;) {
    const std::size_t first = (end - 1) / few * few;
    add_product_in_loop(count, end - first, n - end, -1, rights.from(0, end),
                        {l.at + end + first * l.stride, 1, l.stride}, rights.from(0, first));
    for (std::size_t j = end; j-- > first;) {
      for (std::size_t k = j + 1; k < end; ++k) subtract(k, l.at[k + j * l.stride], j);
      divide(j);
    }
    end = first;
  }
}

/// Four columns of L that are looked at together.
struct FourColumns {
  const double *a, *b, *c, *d;
  FourColumns(ConstDenseColumns l, std::size_t first)
      : a(l.at + first * l.stride), b(a + l.stride), c(b + l.stride), d(c + l.stride) {}
};

void solve_in_loop(std::size_t n, ConstDenseColumns l, double* right) {
  const auto place = [&](std::size_t i, std::size_t j) { return l.at[i + j * l.stride]; };
  const std::size_t fours = n / 4 * 4;
  // Within columns first to end, of which the rows below follow.
  const auto down = [&](std::size_t first, std::size_t end) {
    for (std::size_t j = first; j < end; ++j) {
      right[j] /= place(j, j);
      for (std::size_t i = j + 1; i < end; ++i) right[i] -= right[j] * place(i, j);
    }
  };
  const auto up = [&](std::size_t first, std::size_t end) {
    for (std::size_t j = end; j-- > first;) {
      for (std::size_t i = j + 1; i < end; ++i) right[j] -= right[i] * place(i, j);
      right[j] /= place(j, j);
    }
  };
  for (std::size_t first = 0; first < fours; first += 4) {
    down(first, first + 4);
    const FourColumns of(l, first);
    const double p = right[first], q = right[first + 1], r = right[first + 2], s = right[first + 3];
#pragma omp simd
    for (std::size_t i = first + 4; i < n; ++i) right[i] -= p * of.a[i] + q * of.b[i] + r * of.c[i] + s * of.d[i];
  }
  down(fours, n);
  up(fours, n);
  for (std::size_t end = fours; end > 0; end -= 4) {
    const std::size_t first = end - 4;
    const FourColumns of(l, first);
    double p = 0, q = 0, r = 0, s = 0;
#pragma omp simd reduction(+ : p, q, r, s)
    for (std::size_t i = end; i < n; ++i) {
      p += of.a[i] * right[i];
      q += of.b[i] * right[i];
      r += of.c[i] * right[i];
      s += of.d[i] * right[i];
    }
    right[first] -= p, right[first + 1] -= q, right[first + 2] -= r, right[first + 3] -= s;
    up(first, end);
  }
}

inline void add_rows_in_loop(std::size_t rows, std::size_t n, const float* a, std::size_t stride, const float* x,
                             float* sums) {
  std::size_t row = 0;
  for (; row + 4 <= rows; row += 4) {
    const float *const a0 = a + row * stride, *const a1 = a0 + stride, *const a2 = a1 + stride, *const a3 = a2 + stride;
    float p = 0, q = 0, r = 0, s = 0;
#pragma omp simd reduction(+ : p, q, r, s)
    for (std::size_t i = 0; i < n; ++i) p += a0[i] * x[i], q += a1[i] * x[i], r += a2[i] * x[i], s += a3[i] * x[i];
    sums[row] += p, sums[row + 1] += q, sums[row + 2] += r, sums[row + 3] += s;
  }
  for (; row < rows; ++row) {
    const float* const own = a + row * stride;
    float p = 0;
#pragma omp simd reduction(+ : p)
    for (std::size_t i = 0; i < n; ++i) p += own[i] * x[i];
    sums[row] += p;
  }
}

constexpr DenseKernels kernels_in_loop{add_product_in_loop, factor_in_loop, solve_rows_in_loop, solve_in_loop,
                                       add_rows_in_loop};

}  // namespace
}  // namespace sunbreak
