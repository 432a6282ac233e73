#pragma once

#include <Eigen/Core>
#include <vector>

#include "core/optics/lobe_room.h"
#include "core/whole_light/fit_parameters.h"

namespace sunbreak {

/// The lobes' unknowns come first in every vector of unknowns, the parameters after them.
inline constexpr Eigen::Index mixes = static_cast<Eigen::Index>(lobe_count);

/// What the room's patches and a described fixture's few emitters leave of an error, relative, k = 2.
inline constexpr double model_error = 0.003;

LobeFlux mix_of(const Eigen::VectorXd& flux);

/// Unknowns of the fit: the flux of each lobe at the first setting [µmol/s], and the parameters.
struct FitUnknowns {
  Eigen::VectorXd flux, values;
};

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

  /// The model's light at places with the fixture as it hangs at one of the heights. `reflected` comes from
  /// LobeRoom::Exchange::reflected_by() of the same places and reflectances.
  ModelLight light(const ModelPlaces& places, const Eigen::MatrixXd& reflected, std::size_t height,
                   const Eigen::VectorXd& values) const;
  /// Adds by_parameter for a mix.
  void add_slopes(ModelLight& light, const ModelPlaces& places, const Eigen::MatrixXd& reflected,
                  const LobeRoom::Exchange& exchange, std::size_t height, const FitUnknowns& at) const;

  /// Light of a mix at places with the fixture hanging in any way.
  Eigen::VectorXd light_of(const FitUnknowns& unknowns, const Hang& hang, const ModelPlaces& places,
                           const Eigen::MatrixXd& reflected) const;

  // What the fit leaves for intervals: the quadratic form of the unknowns about their best values.
  FitUnknowns best;
  Eigen::MatrixXd form;  ///< of flux and values together, in units of the readings' own scatter
  Eigen::VectorXd pull, lower, upper;
  double reach2 = 4;  ///< how much the form may grow within k = 2

  /// The ± (k = 2) of a quantity that goes with the unknowns by `slopes`: how far it can be moved by other beams, other
  /// walls and other ways of hanging that fit as well.
  double expanded(const Eigen::VectorXd& slopes) const;

 private:
  std::vector<double> heights_m_;
  FitParameters parameters_;
  LobeRoom room_;
  HungFixture fixture_;
  Vec3 under_;
};

}  // namespace sunbreak
