#pragma once

#include <cstdint>
#include <optional>
#include <vector>

#include "core/optics/room_light.h"
#include "core/quantity/normal_deviates.h"
#include "core/spectrum/spectrum.h"

namespace sunbreak::instruments {

/// What hangs where, and how the devices of the bench behave. The defaults are a six-bar fixture in a lined tent.
struct SimulatedScene {
  Room room{1.2, 1.2, 2.0, {0.82, 0.82, 0.82, 0.82, 0.7, 0.25}};
  std::vector<Emitter> fixture;  ///< about its middle, flux at 100 % and stabilized
  double watts_at_full = 322;
  double height_m = 0.45;
  double off_x_m = 0.01, off_y_m = 0, roll_deg = 0, pitch_deg = 0;

  double light_drop = 0.06, light_stabilizes_s = 420;  ///< light at switch-on is above the stabilized by this share
  double watts_drop = 0.035, watts_stabilize_s = 300;

  double calibration_error = -0.012, noise = 0.003, dark = 0.4, resolution = 0.1;
  double cosine_loss = 0.04;  ///< share of light at grazing angles that the sensor misses
  double tilt_chance = 0.01, tilt_deg = 6;

  double mains_v = 230, mains_wander_v = 1.5, mains_hz = 50, meter_noise = 0.001;
  double carriage_m_s = 0.25, margin_m = 0.03;

  static SimulatedScene six_bars();
};

struct PowerReading {
  double volts = 0, amperes = 0, watts = 0, volt_amperes = 0, power_factor = 0, hertz = 0;
};

/// A bench that behaves like a real one, faults included. It has no clock of its own: advance() moves it on.
class SimulatedBench {
 public:
  explicit SimulatedBench(SimulatedScene scene, std::uint64_t seed = 1);

  void advance(double seconds);
  double time_s() const { return time_s_; }

  void switch_on(bool on);
  bool is_on() const { return on_since_s_.has_value(); }
  void set_dimmer(double percent);  ///< 0 … 110
  void set_height(double height_m);
  void set_level(double roll_deg, double pitch_deg);
  void set_center(double off_x_m, double off_y_m);

  /// Sends the carriage to a place of the floor. False where its limits do not reach.
  bool move_to(double x_m, double y_m);
  Vec3 position() const { return position_; }
  bool moving() const;

  /// What the sensor shows now, where the carriage stands [raw, as the sensor is calibrated].
  double sensor_reading();
  /// The truth there, stabilized or not: PPFD without the sensor's errors.
  double true_ppfd() const;
  /// What a spectrometer there would show, with its noise [W m⁻² nm⁻¹].
  Spectrum spectrum_reading();
  PowerReading wall_reading();
  double driver_temperature_c() const;

  /// Faults: a shadow over a place, a sensor that repeats its last value.
  void set_shadow(std::optional<Vec3> place, double radius_m = 0.06, double passed_share = 0.6);
  /// At a place the sensor stands tilted, by so much [degrees] toward the right wall; elsewhere it tilts by chance.
  void set_tilt(std::optional<Vec3> place, double tilt_deg = 0);
  /// Puts another sensor in its place: one off by `calibration_error`, that misses `cosine_loss` of grazing light.
  void set_sensor(double calibration_error, double cosine_loss);
  void set_tilt_chance(double share) { scene_.tilt_chance = share; }
  void set_stuck(bool stuck) { stuck_ = stuck; }

 private:
  double light_factor() const;
  double watts() const;
  const std::vector<Emitter>& hung() const;

  SimulatedScene scene_;
  RoomLight light_;
  NormalDeviates deviates_;
  double time_s_ = 0, dimmer_pct_ = 100, mains_offset_v_ = 0;
  std::optional<double> on_since_s_;
  Vec3 position_, target_;
  std::optional<Vec3> shadow_, tilted_at_;
  double tilted_deg_ = 0;
  double shadow_radius_m_ = 0, shadow_passes_ = 1;
  bool stuck_ = false;
  double last_shown_ = 0;
  mutable std::vector<Emitter> hung_;
  mutable std::optional<Vec3> known_place_;
  mutable Prediction known_;
};

}  // namespace sunbreak::instruments
