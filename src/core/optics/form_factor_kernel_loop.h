#pragma once

#include <cmath>

#include "core/optics/form_factor_kernel.h"
#include "core/optics/vector_math.h"

/// The innermost loops, included by one file for each kind of processor that they are compiled for.
namespace sunbreak {
namespace {

constexpr double half_turn_inverse = 0.15915494309189535;

inline void parallel_in_loop(const CornerLine& line, double* __restrict out) {
  const double* __restrict x = line.along_m;
  const double h2 = line.distance_m * line.distance_m, y = line.across_m;
  const double b = std::sqrt(h2 + y * y), y_part = y / b;
#pragma omp simd
  for (std::size_t i = 0; i < line.count; ++i) {
    const double a2 = h2 + x[i] * x[i], a = std::sqrt(a2);
    out[i] = half_turn_inverse * (x[i] / a * fast_arctan(y, a) + y_part * fast_arctan(x[i], b));
  }
}

inline void away_in_loop(const CornerLine& line, double* __restrict out) {
  const double* __restrict z = line.along_m;
  const double d2 = line.distance_m * line.distance_m, part = -half_turn_inverse * line.distance_m, y = line.across_m;
#pragma omp simd
  for (std::size_t i = 0; i < line.count; ++i) {
    const double a = std::sqrt(d2 + z[i] * z[i]);
    out[i] = part * fast_arctan(y, a) / a;
  }
}

inline void beside_in_loop(const CornerLine& line, double* __restrict out) {
  const double* __restrict y = line.along_m;
  const double a = std::sqrt(line.distance_m * line.distance_m + line.across_m * line.across_m);
  const double part = -half_turn_inverse * line.distance_m / a;
#pragma omp simd
  for (std::size_t i = 0; i < line.count; ++i) out[i] = part * fast_arctan(y[i], a);
}

}  // namespace
}  // namespace sunbreak
