#pragma once

#include <memory>
#include <span>
#include <vector>

#include "core/whole_light/whole_light.h"

namespace sunbreak {

enum class BetweenWay {
  Model,  ///< the fitted room model times what repeats of the stations' residuals
  Cubic   ///< by station a monotone cubic of ln E over the height
};

/// A dimmer setting's share of a pattern between two walked ones.
inline double mixed(double lower, double upper, double upper_share) {
  return upper_share <= 0 ? lower : upper_share >= 1 ? upper : (1 - upper_share) * lower + upper_share * upper;
}

/// Light of a test's fixture at places of the floor, at heights that need not be walked. Between stations what is known
/// of them is bilinear. Beyond the outer stations the model goes on to the wall; the cubic
/// goes on by half of what it would straight, since near walls light falls less than within.
class LightAtPlaces {
 public:
  /// `question` and `found` have to outlive it.
  LightAtPlaces(const WholeLightQuestion& question, const WholeLight& found, BetweenWay way, std::vector<Vec3> places);
  ~LightAtPlaces();

  /// PPFD with the first setting's light and the pattern of each: by height, setting and place. NaN where nothing is
  /// known.
  std::vector<std::vector<std::vector<double>>> at(std::span<const double> heights_m) const;

  /// The relative ± (k = 2) of a mean over the places, weighted, that beams, walls and hanging leave which fit as well;
  /// NaN by the cubic. Takes some 50 ms.
  double mean_expanded(double height_m, std::span<const double> weights) const;

 private:
  struct Parts;
  std::unique_ptr<const Parts> parts_;
};

}  // namespace sunbreak
