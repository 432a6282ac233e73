#pragma once

#include <cmath>

namespace sunbreak {

/// Share of the beta distribution of parameters a, b that lies below x (0 … 1): the regularized incomplete beta
/// function by its continued fraction (Lentz). Source: NIST DLMF 8.17.22.
inline double beta_below(double a, double b, double x) {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - beta_below(b, a, 1 - x);
  constexpr double tiny = 1e-300;
  double c = 1, d = 1 - (a + b) * x / (a + 1);
  d = 1 / (std::fabs(d) < tiny ? tiny : d);
  double fraction = d;
  for (int m = 1; m < 300; ++m) {
    const auto step = [&](double numerator) {
      d = 1 + numerator * d;
      c = 1 + numerator / c;
      d = 1 / (std::fabs(d) < tiny ? tiny : d);
      if (std::fabs(c) < tiny) c = tiny;
      fraction *= d * c;
    };
    step(m * (b - m) * x / ((a + 2 * m - 1) * (a + 2 * m)));
    const double before = fraction;
    step(-(a + m) * (a + b + m) * x / ((a + 2 * m) * (a + 2 * m + 1)));
    if (m > 2 && std::fabs(fraction - before) < 1e-15 * std::fabs(fraction)) break;
  }
  const double front = std::lgamma(a + b) - std::lgamma(a) - std::lgamma(b) + a * std::log(x) + b * std::log1p(-x);
  return std::exp(front) * fraction / a;
}

/// Share of Student's distribution with `freedom` degrees of freedom that lies below t.
inline double student_below(double t, double freedom) {
  const double tail = 0.5 * beta_below(freedom / 2, 0.5, freedom / (freedom + t * t));
  return t > 0 ? 1 - tail : tail;
}

/// Where Student's distribution lies below with a chance of `share` (0 … 1, ends excluded), by halving.
inline double student_quantile(double share, double freedom) {
  double low = -1e4, high = 1e4;
  for (int i = 0; i < 80; ++i) {
    const double middle = (low + high) / 2;
    (student_below(middle, freedom) < share ? low : high) = middle;
  }
  return (low + high) / 2;
}

/// By what a standard uncertainty with so many degrees of freedom is multiplied so that the interval holds the truth in
/// 95.45 %, as k = 2 does of many. Source: JCGM 100, G.3.
inline double coverage_factor(double freedom) { return student_quantile(0.97725, freedom); }

/// Where the chi-squared distribution lies below with a chance of `share`: Wilson and Hilferty's cube.
inline double chi_squared_quantile(double normal_deviate, double freedom) {
  const double a = 2 / (9 * freedom), root = 1 - a + normal_deviate * std::sqrt(a);
  return freedom * root * root * root;
}

}  // namespace sunbreak
