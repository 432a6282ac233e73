#pragma once

#include <Eigen/Core>
#include <span>
#include <vector>

#include "core/optics/lobe_room.h"
#include "core/whole_light/fit_form.h"
#include "core/whole_light/fit_parameters.h"

namespace sunbreak {

/// What the room's patches and a described fixture's few emitters leave of an error, relative, k = 2.
inline constexpr double model_error = 0.003;

/// Light at places as the model makes it, for 1 µmol/s of each lobe, and how that of a mix goes with the parameters.
struct ModelLight {
  Eigen::MatrixXd by_lobe;       ///< a row a place, a column a lobe
  Eigen::MatrixXd by_parameter;  ///< of the mix, a column a parameter; zero for settings
};

/// Places on the floor that are asked about again and again.
struct ModelPlaces {
  std::vector<Vec3> list;
  FacingPlaces facing;
  LobeRoom::Gathering gathering;
};

/// The question's room and fixture as arithmetic, and, after the fit, what is known of its unknowns.
class WholeLightModel {
 public:
  explicit WholeLightModel(const WholeLightQuestion& question, const std::vector<double>& heights_m);

  const FitParameters& parameters() const { return parameters_; }
  const std::vector<double>& heights_m() const { return heights_m_; }
  const LobeRoom& room() const { return room_; }
  const HungFixture& fixture() const { return fixture_; }

  ModelPlaces places(std::vector<Vec3> list) const;

  /// The model's light at places with the fixture as it hangs. `reflections` are of the same places.
  ModelLight light(const ModelPlaces& places, const LobeRoom::Reflections& reflections, const Hang& hang,
                   const Eigen::VectorXd& values) const;
  /// Adds by_parameter for a mix; `height` is the measured one that it hangs at, −1 between them.
  void add_slopes(ModelLight& light, const ModelPlaces& places, const LobeRoom::Reflections& reflections,
                  const LobeRoom::Exchange& exchange, const Hang& hang, int height, const FitUnknowns& at) const;

  /// Light of a mix at places with the fixture hanging in any ways, a column each.
  Eigen::MatrixXd light_of(const FitUnknowns& unknowns, std::span<const Hang> hangs, const ModelPlaces& places,
                           const LobeRoom::Exchange& exchange) const;

  FitForm known;  ///< what the fit leaves of the unknowns

 private:
  /// Direct light of one unit that sends the whole mix, a column a way of hanging.
  struct Direct {
    Eigen::MatrixXd at_places, at_patches;
  };
  /// `rough` as in LobeRoom::received().
  Direct direct(int unit, const LobeFlux& mix, std::span<const Hang> hangs, const ModelPlaces& places,
                bool rough) const;

  std::vector<double> heights_m_;
  FitParameters parameters_;
  LobeRoom room_;
  HungFixture fixture_;
  Vec3 under_;
};

}  // namespace sunbreak
