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

inline void add_lobes_in_loop(const LobeSource& s, const LitPlaces& at, double* __restrict sums) {
  const std::size_t n = at.count;
  const double* __restrict xs = at.x_m;
  const double* __restrict ys = at.y_m;
  const double* __restrict zs = at.z_m;
#pragma omp simd
  for (std::size_t i = 0; i < n; ++i) {
    const Ray r = ray_to(s, at.normal, xs[i], ys[i], zs[i]);
    const Powers p(r.cosine, r.base);
    double* __restrict to = sums + i;
    to[0] += p.p1, to[n] += p.p2, to[2 * n] += p.p3, to[3 * n] += p.p5, to[4 * n] += p.p8, to[5 * n] += p.p13;
    to[6 * n] += p.p21, to[7 * n] += p.p34, to[8 * n] += p.p55;
    const auto add_side = [&](std::size_t first, double part) {
      double* __restrict side = to + first * n;
      side[0] += p.p1 * part, side[n] += p.p2 * part, side[2 * n] += p.p3 * part, side[3 * n] += p.p5 * part;
      side[4 * n] += p.p8 * part, side[5 * n] += p.p13 * part, side[6 * n] += p.p21 * part;
    };
    add_side(round_lobes, r.along2);
    add_side(round_lobes + side_lobes, r.across2);
    add_side(round_lobes + 2 * side_lobes, r.along2 * r.along2);
    add_side(round_lobes + 3 * side_lobes, r.across2 * r.across2);
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
