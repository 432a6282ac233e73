#include "core/linear/least_squares.h"

#include <array>
#include <cmath>

#include "core/linear/symmetric_solve.h"

namespace sunbreak {
namespace {

using Row = std::vector<double>;

TEST(SymmetricSolve, FactorsAreThoseWorkedByHand) {
  // [4 2; 2 3] = L D Lᵀ with L = [1; ½ 1], D = (4, 2). What stands above the diagonal is not looked at.
  std::array<double, 4> matrix{4, 99, 2, 3};
  ASSERT_TRUE(factor_symmetric(matrix, 2));
  EXPECT_EQ(matrix, (std::array<double, 4>{4, 99, 0.5, 2}));
  std::array<double, 2> right{8, 8};
  solve_factored(matrix, right);
  EXPECT_DOUBLE_EQ(right[0], 1);
  EXPECT_DOUBLE_EQ(right[1], 2);
  EXPECT_EQ(column_norm(std::array<double, 4>{4, 99, 2, 3}, 2), 6);
}

TEST(SymmetricSolve, WhatIsLeftOpenIsZero) {
  // The second unknown is the first again: their sum alone is determined.
  std::array<double, 9> matrix{1, 0, 0, 1, 1, 0, 0, 0, 2};
  EXPECT_FALSE(factor_symmetric(matrix, 3));
  std::array<double, 3> right{5, 5, 4};
  solve_factored(matrix, right);
  EXPECT_EQ(right, (std::array<double, 3>{5, 0, 2}));
}

TEST(SymmetricSolve, WhatIsNoNumberMakesNoSolution) {
  std::array<double, 4> none{1, 0, NAN, 1};
  EXPECT_FALSE(factor_symmetric(none, 2));
  std::array<double, 2> right{1, 1};
  solve_factored(none, right);
  EXPECT_TRUE(std::isnan(right[0]));
  EXPECT_TRUE(std::isnan(right[1]));
}

TEST(LeastSquaresTest, ALineByHand) {
  // (0, 1), (1, 3), (2, 4): slope 3/2, intercept 7/6; N = [3 3; 3 5], N⁻¹ = [5 −3; −3 3] / 6.
  LeastSquares line(2);
  for (const auto& [x, y] : {std::pair{0.0, 1.0}, {1.0, 3.0}, {2.0, 4.0}}) line.add({{1, x}}, y);
  ASSERT_TRUE(line.solve());
  EXPECT_NEAR(line.x()[0], 7.0 / 6, 1e-14);
  EXPECT_NEAR(line.x()[1], 1.5, 1e-14);
  EXPECT_NEAR(line.at({{1, 4.0}}), 7.0 / 6 + 6, 1e-14);
  EXPECT_NEAR(line.inverse(0, 0), 5.0 / 6, 1e-14);
  EXPECT_NEAR(line.inverse(0, 1), -0.5, 1e-14);
  EXPECT_NEAR(line.inverse(1, 0), -0.5, 1e-14);
  EXPECT_NEAR(line.variances_at({{1, 1.0}})[0], 1.0 / 3, 1e-14) << "in the middle of three: a third of a value's";
  EXPECT_NEAR(line.determinant(), 6, 1e-13);
  EXPECT_NEAR(line.reciprocal_condition(), 1 / (8 * (8.0 / 6)), 1e-14);
}

TEST(LeastSquaresTest, AWeightIsAValueTakenSoManyTimes) {
  LeastSquares weighted(2), repeated(2);
  const std::vector<std::pair<double, double>> points{{0.3, 1.7}, {1.1, 2.2}, {2.9, -0.4}, {4.0, 0.1}};
  for (std::size_t i = 0; i < points.size(); ++i) {
    const auto [x, y] = points[i];
    weighted.add({{1, x}}, y, static_cast<double>(i + 1));
    for (std::size_t k = 0; k <= i; ++k) repeated.add({{1, x}}, y);
  }
  ASSERT_TRUE(weighted.solve());
  ASSERT_TRUE(repeated.solve());
  for (std::size_t i = 0; i < 2; ++i) EXPECT_NEAR(weighted.x()[i], repeated.x()[i], 1e-13);
}

TEST(LeastSquaresTest, ManyAtOnceAreThoseOneByOne) {
  constexpr std::size_t unknowns = 5, count = 37;
  std::vector<double> terms, values;
  for (std::size_t i = 0; i < count; ++i) {
    const double x = static_cast<double>(i) / count;
    for (const double term : {1.0, x, std::sin(7 * x), std::cos(11 * x), x * x}) terms.push_back(term);
    values.push_back(3 * x - std::exp(x));
  }
  LeastSquares one_by_one(unknowns, 0.01), at_once(unknowns, 0.01);
  const auto of = [&](std::size_t i) { return std::span(terms).subspan(i * unknowns, unknowns); };
  for (std::size_t i = 0; i < count; ++i) one_by_one.add(of(i), values[i]);
  at_once.add_all(std::span(terms).first(20 * unknowns), std::span(values).first(20));
  at_once.add_all(std::span(terms).subspan(20 * unknowns), std::span(values).subspan(20));
  ASSERT_TRUE(one_by_one.solve());
  ASSERT_TRUE(at_once.solve());
  const std::vector<double> variances = at_once.variances_at(terms);
  ASSERT_EQ(variances.size(), count);
  for (std::size_t i = 0; i < count; ++i) {
    EXPECT_NEAR(at_once.at(of(i)), one_by_one.at(of(i)), 1e-11);
    double variance = 0;
    for (std::size_t row = 0; row < unknowns; ++row)
      for (std::size_t column = 0; column < unknowns; ++column)
        variance += of(i)[row] * one_by_one.inverse(row, column) * of(i)[column];
    EXPECT_NEAR(variances[i], variance, 1e-11);
  }
}

TEST(LeastSquaresTest, ARidgeHoldsWhatIsLeftOpenNearZero) {
  LeastSquares open(2), held(2, 1e-9);
  for (LeastSquares* fit : {&open, &held})
    for (const double x : {1.0, 2.0}) fit->add({{x, x}}, 2 * x);
  EXPECT_FALSE(open.solve());
  EXPECT_EQ(open.reciprocal_condition(), 0);
  EXPECT_NEAR(open.x()[0] + open.x()[1], 2, 1e-12);
  ASSERT_TRUE(held.solve());
  EXPECT_NEAR(held.x()[0], 1, 1e-6) << "shared alike";
  EXPECT_NEAR(held.x()[1], 1, 1e-6);
}

RC_GTEST_PROP(LeastSquaresProperty, RestsStandUprightOnTheTerms, ()) {
  const auto unknowns = *rc::gen::inRange<std::size_t>(1, 7);
  const auto values = unknowns + *rc::gen::inRange<std::size_t>(2, 20);
  const auto number = [] { return *rc::gen::inRange(-1000, 1001) / 100.0; };
  std::vector<Row> terms;
  Row y, weights;
  LeastSquares fit(unknowns);
  for (std::size_t i = 0; i < values; ++i) {
    Row row;
    for (std::size_t k = 0; k < unknowns; ++k) row.push_back(number());
    terms.push_back(row);
    y.push_back(number());
    weights.push_back(0.5 + std::fabs(number()));
    fit.add(row, y.back(), weights.back());
  }
  if (!fit.solve() || fit.reciprocal_condition() < 1e-8) RC_DISCARD("not determined");
  for (std::size_t k = 0; k < unknowns; ++k) {
    double sum = 0, size = 1e-9;
    for (std::size_t i = 0; i < values; ++i) {
      const double part = weights[i] * terms[i][k] * (y[i] - fit.at(terms[i]));
      sum += part, size += std::fabs(part);
    }
    RC_ASSERT(std::fabs(sum) < 1e-6 * size + 1e-6);
  }
  // The shares of their own that values have in the fit come to as many as there are unknowns.
  double shares = 0;
  for (std::size_t i = 0; i < values; ++i) shares += weights[i] * fit.variances_at(terms[i])[0];
  RC_ASSERT(std::fabs(shares - static_cast<double>(unknowns)) < 1e-5);
}

}  // namespace
}  // namespace sunbreak
