#pragma once

#include <deque>
#include <optional>
#include <vector>

#include "core/walk/hold.h"

namespace sunbreak {

/// A setting of the dimmer as it was read.
struct ReadSetting {
  struct Light {
    int station = 0;
    HeldValue raw;  ///< 1 sample where it was typed
  };
  double percent = 0;  ///< on the dial
  double power_w = 0;
  std::optional<double> power_factor{};
  std::vector<Light> light{};  ///< one a station; none in standby
};

/// The course of a walk down a dimmer's stair: set the dial, wait until the watts hold still, read the light at each
/// station, next setting. Values are told to it, live or typed; it tells when a setting is read.
///
///   StairCourse stair({100, 50, 0}, {center});
///   stair.dial_is_set();
///   while (stair.phase() == StairCourse::Phase::Watts) stair.feed_watts(now_s, watts, power_factor);
///   stair.sensor_is_there();
///   while (stair.phase() == StairCourse::Phase::Light) stair.feed_light(ppfd);
///   if (stair.phase() == StairCourse::Phase::Read) keep(stair.step()) ? stair.next() : stair.read_again();
class StairCourse {
 public:
  enum class Phase {
    Set,    ///< the dial is to be turned
    Watts,  ///< until they hold still
    Light,  ///< station by station
    Read,   ///< the setting is read whole, and is to be kept
    Done
  };

  StairCourse() = default;
  /// The settings [% of the dial] and the stations, each in its order; neither may be empty.
  StairCourse(std::vector<double> settings_pct, std::vector<int> stations);

  Phase phase() const { return phase_; }
  /// The setting at hand [%]; none at the end.
  std::optional<double> setting_pct() const;
  std::size_t setting_at() const { return setting_at_; }
  std::size_t settings() const { return settings_pct_.size(); }
  /// The station whose light is read.
  int station() const { return stations_[station_at_]; }
  bool single_station() const { return stations_.size() == 1; }

  void dial_is_set();
  /// The sensor stands at the station: its next values are of it. They are let pass until this is told.
  void sensor_is_there();
  bool gathering() const { return gathering_; }

  /// A live value of the wall meter [W]. True where that was enough.
  bool feed_watts(double time_s, double watts, std::optional<double> power_factor);
  /// A live value of the light. True where that was enough.
  bool feed_light(double raw);
  /// What was typed, or is taken as it is.
  void take_watts(double watts, std::optional<double> power_factor);
  void take_light(const HeldValue& raw);

  /// The setting as read, in Phase::Read.
  const ReadSetting& step() const { return step_; }
  /// On to the next setting: this one was kept, or is left out.
  void next();
  /// It could not be kept: the same setting anew.
  void read_again();

  /// Share of the hold or of the values, 0 to 1.
  double progress() const;

 private:
  void set_up();
  void at_station();

  std::vector<double> settings_pct_;
  std::vector<int> stations_;
  std::size_t setting_at_ = 0, station_at_ = 0;
  Phase phase_ = Phase::Done;
  ReadSetting step_;
  HoldDetector hold_;
  std::deque<double> gathered_;
  bool gathering_ = false;
  int passing_ = 0;  ///< values left to let pass: they may be from before the change
};

}  // namespace sunbreak
