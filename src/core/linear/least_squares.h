#pragma once

#include <cstddef>
#include <span>
#include <vector>

namespace sunbreak {

/// The x for which the sum of weight · (value − terms · x)² is least, of few unknowns and many values, by its normal
/// equations N x = Σ weight · value · terms, N = Σ weight · terms · termsᵀ.
///
///   LeastSquares line(2);
///   for (const Point& p : points) line.add({{1, p.x}}, p.y);
///   if (line.solve()) draw(line.x()[0], line.x()[1]);
class LeastSquares {
 public:
  /// `ridge` is added to each place of N's diagonal: it holds what the values leave open near 0.
  explicit LeastSquares(std::size_t unknowns, double ridge = 0);

  /// One value; its terms are as many as there are unknowns.
  void add(std::span<const double> terms, double value, double weight = 1);
  /// Many values of weight 1; their terms stand one value's after another's.
  void add_all(std::span<const double> terms, std::span<const double> values);

  /// To be called once, after all values.
  /// @return false where they do not determine every unknown: those left open are 0 then
  bool solve();

  /// After solve(): the unknowns.
  const std::vector<double>& x() const { return x_; }
  /// After solve(): N⁻¹, by row and column. Times a value's variance it is the covariance of x.
  double inverse(std::size_t row, std::size_t column) const { return inverse_[row * count_ + column]; }
  /// After solve(): terms · N⁻¹ · terms, the variance of the fit in units of a value's, at places whose terms stand one
  /// place's after another's.
  std::vector<double> variances_at(std::span<const double> terms) const;
  /// After solve(): terms · x.
  double at(std::span<const double> terms) const;
  /// After solve(): 1 / (‖N‖ ‖N⁻¹‖) by the largest sums of a column, from 1, well determined, to 0.
  double reciprocal_condition() const { return reciprocal_condition_; }
  /// After solve(): the determinant of N.
  double determinant() const;

 private:
  std::size_t count_;
  std::vector<double> normal_, x_, inverse_;  ///< normal_: its lower half; in factors after solve()
  double reciprocal_condition_ = 0;
};

}  // namespace sunbreak
