#pragma once

#include <cstddef>
#include <span>

namespace sunbreak {

/// Factors a symmetric matrix without negative eigenvalues, n × n row by row, in place as L D Lᵀ: D on the diagonal, L
/// below it. What stands above the diagonal is neither read nor written. A pivot that is nothing but rounding becomes
/// 0, and so does its unknown in solve_factored(). What is no number makes the solution none.
/// @return false where there is such a pivot, or what is no number
/// Source: Golub and Van Loan, Matrix Computations, 4.1.2.
bool factor_symmetric(std::span<double> matrix, std::size_t n);

/// Solves with those factors: the right side, of length n, becomes the solution.
void solve_factored(std::span<const double> factors, std::span<double> right);

/// The largest sum of a column's magnitudes: the norm of a symmetric matrix, n × n, of which the lower half is read.
double column_norm(std::span<const double> matrix, std::size_t n);

}  // namespace sunbreak
