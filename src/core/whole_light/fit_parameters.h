#pragma once

#include <Eigen/Core>
#include <vector>

#include "core/optics/room_patches.h"
#include "core/whole_light/whole_light.h"

namespace sunbreak {

/// One number that the light is not linear in, with what is believed of it beforehand.
struct FitParameter {
  enum class Kind { OffsetX, OffsetY, Datum, HeightShift, Roll, Pitch, Share, Span, Side, Setting } kind;
  int index = 0;  ///< of the height, unit, side (in `faces`) or setting
  double believed = 0, sd = 0, lower = 0, upper = 0;
  double step = 0;  ///< the most that one round of the fit may change it
};

/// The numbers of a question, in a fixed order, and what they mean for hanging, room and settings.
class FitParameters {
 public:
  FitParameters(const WholeLightQuestion& question, const std::vector<double>& heights_m);

  Eigen::Index size() const { return static_cast<Eigen::Index>(list_.size()); }
  const FitParameter& operator[](Eigen::Index i) const { return list_[static_cast<std::size_t>(i)]; }
  /// Where one of a kind stands; −1 where it is fixed.
  Eigen::Index find(FitParameter::Kind kind, int index = 0) const;

  /// Few units lean each by itself and have parts of their own; many are one frame.
  int leans() const { return units_ <= most_own_leans ? units_ : 1; }
  int lean_of(int unit) const { return units_ <= most_own_leans ? unit : 0; }

  Eigen::VectorXd believed() const;
  Hang hang(const Eigen::VectorXd& values, std::size_t height) const;
  /// At a height [m] that need not be a measured one.
  Hang hang_at(const Eigen::VectorXd& values, double height_m) const;
  Room::Reflectance reflectance(const Eigen::VectorXd& values) const;
  double setting(const Eigen::VectorXd& values, int index) const;
  /// A unit's light beside an equal part; all of them add up to the number of units.
  double share(const Eigen::VectorXd& values, int unit) const;

 private:
  double value_of(const Eigen::VectorXd& values, FitParameter::Kind kind, int index, double otherwise) const;
  static constexpr int most_own_leans = 4;
  std::vector<FitParameter> list_;
  std::vector<double> heights_m_;
  std::array<BelievedReflectance, 6> sides_;
  int units_ = 1;
};

/// Sets one side's reflectance.
void set_reflectance(Room::Reflectance& reflectance, const Face& face, double value);

}  // namespace sunbreak
