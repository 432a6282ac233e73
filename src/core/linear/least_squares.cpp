#include "core/linear/least_squares.h"

#include <numeric>

#include "core/linear/dense_kernel.h"
#include "core/linear/symmetric_solve.h"

namespace sunbreak {

LeastSquares::LeastSquares(std::size_t unknowns, double ridge)
    : count_(unknowns), normal_(unknowns * unknowns, 0), x_(unknowns, 0) {
  for (std::size_t i = 0; i < unknowns; ++i) normal_[i * unknowns + i] = ridge;
}

void LeastSquares::add(std::span<const double> terms, double value, double weight) {
  for (std::size_t i = 0; i < count_; ++i) {
    const double weighted = weight * terms[i];
    x_[i] += weighted * value;
    double* const row = &normal_[i * count_];
    for (std::size_t j = 0; j <= i; ++j) row[j] += weighted * terms[j];
  }
}

void LeastSquares::add_all(std::span<const double> terms, std::span<const double> values) {
  // A place's terms are a column of a matrix: N += terms · termsᵀ.
  dense_kernels().add_product(count_, count_, values.size(), 1, {terms.data(), count_}, {terms.data(), count_, 1},
                              {normal_.data(), count_});
  dense_kernels().add_product(count_, 1, values.size(), 1, {terms.data(), count_}, {values.data(), 1, 0},
                              {x_.data(), count_});
}

bool LeastSquares::solve() {
  const double norm = column_norm(normal_, count_);
  const bool determined = factor_symmetric(normal_, count_);
  solve_factored(normal_, x_);
  inverse_.assign(count_ * count_, 0);
  for (std::size_t i = 0; i < count_; ++i) {
    const std::span<double> row(&inverse_[i * count_], count_);
    row[i] = 1;
    solve_factored(normal_, row);
  }
  reciprocal_condition_ = determined ? 1 / (norm * column_norm(inverse_, count_)) : 0;
  return determined;
}

std::vector<double> LeastSquares::variances_at(std::span<const double> terms) const {
  const std::size_t places = terms.size() / count_;
  std::vector<double> turned(terms.size(), 0), variances(places);
  dense_kernels().add_product(count_, places, count_, 1, {inverse_.data(), count_}, {terms.data(), 1, count_},
                              {turned.data(), count_});
  for (std::size_t i = 0; i < places; ++i) {
    const auto own = terms.subspan(i * count_, count_);
    variances[i] = std::inner_product(own.begin(), own.end(), &turned[i * count_], 0.0);
  }
  return variances;
}

double LeastSquares::at(std::span<const double> terms) const {
  return std::inner_product(terms.begin(), terms.end(), x_.begin(), 0.0);
}

double LeastSquares::determinant() const {
  double product = 1;
  for (std::size_t i = 0; i < count_; ++i) product *= normal_[i * count_ + i];
  return product;
}

}  // namespace sunbreak
