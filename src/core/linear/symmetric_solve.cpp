#include "core/linear/symmetric_solve.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace sunbreak {

bool factor_symmetric(std::span<double> matrix, std::size_t n) {
  bool definite = true;
  for (std::size_t j = 0; j < n; ++j) {
    double* const row_j = &matrix[j * n];
    const double rounding = 4 * static_cast<double>(n) * std::numeric_limits<double>::epsilon() * std::fabs(row_j[j]);
    double pivot = row_j[j];
    for (std::size_t k = 0; k < j; ++k) pivot -= row_j[k] * row_j[k] * matrix[k * n + k];
    if (!(pivot > rounding)) definite = false;
    if (pivot <= rounding) pivot = 0;
    row_j[j] = pivot;
    for (std::size_t i = j + 1; i < n; ++i) {
      double* const row_i = &matrix[i * n];
      double rest = row_i[j];
      for (std::size_t k = 0; k < j; ++k) rest -= row_i[k] * row_j[k] * matrix[k * n + k];
      row_i[j] = pivot == 0 ? 0 : rest / pivot;
    }
  }
  return definite;
}

void solve_factored(std::span<const double> factors, std::span<double> right) {
  const std::size_t n = right.size();
  for (std::size_t i = 0; i < n; ++i)
    for (std::size_t k = 0; k < i; ++k) right[i] -= factors[i * n + k] * right[k];
  for (std::size_t i = 0; i < n; ++i) {
    const double pivot = factors[i * n + i];
    right[i] = pivot == 0 ? 0 : right[i] / pivot;
  }
  for (std::size_t i = n; i-- > 0;)
    for (std::size_t k = i + 1; k < n; ++k) right[i] -= factors[k * n + i] * right[k];
}

double column_norm(std::span<const double> matrix, std::size_t n) {
  double largest = 0;
  for (std::size_t j = 0; j < n; ++j) {
    double sum = 0;
    for (std::size_t i = 0; i < n; ++i) sum += std::fabs(i < j ? matrix[j * n + i] : matrix[i * n + j]);
    largest = std::max(largest, sum);
  }
  return largest;
}

}  // namespace sunbreak
