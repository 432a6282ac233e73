#pragma once

#include <algorithm>

#include "core/optics/lobe_kernel.h"
#include "core/optics/vector_math.h"

/// The innermost loops, included by one file for each kind of processor that they are compiled for.
namespace sunbreak {
namespace {

/// What every lobe's light is made of at one place.
struct Ray {
  double cosine, along2, across2, base;
};

inline Ray ray_to(const LobeSource& s, const Vec3& normal, double x, double y, double z) {
  const double dx = x - s.place_m.x, dy = y - s.place_m.y, dz = z - s.place_m.z;
  const double inverse = inverse_root<3>(dx * dx + dy * dy + dz * dz), inverse2 = inverse * inverse;
  const double cosine = std::max((dx * s.axis.x + dy * s.axis.y + dz * s.axis.z) * inverse, 0.0);
  const double arriving = std::max(-(dx * normal.x + dy * normal.y + dz * normal.z) * inverse, 0.0);
  const double along = dx * s.along.x + dy * s.along.y + dz * s.along.z;
  const double across = dx * s.across.x + dy * s.across.y + dz * s.across.z;
  return {cosine, along * along * inverse2, across * across * inverse2, arriving * inverse2};
}

/// Powers of the cosine for the exponents of `lobes`, times a common factor.
struct Powers {
  double p1, p2, p3, p5, p8, p13, p21, p34, p55;
  Powers(double c, double base) {
    const double c2 = c * c, c3 = c2 * c, c5 = c3 * c2, c8 = c5 * c3, c13 = c8 * c5, c21 = c13 * c8;
    p1 = base * c, p2 = base * c2, p3 = base * c3, p5 = base * c5, p8 = base * c8, p13 = base * c13;
    p21 = base * c21, p34 = p21 * c13, p55 = p34 * c21;
  }
};

/// Places that the lobes are added up at before the next are taken: their sums stay in the processor's nearest memory.
constexpr std::size_t block = 32;
using BlockSums = double[lobe_count][block];

inline void add_to_block(const LobeSource& s, const Vec3& normal, const double (&xs)[block], const double (&ys)[block],
                         const double (&zs)[block], BlockSums& sums) {
#pragma omp simd
  for (std::size_t i = 0; i < block; ++i) {
    const Ray r = ray_to(s, normal, xs[i], ys[i], zs[i]);
    const Powers p(r.cosine, r.base);
    sums[0][i] += p.p1, sums[1][i] += p.p2, sums[2][i] += p.p3, sums[3][i] += p.p5, sums[4][i] += p.p8;
    sums[5][i] += p.p13, sums[6][i] += p.p21, sums[7][i] += p.p34, sums[8][i] += p.p55;
    const auto add_side = [&](std::size_t first, double part) {
      sums[first][i] += p.p1 * part, sums[first + 1][i] += p.p2 * part, sums[first + 2][i] += p.p3 * part;
      sums[first + 3][i] += p.p5 * part, sums[first + 4][i] += p.p8 * part, sums[first + 5][i] += p.p13 * part;
      sums[first + 6][i] += p.p21 * part;
    };
    add_side(round_lobes, r.along2);
    add_side(round_lobes + side_lobes, r.across2);
    add_side(round_lobes + 2 * side_lobes, r.along2 * r.along2);
    add_side(round_lobes + 3 * side_lobes, r.across2 * r.across2);
  }
}

inline void add_lobes_in_loop(std::span<const LobeSource> sources, const LitPlaces& at, double* sums) {
  for (std::size_t first = 0; first < at.count; first += block) {
    const std::size_t count = std::min(block, at.count - first);
    double xs[block], ys[block], zs[block];
    for (std::size_t i = 0; i < block; ++i) {
      const std::size_t place = first + std::min(i, count - 1);  // a part of a block is filled up with its last place
      xs[i] = at.x_m[place], ys[i] = at.y_m[place], zs[i] = at.z_m[place];
    }
    BlockSums here{};
    for (const LobeSource& s : sources) add_to_block(s, at.normal, xs, ys, zs, here);
    for (std::size_t k = 0; k < lobe_count; ++k)
      for (std::size_t i = 0; i < count; ++i) sums[k * at.count + first + i] += here[k][i];
  }
}

inline void add_mixed_in_loop(const LobeSource& s, const LitPlaces& at, const double* __restrict w,
                              double* __restrict sums) {
  const double* __restrict xs = at.x_m;
  const double* __restrict ys = at.y_m;
  const double* __restrict zs = at.z_m;
#pragma omp simd
  for (std::size_t i = 0; i < at.count; ++i) {
    const Ray r = ray_to(s, at.normal, xs[i], ys[i], zs[i]);
    const Powers p(r.cosine, r.base);
    const auto side = [&](const double* v) {
      return v[0] * p.p1 + v[1] * p.p2 + v[2] * p.p3 + v[3] * p.p5 + v[4] * p.p8 + v[5] * p.p13 + v[6] * p.p21;
    };
    sums[i] += side(w) + w[7] * p.p34 + w[8] * p.p55 +
               r.along2 * (side(w + round_lobes) + r.along2 * side(w + round_lobes + 2 * side_lobes)) +
               r.across2 * (side(w + round_lobes + side_lobes) + r.across2 * side(w + round_lobes + 3 * side_lobes));
  }
}

}  // namespace
}  // namespace sunbreak
