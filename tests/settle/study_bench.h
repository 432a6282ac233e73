#pragma once

#include <memory>

#include "core/optics/room_light.h"
#include "core/power/monotone_cubic.h"
#include "core/settle/settle_solver.h"
#include "whole_light/light_bench.h"

/// Benches made up for trials of settling: fixture, room, dimmer and target drawn anew, their truth known.
namespace sunbreak::trial {

/// A dimmer as it truly is.
struct TrueDimmer {
  double full_w = 100, standby_share = 0.03, light_power = 1, watts_power = 1;
  double light(double percent) const;
  double power_w(double percent) const;
};

struct SettleBench {
  LightBench bench;  ///< readings carry the sensor's calibration error
  TrueDimmer dimmer;
  double calibration_sd = 0.01, calibration_error = 0;
  Rectangle area;
  std::vector<SettleSetting> settings, steps;  ///< as a stair of five stops tells them
  Band band;
  ServingRule rule;
};

/// The light as it truly is. Figures are those that a tester would find at the stations, as the product defines them.
class Truth {
 public:
  explicit Truth(const SettleBench& bench);
  AreaLight at(double height_m, double percent, const Band& band) const;
  /// The share of the area in the band, of the light itself, wherever no station is.
  double in_band_between_stations(double height_m, double percent, const Band& band) const;

 private:
  const std::vector<double>& light(double height_m) const;  ///< at the stations, then on the lattice
  const SettleBench& bench_;
  RoomLight model_;
  SettleLattice told_;
  std::vector<Vec3> places_;
  StationFactors stations_;
  mutable std::vector<std::pair<double, std::unique_ptr<std::vector<double>>>> known_;
};

/// The bench of a number, with readings at two to four heights. The target is drawn about what the fixture can do: most
/// can be met, some cannot.
SettleBench settle_bench(std::uint64_t seed, int number);

}  // namespace sunbreak::trial
