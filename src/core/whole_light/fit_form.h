#pragma once

#include <Eigen/Core>

#include "core/optics/lobes.h"

namespace sunbreak {

/// The lobes' unknowns come first in every vector of unknowns, the parameters after them.
inline constexpr Eigen::Index mixes = static_cast<Eigen::Index>(lobe_count);

LobeFlux mix_of(const Eigen::VectorXd& flux);

/// Unknowns of the fit: the flux of each lobe at the first setting [µmol/s], and the parameters.
struct FitUnknowns {
  Eigen::VectorXd flux, values;
};

/// What is known of the unknowns after a fit: the quadratic form about their best values, and how far it may grow.
struct FitForm {
  FitUnknowns best;
  Eigen::MatrixXd form;  ///< of flux and values together, in units of the readings' own scatter
  Eigen::VectorXd pull, lower, upper;
  double reach2 = 4;  ///< how much the form may grow within k = 2

  /// The ± (k = 2) of a quantity that goes with the unknowns by `slopes`: how far it can be moved by other beams, other
  /// walls and other ways of hanging that fit as well.
  double expanded(const Eigen::VectorXd& slopes) const;

  /// Whether the whole light is known well enough to give it: its ± is 6 % at most.
  bool fixes_whole_light() const;
  /// The ± of the whole light, relative.
  double whole_light_expanded() const;
};

}  // namespace sunbreak
