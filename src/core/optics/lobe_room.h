#pragma once

#include <Eigen/Core>
#include <cstdint>
#include <span>
#include <vector>

#include "core/linear/cholesky.h"
#include "core/optics/direct_light.h"
#include "core/optics/lobe_kernel.h"
#include "core/optics/room_patches.h"

namespace sunbreak {

/// The parts of a LobeRoom as plain arrays, for holding it against another computation, with two by two places a fine
/// patch, however near a lamp is.
struct LobeRoomArrays {
  std::vector<Vec3> points, normals;  ///< four a fine patch
  std::vector<double> fine_areas_m2, coarse_areas_m2, mutual_m2, gathering_coarse, gathering_fine;
  std::vector<int> coarse_of_fine, side_of_fine, side_of_coarse;  ///< sides by their place in sides()
};

/// The room model for beams that are mixes of lobes, made to be asked again and again with other lamps and other
/// reflectances: what depends on the room's shape alone is worked out once. As in RoomLight, a coarse grid of patches
/// carries the light between the sides; each is cut into fine ones, which take the direct light and light the stations.
class LobeRoom {
 public:
  /// Which sides reflect is taken from `shape`, how much does not matter here.
  explicit LobeRoom(const Room& shape, const PatchCounts& counts = {8, 10});

  const Room& shape() const { return shape_; }
  const std::vector<Face>& sides() const { return sides_; }
  bool reflects() const { return !sides_.empty(); }
  Eigen::Index fine_patches() const { return fine_count_; }

  /// What the sides' exitance [µmol m⁻² s⁻¹] makes at stations on or above the floor that face up: a row a station, a
  /// column a patch, coarse with the exitance interpolated between their middles, and fine.
  struct Gathering {
    Eigen::MatrixXd coarse, fine;
  };
  Gathering gathering(std::span<const Vec3> stations) const;

  /// Direct PPFD at each fine patch from sources that send 1 µmol/s of a lobe together: a row a patch, a column a lobe.
  /// `rough` at fewer places a patch, for slopes.
  Eigen::MatrixXd received(std::span<const LobeSource> sources, bool rough = false) const;
  /// The same of a mix.
  Eigen::VectorXd received(std::span<const LobeSource> sources, const LobeFlux& mix, bool rough = false) const;

  /// What the model is made of, for such stations; matrices row by row.
  LobeRoomArrays arrays(std::span<const Vec3> stations) const;

  /// The light that stations get from the fine patches by reflection, patch by patch: worked out once for many lamps.
  class Reflections {
   public:
    /// Reflected PPFD at the stations from the direct PPFD of the fine patches; a column a lamp.
    Eigen::MatrixXd of(const Eigen::MatrixXd& received) const;

   private:
    friend class LobeRoom;
    const LobeRoom* room_ = nullptr;
    Eigen::MatrixXd by_patch_;     ///< a row a station, a column a fine patch
    Eigen::MatrixXd by_exitance_;  ///< the light of 1 µmol/s that a coarse patch sends of itself, and all that follows
  };

  /// Exchange between the sides at given reflectances.
  class Exchange {
   public:
    /// Reflected PPFD at stations from the direct PPFD of the fine patches; a column a lamp.
    Eigen::MatrixXd reflected(const Gathering& gathering, const Eigen::MatrixXd& received) const;
    /// The same for more lamps than there are stations.
    Reflections reflections(const Gathering& gathering) const;
    /// How the reflected PPFD of one lamp goes with the reflectance of each side: a column a side of sides().
    Eigen::MatrixXd slopes_of_sides(const Gathering& gathering, const Reflections& reflections,
                                    const Eigen::VectorXd& received) const;

   private:
    friend class LobeRoom;
    const LobeRoom* room_ = nullptr;
    Eigen::VectorXd coarse_reflectance_, fine_reflectance_;
    Cholesky factored_;  ///< of diag(area / reflectance) − area · form factor
  };
  Exchange exchange(const Room::Reflectance& reflectance) const;

 private:
  /// A side's fine patches at the places of a rule: the more, the nearer a lamp is.
  struct Lit {
    std::vector<FacingPlaces> by_rule;  ///< a wall's rows run upward
    Eigen::Index first_coarse = 0, first_fine = 0;
  };
  std::size_t rule_for(std::size_t side, std::span<const LobeSource> sources) const;
  /// How many of a side's fine patches, from the first on, can be lit by sources none of whose light goes above a
  /// height.
  Eigen::Index patches_below(std::size_t side, double height_m) const;
  /// How many of a side's fine patches, from the first on, any lamp lights.
  Eigen::Index lit_patches(std::size_t side, const Eigen::MatrixXd& received) const;
  Eigen::MatrixXd flux_on_coarse(const Eigen::MatrixXd& received) const;

  Room shape_;
  std::vector<Face> sides_;
  std::vector<PatchGrid> grids_, fine_;
  std::vector<Lit> lit_;
  std::vector<Eigen::Index> coarse_of_fine_;
  Eigen::VectorXd coarse_areas_m2_, fine_areas_m2_;
  Eigen::MatrixXd mutual_;
  Eigen::Index coarse_count_ = 0, fine_count_ = 0;
};

/// Direct PPFD at the first stations, `count` of them (all by default), from sources that send 1 µmol/s of a lobe
/// together: a row a station, a column a lobe.
Eigen::MatrixXd direct_by_lobe(std::span<const LobeSource> sources, const FacingPlaces& stations,
                               std::size_t count = SIZE_MAX);
/// The same of a mix.
Eigen::VectorXd direct_of_mix(std::span<const LobeSource> sources, const LobeFlux& mix, const FacingPlaces& stations,
                              std::size_t count = SIZE_MAX);

}  // namespace sunbreak
