#pragma once

#include <bit>
#include <cstdint>

/// Arithmetic that a compiler can run several at once: additions, multiplications and whole numbers, no branch, no
/// table. Included only by files that are compiled for it.
namespace sunbreak {
namespace {

/// 1 / √x of a normal number: a first guess from halving the exponent, then `rounds` of Newton's rule. Relative error
/// 5e-11 after three, that of rounding after four. Source of the guess: C. Lomont, "Fast inverse square root" (2003).
template <int rounds>
inline double inverse_root(double x) {
  double y = std::bit_cast<double>(0x5FE6'EB50'C7B5'37A9 - (std::bit_cast<std::uint64_t>(x) >> 1));
  const double half = 0.5 * x;
  for (int i = 0; i < rounds; ++i) y *= 1.5 - half * y * y;
  return y;
}
/// The same in single precision, relative error 5e-7 after three.
template <int rounds>
inline float inverse_root(float x) {
  float y = std::bit_cast<float>(0x5F37'59DFu - (std::bit_cast<std::uint32_t>(x) >> 1));
  const float half = 0.5f * x;
  for (int i = 0; i < rounds; ++i) y *= 1.5f - half * y * y;
  return y;
}

/// Adding this to a number below 2⁵¹ (2²² in single precision) in size rounds it to whole and leaves that in the low
/// bits.
constexpr double rounder = 6755399441055744.0;
constexpr float small_rounder = 12582912.0f;

/// Binary logarithm of a normal number: its exponent, and the odd series of the rest about √½ … √2. Relative error
/// 1e-13.
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
/// The same in single precision, error 2e-7.
inline float fast_log2(float x) {
  const auto bits = std::bit_cast<std::uint32_t>(x);
  const std::uint32_t shifted = bits + 0x004A'FB0Du;  // carries into the exponent from √2 on
  const float exponent = std::bit_cast<float>((shifted >> 23) | 0x4B00'0000u) - (8388608.0f + 127);
  const float rest = std::bit_cast<float>(bits - (shifted & 0xFF80'0000u) + 0x3F80'0000u);
  const float t = (rest - 1) / (rest + 1), t2 = t * t;
  return exponent + 2.8853900817f * t * (1 + t2 * (1.0f / 3 + t2 * (1.0f / 5 + t2 * (1.0f / 7 + t2 * (1.0f / 9)))));
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
/// The same in single precision, −120 < y < 120; relative error 2e-7.
inline float fast_exp2(float y) {
  const float shifted = y + small_rounder, whole = shifted - small_rounder, f = (y - whole) * 0.6931471806f;
  const float series = 1 + f * (1 + f * (1.0f / 2 + f * (1.0f / 6 + f * (1.0f / 24 + f * (1.0f / 120 + f / 720)))));
  return std::bit_cast<float>(std::bit_cast<std::uint32_t>(series) + (std::bit_cast<std::uint32_t>(shifted) << 23));
}

/// The angle whose tangent is y / x, for x > 0; relative error 1e-15. An eighth or a quarter of a turn is taken off,
/// which leaves |t| ≤ √2 − 1; there the odd polynomial that agrees with the arctangent at Chebyshev's places for its
/// degree.
inline double fast_arctan(double y, double x) {
  const double high = y < 0 ? -y : y;
  const bool steep = high > 2.414213562373095 * x, slanted = high > 0.4142135623730951 * x;
  const double top = steep ? -x : slanted ? high - x : high, bottom = steep ? high : slanted ? high + x : x;
  const double taken_off = steep ? 1.5707963267948966 : slanted ? 0.7853981633974483 : 0.0;
  const double t = top / bottom, z = t * t;
  const double series =
      1 + z * (-0.33333333333328435 +
               z * (0.19999999998854978 +
                    z * (-0.14285714180972145 +
                         z * (0.11111106180442902 +
                              z * (-0.09090773077073099 +
                                   z * (0.07689953553563447 +
                                        z * (-0.06640234585531563 +
                                             z * (0.05688353253790735 +
                                                  z * (-0.04348065112574545 + z * 0.02113554238759541)))))))));
  const double angle = taken_off + t * series;
  return y < 0 ? -angle : angle;
}

}  // namespace
}  // namespace sunbreak
