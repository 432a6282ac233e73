#pragma once

namespace sunbreak {

struct Vec3 {
  double x = 0, y = 0, z = 0;

  bool operator==(const Vec3&) const = default;
};

constexpr Vec3 operator+(const Vec3& a, const Vec3& b) { return {a.x + b.x, a.y + b.y, a.z + b.z}; }
constexpr Vec3 operator-(const Vec3& a, const Vec3& b) { return {a.x - b.x, a.y - b.y, a.z - b.z}; }
constexpr double dot(const Vec3& a, const Vec3& b) { return a.x * b.x + a.y * b.y + a.z * b.z; }

inline constexpr Vec3 straight_up{0, 0, 1}, straight_down{0, 0, -1};

/// A small emitter whose intensity falls with cosᵐ of the angle from its axis: I(θ) = Φ (m+1)/(2π) · cosᵐθ
/// [µmol s⁻¹ sr⁻¹] in the half-space it faces, none behind.
struct Emitter {
  Vec3 place_m;
  Vec3 direction = straight_down;  ///< of unit length
  double ppf_umol_s = 0;
  double exponent = 1;  ///< m; 1 is a Lambertian emitter

  bool operator==(const Emitter&) const = default;
};

}  // namespace sunbreak
