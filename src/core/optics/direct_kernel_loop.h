#pragma once

#include <algorithm>
#include <bit>
#include <cmath>
#include <cstdint>

#include "core/optics/direct_kernel.h"

/// The innermost loop, included by one file for each kind of processor that it is compiled for.
namespace sunbreak {
namespace {

/// Cosines up to this are dark, which also keeps the power finite: a wide beam's small exponent would make light even
/// of the least cosine.
constexpr double grazing = 1e-12;

/// Adding this to a number below 2⁵¹ in size rounds it to whole and leaves that in the low bits.
constexpr double rounder = 6755399441055744.0;

/// Binary logarithm of a normal number: its exponent, and the odd series of the rest about √½ … √2. Relative error
/// 1e-13; made of additions and multiplications, so that a compiler can run several at once.
inline double fast_log2(double x) {
  const auto bits = std::bit_cast<std::uint64_t>(x);
  const std::uint64_t shifted = bits + 0x0009'5F61'9980'C433;  // carries into the exponent from √2 on
  const double exponent = std::bit_cast<double>((shifted >> 52) | 0x4330'0000'0000'0000) - (4503599627370496.0 + 1023);
  const double rest = std::bit_cast<double>(bits - (shifted & 0xFFF0'0000'0000'0000) + 0x3FF0'0000'0000'0000);
  const double t = (rest - 1) / (rest + 1), t2 = t * t;
  const double low = 1 + t2 * (1.0 / 3 + t2 * (1.0 / 5 + t2 * (1.0 / 7)));
  const double high = 1.0 / 9 + t2 * (1.0 / 11 + t2 * (1.0 / 13 + t2 * (1.0 / 15)));
  const double series = low + t2 * t2 * t2 * t2 * high;
  return exponent + 2.885390081777926815 * t * series;
}

/// 2 to the power of y, −1000 < y < 1000; relative error 1e-13.
inline double fast_exp2(double y) {
  const double shifted = y + rounder, whole = shifted - rounder, f = (y - whole) * 0.693147180559945309;
  const double f2 = f * f, f4 = f2 * f2;
  const double low = 1 + f + f2 * (1.0 / 2 + f * (1.0 / 6)),
               middle = 1.0 / 24 + f * (1.0 / 120) + f2 * (1.0 / 720 + f * (1.0 / 5040));
  const double high = 1.0 / 40320 + f * (1.0 / 362880) + f2 * (1.0 / 3628800 + f * (1.0 / 39916800));
  const double series = low + f4 * (middle + f4 * high);
  return std::bit_cast<double>(std::bit_cast<std::uint64_t>(series) + (std::bit_cast<std::uint64_t>(shifted) << 52));
}

template <typename Power>
inline void add_all(const DirectKernel& k, const double* __restrict x, const double* __restrict y,
                    const double* __restrict z, double* __restrict ppfd, std::size_t count, Power power) {
#pragma omp simd
  for (std::size_t i = 0; i < count; ++i) {
    const double dx = x[i] - k.x, dy = y[i] - k.y, dz = z[i] - k.z;
    const double inverse2 = 1 / (dx * dx + dy * dy + dz * dz), inverse = std::sqrt(inverse2);
    const double along = (dx * k.dir_x + dy * k.dir_y + dz * k.dir_z) * inverse;
    const double cos_axis = std::max(along, grazing), lit = along > grazing ? 1.0 : 0.0;
    const double cos_normal = std::max(-(dx * k.normal_x + dy * k.normal_y + dz * k.normal_z) * inverse, 0.0);
    ppfd[i] += lit * k.peak * power(cos_axis) * cos_normal * inverse2;
  }
}

inline void add_by_exponent(const DirectKernel& k, const double* x, const double* y, const double* z, double* ppfd,
                            std::size_t count) {
  const double m = k.exponent;
  if (m == 1)
    add_all(k, x, y, z, ppfd, count, [](double c) { return c; });
  else if (m == 2)
    add_all(k, x, y, z, ppfd, count, [](double c) { return c * c; });
  else
    add_all(k, x, y, z, ppfd, count, [m](double c) { return fast_exp2(std::max(m * fast_log2(c), -900.0)); });
}

}  // namespace
}  // namespace sunbreak
