#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/local_surface.h"

namespace sunbreak {

/// One way to expect each reading from the others, and how far readings scatter about that.
class ReadingView {
 public:
  /// `noise_shares` as in reading_views().
  ReadingView(std::vector<SurfaceResidual> residuals, std::span<const double> noise_shares,
              std::span<const char> left_out);

  /// Relative standard deviation of a usual reading; 0 where no reading can be judged.
  double spread() const { return spread_; }
  /// The same as it is, where spread() is that of a usual sensor at least.
  double scatter() const { return scatter_; }
  /// Readings that can be judged and are not left out.
  int judged() const { return judged_; }
  const SurfaceResidual& residual(std::size_t station) const { return residuals_[station]; }
  /// How far chance alone would bring the reading from what is expected there, one standard deviation in ln PPFD;
  /// infinite where the view cannot judge it.
  double chance(std::size_t station) const;
  /// How far it is, in such standard deviations.
  double deviation(std::size_t station) const { return residuals_[station].log_ratio / chance(station); }

 private:
  double unit(std::size_t station) const;

  std::vector<SurfaceResidual> residuals_;
  std::vector<double> noise_shares_;
  double spread_ = 0, scatter_ = 0;
  int judged_ = 0;
};

/// The views there are of a lattice of readings: local quadratic surfaces, mirror images, smooth surfaces over the
/// whole. `left_out` names stations that shape none of them. `noise_shares` is the variance of each reading's noise, in
/// units of a usual reading's; empty where all are alike.
std::vector<ReadingView> reading_views(const Layout& layout, std::span<const double> ppfd,
                                       std::span<const char> left_out, std::span<const double> noise_shares = {});

/// Relative standard deviation of one reading, as the scatter about the view that fits best tells it; NaN
/// where fewer than 20 readings have a surface.
double reading_noise(const Layout& layout, std::span<const double> ppfd);

/// The light that the readings are taken to scatter about: the surface they fit best, without any reading's own noise.
struct ExpectedLight {
  std::vector<double> ppfd;  ///< the readings themselves where too few have a surface, NaN where nothing was read
  double noise = 0;          ///< reading_noise() of them; NaN where too few have a surface
  std::vector<SurfaceResidual> residuals;  ///< about that surface, one a reading; empty where too few have one
};
ExpectedLight expected_light(const Layout& layout, std::span<const double> ppfd);

}  // namespace sunbreak
