#pragma once

#include <memory>
#include <optional>
#include <span>
#include <utility>
#include <vector>

#include "core/quantity/display.h"
#include "core/result.h"
#include "core/whole_light/light_at_places.h"

namespace sunbreak {

/// How well a height's sweeps are predicted from those at all other heights: deviations (read − predicted) / predicted
/// over all its stations, by the fitted model and by a monotone cubic of ln E, which only reaches heights between
/// others.
struct LeftOutHeight {
  double height_m = 0;
  double rms = unread, mean = unread;  ///< by the model; NaN where it, or the other heights alone, give no figure
  double cubic_rms = unread, cubic_mean = unread;
};

/// Leaves each height out in turn and fits the others again. Empty with fewer than two heights.
/// Where `stop` asks for an end the work is given up, and what is returned means nothing.
std::vector<LeftOutHeight> left_out_heights(const WholeLightQuestion& question, const WholeLight& found,
                                            const std::stop_token& stop = {});

/// A dimmer setting between measured ones: the light beside the first setting's, and which measured ones it lies
/// between, for what the stations' pattern does.
struct BetweenSetting {
  double light_factor = 1;
  int lower = 0, upper = 0;  ///< indices of measured settings
  double upper_share = 0;    ///< 0 at the lower, 1 at the upper
};

/// How far predictions may be off, relative standard deviations.
struct PredictionErrors {
  double mean_sd = 0;            ///< of all stations together
  double scatter_sd = 0;         ///< of one beside the others
  double left_out_rms = unread;  ///< what they come from, of the way used
};

/// A sweep that nobody walked.
struct PredictedSweep {
  BetweenWay way = BetweenWay::Model;
  std::vector<double> ppfd;  ///< one a station
  /// Relative ± (k = 2) of a station and of means, without the parts that all sweeps share.
  double station_expanded = unread, mean_expanded = unread;
  double left_out_rms = unread;  ///< of the way used, relative
};

/// Light between the heights of a test.
class BetweenHeights {
 public:
  BetweenHeights(const WholeLightQuestion& question, const WholeLight& found, std::vector<LeftOutHeight> left_out);

  ~BetweenHeights();

  BetweenWay way() const { return way_; }
  /// Heights that are answered for [m]: the measured ones and a quarter of their range beyond, a tenth by the cubic.
  std::pair<double, double> reach_m() const;
  PredictionErrors errors_at(double height_m) const;
  /// By the cubic: the relative standard deviation of the weighted mean over some places. Where no height could be left
  /// out it takes how their own light falls, which by the middle is more than all over the floor.
  double mean_sd_of(const LightAtPlaces& places, std::span<const double> weights, double height_m) const;

  /// At the stations of the question's first sweep. Refuses heights beyond reach.
  Result<PredictedSweep> at(double height_m, const BetweenSetting& setting,
                            UnitSystem told_in = UnitSystem::Metric) const;

  /// The same light at any places of the floor.
  std::unique_ptr<const LightAtPlaces> at_places(std::vector<Vec3> places) const;

 private:
  /// The walked heights that one lies between, or is nearest to; of one height nothing.
  std::optional<std::pair<double, double>> around(double height_m) const;
  double mean_sd_of_fall(double fall, double height_m) const;

  const WholeLightQuestion& question_;
  const WholeLight& found_;
  std::vector<LeftOutHeight> left_out_;
  std::vector<double> heights_m_;
  BetweenWay way_ = BetweenWay::Model;
  std::unique_ptr<const LightAtPlaces> at_stations_;
};

}  // namespace sunbreak
