#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "core/optics/room.h"
#include "core/whole_light/whole_light.h"

/// Benches made up for trials of the fit: fixtures, rooms and readings whose truth is known.
namespace sunbreak::trial {

/// A fixture as it truly is, about its own middle, and as its record describes it.
struct TrueFixture {
  std::vector<std::vector<Emitter>> units;  ///< each about its unit's middle, facing down
  std::vector<Vec3> middles;
  FixtureOutline described;
  double ppf_umol_s = 0;
};

/// A fixture as it truly hangs.
struct TrueHang {
  double x_m = 0, y_m = 0;
  std::vector<Hang::Lean> leans;
};

struct LightBench {
  std::string fixture, beam;
  bool open = false;
  bool traced = false;  ///< readings and truth by following photons, not by the model
  Room room;            ///< as it truly is
  TrueFixture lamp;
  TrueHang hang;
  std::vector<double> heights_m;  ///< as measured
  std::vector<double> true_heights_m;
  double noise = 0.01;
  /// Root of the mean square of (reading − light) / light at the heights and places that readings are labeled with:
  /// noise, places and heights together.
  double reading_scatter = 0;
  WholeLightQuestion question;
  int odd_sweep = -1, odd_station = -1;

  std::vector<double> utilization;  ///< truth, one a height
  Room other_room;                  ///< the one it is restated in
  double other_height_m = 0;
  double other_mean = 0;  ///< truth, hung true over its middle
};

inline const char* const fixture_names[] = {"board", "six bars", "round board", "lensed strip", "twin panels"};
inline const char* const beam_names[] = {"wide", "lensed", "hollow", "two-lobed", "unlike along and across"};

/// The bench of a number: every number its own, the same for ever.
LightBench light_bench(std::uint64_t seed, int number, bool traced, bool with_truth_elsewhere = true);

/// The lamp's emitters as they hang at a height over the middle of a room.
std::vector<Emitter> hung_emitters(const TrueFixture& lamp, const TrueHang& hang, const Room& room, double height_m);

}  // namespace sunbreak::trial
