#pragma once

#include <memory>
#include <optional>
#include <span>
#include <vector>

#include "core/optics/direct_light.h"
#include "core/optics/room.h"

namespace sunbreak {

/// PPFD at each station [µmol m⁻² s⁻¹].
struct Prediction {
  std::vector<double> direct, reflected;
};

/// Stations of one room that face up, with the share of each wall patch's light that reaches them.
class StationFactors {
 public:
  const FacingPlaces& places() const { return places_; }
  const std::vector<float>& factors() const { return factors_; }

 private:
  friend class RoomLight;
  FacingPlaces places_;
  std::optional<RoughPlaces> rough_places_;
  std::vector<float> factors_;         ///< one row a station, one column a fine patch
  std::vector<float> coarse_factors_;  ///< the same where a coarse patch's light is had between patch middles
};

/// The parts of a RoomLight as plain arrays, for holding it against another computation: fine patches with their coarse
/// patch and its four neighbors for interpolation, coarse patches, and the symmetric system that exchange is solved
/// with.
struct ModelArrays {
  std::vector<Vec3> fine_middles, fine_normals;
  std::vector<double> fine_areas_m2, fine_reflectances;
  std::vector<int> coarse_of_fine, neighbors;
  std::vector<double> neighbor_weights, coarse_areas_m2, coarse_reflectances, exchange;
};

/// Light in a box with diffuse sides. Direct light is in closed form. What the sides send back is found by radiosity on
/// patches graded toward the edges: a coarse grid carries the light between the sides, exchange factors exact and the
/// system factored once; a fine grid, each coarse patch cut in nine, takes the direct light and lights the stations by
/// closed-form factors. Making a RoomLight is the slow part and depends on the room alone; moving the lamp is cheap.
class RoomLight {
 public:
  explicit RoomLight(const Room& room);
  ~RoomLight();
  RoomLight(RoomLight&&) noexcept;
  RoomLight& operator=(RoomLight&&) noexcept;

  const Room& room() const;

  /// The part of a prediction that depends on room and stations alone. Stations lie in the room and face up.
  StationFactors stations(std::span<const Vec3> places) const;

  /// In single precision, to 1e-5 of the light: for who asks again and again.
  Prediction predict(std::span<const Emitter> emitters, const StationFactors& stations) const;

  /// The same for places asked for once, direct light in double precision: nothing is kept, so that many places take no
  /// room. Of many in one plane the
  /// sides' light is interpolated, to a thousandth of the light, or not at all.
  Prediction predict_once(std::span<const Emitter> emitters, std::span<const Vec3> places) const;

  /// What the model is made of.
  ModelArrays arrays() const;

  /// Photon flux that the sides absorb [µmol s⁻¹]; equals what the emitters send, less what the grid loses.
  double absorbed_umol_s(std::span<const Emitter> emitters) const;

 private:
  struct Parts;
  struct Radiosity;
  void fill_factors(const Vec3& place, std::span<double> factors) const;
  Radiosity solve(std::span<const Emitter> emitters) const;
  void gather(const StationFactors& stations, const Radiosity& radiosity, std::size_t first,
              std::span<double> reflected) const;
  std::vector<double> fine_radiosity(const Radiosity& radiosity) const;
  std::unique_ptr<Parts> parts_;
};

}  // namespace sunbreak
