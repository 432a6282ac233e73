#pragma once

#include <algorithm>

#include "core/optics/lobe_kernel.h"
#include "core/optics/vector_math.h"

/// The innermost loops, included by one file for each kind of processor that they are compiled for.
namespace sunbreak {
namespace {

/// An emitter without its light, in the precision that is computed with.
template <typename Real>
struct Source {
  Real x, y, z, axis_x, axis_y, axis_z, along_x, along_y, along_z, across_x, across_y, across_z;
  explicit Source(const LobeSource& s)
      : x(static_cast<Real>(s.place_m.x)),
        y(static_cast<Real>(s.place_m.y)),
        z(static_cast<Real>(s.place_m.z)),
        axis_x(static_cast<Real>(s.axis.x)),
        axis_y(static_cast<Real>(s.axis.y)),
        axis_z(static_cast<Real>(s.axis.z)),
        along_x(static_cast<Real>(s.along.x)),
        along_y(static_cast<Real>(s.along.y)),
        along_z(static_cast<Real>(s.along.z)),
        across_x(static_cast<Real>(s.across.x)),
        across_y(static_cast<Real>(s.across.y)),
        across_z(static_cast<Real>(s.across.z)) {}
};

template <typename Real>
struct Normal {
  Real x, y, z;
  explicit Normal(const Vec3& v) : x(static_cast<Real>(v.x)), y(static_cast<Real>(v.y)), z(static_cast<Real>(v.z)) {}
};

/// What every lobe's light is made of at one place.
template <typename Real>
struct Ray {
  Real cosine, along2, across2, base;
  Ray(const Source<Real>& s, const Normal<Real>& normal, Real x, Real y, Real z) {
    const Real dx = x - s.x, dy = y - s.y, dz = z - s.z;
    const Real inverse = inverse_root<3>(dx * dx + dy * dy + dz * dz), inverse2 = inverse * inverse;
    cosine = std::max((dx * s.axis_x + dy * s.axis_y + dz * s.axis_z) * inverse, Real(0));
    const Real arriving = std::max(-(dx * normal.x + dy * normal.y + dz * normal.z) * inverse, Real(0));
    const Real along = dx * s.along_x + dy * s.along_y + dz * s.along_z;
    const Real across = dx * s.across_x + dy * s.across_y + dz * s.across_z;
    along2 = along * along * inverse2, across2 = across * across * inverse2, base = arriving * inverse2;
  }
};

/// Powers of the cosine for the exponents of `lobes`, times a common factor.
template <typename Real>
struct Powers {
  Real p1, p2, p3, p5, p8, p13, p21, p34, p55;
  Powers(Real c, Real base) {
    // Far aside the narrowest lobes' light is nothing beside the others'; in single precision it would be numbers so
    // small that a processor takes a hundred times as long over each.
    constexpr bool single = sizeof(Real) == 4;
    constexpr Real least_p13 = single ? Real(1e-5) : Real(0), least_p21 = single ? Real(1e-4) : Real(0);
    const Real c2 = c * c, c3 = c2 * c, c5 = c3 * c2, c8 = c5 * c3, c13 = c8 * c5, c21 = c13 * c8;
    p1 = base * c, p2 = base * c2, p3 = base * c3, p5 = base * c5, p8 = base * c8, p13 = base * c13;
    p21 = base * c21, p34 = p21 * std::max(c13, least_p13), p55 = p34 * std::max(c21, least_p21);
  }
};

/// Places that light is added up at before the next are taken: their sums stay in the processor's nearest memory.
template <typename Real, std::size_t size>
struct Block {
  Real x[size], y[size], z[size];
  /// A part of a block is filled up with its last place.
  Block(const LitPlaces& at, std::size_t first, std::size_t count) {
    for (std::size_t i = 0; i < size; ++i) {
      const std::size_t place = first + std::min(i, count - 1);
      x[i] = static_cast<Real>(at.x_m[place]), y[i] = static_cast<Real>(at.y_m[place]);
      z[i] = static_cast<Real>(at.z_m[place]);
    }
  }
};

constexpr std::size_t lobes_block = 32, mix_block = 64;

inline void add_lobes(const Source<double>& s, const Normal<double>& normal, const Block<double, lobes_block>& at,
                      double (&sums)[lobe_count][lobes_block]) {
#pragma omp simd
  for (std::size_t i = 0; i < lobes_block; ++i) {
    const Ray<double> r(s, normal, at.x[i], at.y[i], at.z[i]);
    const Powers<double> p(r.cosine, r.base);
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
  for (std::size_t first = 0; first < at.count; first += lobes_block) {
    const std::size_t count = std::min(lobes_block, at.count - first);
    const Block<double, lobes_block> block(at, first, count);
    double here[lobe_count][lobes_block]{};
    for (const LobeSource& s : sources) add_lobes(Source<double>(s), Normal<double>(at.normal), block, here);
    for (std::size_t k = 0; k < lobe_count; ++k)
      for (std::size_t i = 0; i < count; ++i) sums[k * at.count + first + i] += here[k][i];
  }
}

inline void add_mix(const Source<float>& s, const Normal<float>& normal, const Block<float, mix_block>& at,
                    const float (&w)[lobe_count], float (&sums)[mix_block]) {
#pragma omp simd
  for (std::size_t i = 0; i < mix_block; ++i) {
    const Ray<float> r(s, normal, at.x[i], at.y[i], at.z[i]);
    const Powers<float> p(r.cosine, r.base);
    const auto side = [&](const float* v) {
      return v[0] * p.p1 + v[1] * p.p2 + v[2] * p.p3 + v[3] * p.p5 + v[4] * p.p8 + v[5] * p.p13 + v[6] * p.p21;
    };
    sums[i] += side(w) + w[7] * p.p34 + w[8] * p.p55 +
               r.along2 * (side(w + round_lobes) + r.along2 * side(w + round_lobes + 2 * side_lobes)) +
               r.across2 * (side(w + round_lobes + side_lobes) + r.across2 * side(w + round_lobes + 3 * side_lobes));
  }
}

inline void add_mixed_in_loop(std::span<const LobeSource> sources, const LitPlaces& at, const double* weights,
                              double* sums) {
  float w[lobe_count];
  for (std::size_t k = 0; k < lobe_count; ++k) w[k] = static_cast<float>(weights[k]);
  for (std::size_t first = 0; first < at.count; first += mix_block) {
    const std::size_t count = std::min(mix_block, at.count - first);
    const Block<float, mix_block> block(at, first, count);
    float here[mix_block]{};
    for (const LobeSource& s : sources) add_mix(Source<float>(s), Normal<float>(at.normal), block, w, here);
    for (std::size_t i = 0; i < count; ++i) sums[first + i] += static_cast<double>(here[i]);
  }
}

}  // namespace
}  // namespace sunbreak
