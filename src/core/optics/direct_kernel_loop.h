#pragma once

#include <algorithm>

#include "core/optics/direct_kernel.h"
#include "core/optics/vector_math.h"

/// The innermost loop, included by one file for each kind of processor that it is compiled for.
namespace sunbreak {
namespace {

/// What differs between the two precisions. Cosines up to `grazing` are dark, which also keeps the power finite: a wide
/// beam's small exponent would make light even of the least cosine.
template <typename Real>
struct Precision;
template <>
struct Precision<double> {
  static constexpr double grazing = 1e-12, least_power = -900;
  static constexpr int rounds = 4;
};
template <>
struct Precision<float> {
  static constexpr float grazing = 1e-6f, least_power = -110;
  static constexpr int rounds = 3;
};

/// So many places go through each of the two short loops below before the next: one long loop has so long a chain of
/// dependent steps that the processor waits.
constexpr std::size_t block = 256;

template <typename Real, typename Power>
inline void add_all(const DirectKernel& k, const Real* __restrict x, const Real* __restrict y, const Real* __restrict z,
                    Real* __restrict ppfd, std::size_t count, Power power) {
  const Real at_x = static_cast<Real>(k.x), at_y = static_cast<Real>(k.y), at_z = static_cast<Real>(k.z);
  const Real dir_x = static_cast<Real>(k.dir_x), dir_y = static_cast<Real>(k.dir_y), dir_z = static_cast<Real>(k.dir_z);
  const Real normal_x = static_cast<Real>(k.normal_x), normal_y = static_cast<Real>(k.normal_y),
             normal_z = static_cast<Real>(k.normal_z), peak = static_cast<Real>(k.peak);
  constexpr Real grazing = Precision<Real>::grazing;
  alignas(64) Real cosines[block], arriving[block];
  for (std::size_t first = 0; first < count; first += block) {
    const std::size_t n = std::min(block, count - first);
    const Real* __restrict const px = x + first;
    const Real* __restrict const py = y + first;
    const Real* __restrict const pz = z + first;
    Real* __restrict const to = ppfd + first;
#pragma omp simd
    for (std::size_t i = 0; i < n; ++i) {
      const Real dx = px[i] - at_x, dy = py[i] - at_y, dz = pz[i] - at_z;
      const Real inverse = inverse_root<Precision<Real>::rounds>(dx * dx + dy * dy + dz * dz);
      const Real along = (dx * dir_x + dy * dir_y + dz * dir_z) * inverse;
      const Real lit = along > grazing ? peak : Real(0);
      const Real cos_normal = std::max(-(dx * normal_x + dy * normal_y + dz * normal_z) * inverse, Real(0));
      cosines[i] = std::max(along, grazing);
      arriving[i] = lit * cos_normal * inverse * inverse;
    }
#pragma omp simd
    for (std::size_t i = 0; i < n; ++i) to[i] += arriving[i] * power(cosines[i]);
  }
}

template <typename Real>
inline void add_by_exponent(const DirectKernel& k, const Real* x, const Real* y, const Real* z, Real* ppfd,
                            std::size_t count) {
  const Real m = static_cast<Real>(k.exponent);
  if (m == 1)
    add_all(k, x, y, z, ppfd, count, [](Real c) { return c; });
  else if (m == 2)
    add_all(k, x, y, z, ppfd, count, [](Real c) { return c * c; });
  else
    add_all(k, x, y, z, ppfd, count,
            [m](Real c) { return fast_exp2(std::max(m * fast_log2(c), Precision<Real>::least_power)); });
}

}  // namespace
}  // namespace sunbreak
