#pragma once

#include <array>
#include <memory>
#include <stop_token>
#include <string>
#include <vector>

#include "core/bench/grid.h"
#include "core/optics/hung_fixture.h"
#include "core/optics/lobes.h"
#include "core/optics/room.h"
#include "core/sweep/field.h"

namespace sunbreak {

/// A value with its ± for k = 2, in the same unit; both NaN where there is none.
struct FoundValue {
  double value = unread, expanded = unread;
};

/// What is measured of one sweep, for the fit.
struct FitSweep {
  double height_m = 0;  ///< from the sensor's receiving surface to the emitters, as measured
  int setting = 0;      ///< index of the dimmer setting
  Layout layout;
  std::vector<double> ppfd;  ///< one a station, corrected; NaN where unread
};

/// What is believed of a reflectance before anything is measured.
struct BelievedReflectance {
  double value = 0, sd = 0;  ///< value 0: the side is open and sends nothing back
};

struct WholeLightQuestion {
  Room room;                                 ///< its size; reflectances are those below
  std::array<BelievedReflectance, 6> sides;  ///< in the order of `faces`
  double walls_alike_sd = 0.035;             ///< of a wall about the mean of all walls
  FixtureOutline outline;
  std::vector<FitSweep> sweeps;
  double noise = 0.01;         ///< relative standard deviation of one reading; the residuals correct it
  double place_m = 0.003;      ///< standard deviation of a station's place, each way
  double height_sd_m = 0.003;  ///< of one height
  double datum_sd_m = 0.005;   ///< of what is common to all heights
  double span_sd = 0.08;       ///< of the emitters' extent beside the described size
  double offset_sd_m = 0.03, lean_sd_deg = 1.5, share_sd = 0.1;  ///< of how it hangs, and of a unit's part of the light
};

/// A reading so far from its neighbors' fit that it was left out.
struct OddReading {
  int sweep = 0, station = 0;
  double residual = 0;  ///< relative to the fit
};

struct Utilization {
  double height_m = 0;
  FoundValue share;  ///< of the whole light, that lands on the measured area
};

class WholeLightModel;

/// A fixture's whole light, found from its readings in a room. Where `fits` is false there are no figures, and `reason`
/// says what does not fit, `advice` what would help.
struct WholeLight {
  bool fits = false;
  std::string reason, advice;
  FoundValue ppf_umol_s;                    ///< at the first setting
  LobeFlux mix{};                           ///< its beam [µmol/s]
  std::vector<FoundValue> setting_factors;  ///< light of each setting beside the first's; whether it fits or not
  FoundValue half_angle_deg;
  std::vector<Utilization> utilization;   ///< one a height, lowest first
  std::array<FoundValue, 6> reflectance;  ///< of the sides that reflect, in the order of `faces`
  FoundValue wall_reflectance;            ///< mean of the walls that reflect
  FoundValue offset_x_m, offset_y_m, height_offset_m;
  std::vector<FoundValue> roll_deg, pitch_deg, unit_share;  ///< one a unit; of many units one for all
  double residual_rms = unread;                             ///< relative, of all readings taken
  double noise = unread;      ///< standard deviation of a reading, as the residuals show it
  double structure = unread;  ///< how much larger residuals of whole regions are than noise would make them; 1 is noise
  std::vector<std::vector<double>> residuals;  ///< one list a sweep: (read − fitted) / fitted, NaN where unread
  std::vector<OddReading> odd;
  std::shared_ptr<const WholeLightModel> model;  ///< for predictions; null where it does not fit
};

/// Fits whole light, beam, hanging and reflectances to all readings of a test at once: docs/method.md, "Whole light".
/// Where `stop` asks for an end the work is given up, and what is returned means nothing.
WholeLight whole_light(const WholeLightQuestion& question, const std::stop_token& stop = {});

}  // namespace sunbreak
