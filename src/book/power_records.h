#pragma once

#include "book/record_table.h"

/// The rows about watts, warm-up, dimmer and heat.
namespace sunbreak::book {

/// What a wall-plug meter showed when it was written down: by the test's clock, or in the state a sweep was walked in.
/// Light at the reference station may stand beside it.
struct WallReading {
  Id id = 0, test_id = 0;
  std::optional<Id> sweep_id;  ///< none: of the warm-up
  std::optional<double> power_w, voltage_v, current_a, apparent_va, power_factor, frequency_hz, light_raw;
  std::string taken_at;
  bool operator==(const WallReading&) const = default;
};
template <>
struct Table<WallReading> {
  static constexpr const char* name = "wall_reading";
  static constexpr auto columns = std::tuple{
      Column{"test_id", &WallReading::test_id, "the test"},
      Column{"sweep_id", &WallReading::sweep_id, "the sweep; empty: of the warm-up"},
      Column{"power_w", &WallReading::power_w, "real power [W]"},
      Column{"voltage_v", &WallReading::voltage_v, "voltage [V]"},
      Column{"current_a", &WallReading::current_a, "current [A]"},
      Column{"apparent_va", &WallReading::apparent_va, "apparent power [VA]"},
      Column{"power_factor", &WallReading::power_factor, "power factor"},
      Column{"frequency_hz", &WallReading::frequency_hz, "frequency [Hz]"},
      Column{"light_raw", &WallReading::light_raw, "light at the reference station [umol/m2/s before correction]"},
      Column{"taken_at", &WallReading::taken_at, "when (UTC)"}};
};

/// A stretch of the log of wall and light, its samples packed (see wall_log.h).
struct LogPart {
  Id id = 0, test_id = 0;
  std::string source;  ///< live, simulated or file
  std::string origin;  ///< the file's name
  double dark_offset = 0, calibration_factor = 1;
  int count = 0;
  Bytes samples;
  bool operator==(const LogPart&) const = default;
};
template <>
struct Table<LogPart> {
  static constexpr const char* name = "log_part";
  static constexpr auto columns =
      std::tuple{Column{"test_id", &LogPart::test_id, "the test"},
                 Column{"source", &LogPart::source, "live, simulated or file"},
                 Column{"origin", &LogPart::origin, "name of the file it came from"},
                 Column{"dark_offset", &LogPart::dark_offset, "subtracted from the raw light"},
                 Column{"calibration_factor", &LogPart::calibration_factor, "multiplies the light"},
                 Column{"count", &LogPart::count, "samples in it"},
                 Column{"samples", &LogPart::samples, "the samples, packed"}};
};

/// Something that begins the wait for light and watts anew, by the test's clock.
struct LampEvent {
  Id id = 0, test_id = 0;
  std::string kind = "on";  ///< on, off or stop
  std::optional<double> percent;
  std::string at;
  bool operator==(const LampEvent&) const = default;
};
template <>
struct Table<LampEvent> {
  static constexpr const char* name = "lamp_event";
  static constexpr auto columns = std::tuple{Column{"test_id", &LampEvent::test_id, "the test"},
                                             Column{"kind", &LampEvent::kind, "on, off, or stop (the dimmer was set)"},
                                             Column{"percent", &LampEvent::percent, "dimmer setting [% of the dial]"},
                                             Column{"at", &LampEvent::at, "when (UTC)"}};
};

/// One setting of the dimmer on the stair.
struct StairStop {
  Id id = 0, test_id = 0;
  double percent = 100;
  std::optional<double> power_w, power_factor;
  std::string taken_at;
  bool operator==(const StairStop&) const = default;
};
template <>
struct Table<StairStop> {
  static constexpr const char* name = "stair_stop";
  static constexpr auto columns =
      std::tuple{Column{"test_id", &StairStop::test_id, "the test"},
                 Column{"percent", &StairStop::percent, "dimmer setting [% of the dial]; 0: standby"},
                 Column{"power_w", &StairStop::power_w, "power once it held [W]"},
                 Column{"power_factor", &StairStop::power_factor, "power factor"},
                 Column{"taken_at", &StairStop::taken_at, "when (UTC)"}};
};

/// Light at one station while the dimmer stood at a stop of the stair.
struct StairReading {
  Id id = 0, stair_stop_id = 0;
  int station = 0;
  double raw = 0;
  std::string source;
  int samples = 1;
  std::optional<double> spread{};
  bool operator==(const StairReading&) const = default;
};
template <>
struct Table<StairReading> {
  static constexpr const char* name = "stair_reading";
  static constexpr auto columns =
      std::tuple{Column{"stair_stop_id", &StairReading::stair_stop_id, "the setting"},
                 Column{"station", &StairReading::station, "station index in the plan's grid"},
                 Column{"raw", &StairReading::raw, "value as read [umol/m2/s before correction]"},
                 Column{"source", &StairReading::source, "typed, live or simulated"},
                 Column{"samples", &StairReading::samples, "sensor values averaged into raw"},
                 Column{"spread", &StairReading::spread, "their standard deviation, in the unit of raw"}};
};

/// Watts at which a place reads what a crop asks for, found by turning the dimmer.
struct TargetSetting {
  Id id = 0, test_id = 0;
  std::string target_name, place;
  double wanted_ppfd = 0;
  std::optional<double> height_m, percent;
  double raw = 0;
  std::optional<double> power_w;
  std::string taken_at;
  bool operator==(const TargetSetting&) const = default;
};
template <>
struct Table<TargetSetting> {
  static constexpr const char* name = "target_setting";
  static constexpr auto columns =
      std::tuple{Column{"test_id", &TargetSetting::test_id, "the test"},
                 Column{"target_name", &TargetSetting::target_name, "crop target"},
                 Column{"place", &TargetSetting::place, "where the light was read: corner, edge or center"},
                 Column{"wanted_ppfd", &TargetSetting::wanted_ppfd, "PPFD asked for there [umol/m2/s]"},
                 Column{"height_m", &TargetSetting::height_m, "hanging height [m]"},
                 Column{"percent", &TargetSetting::percent, "what the dial shows [%]"},
                 Column{"raw", &TargetSetting::raw, "value as read [umol/m2/s before correction]"},
                 Column{"power_w", &TargetSetting::power_w, "power at the wall plug [W]"},
                 Column{"taken_at", &TargetSetting::taken_at, "when (UTC)"}};
};

/// A surface temperature as it was taken.
struct Temperature {
  Id id = 0, test_id = 0;
  std::string place;
  std::string method = "contact";  ///< infrared, camera or contact
  double read_c = 0;
  std::optional<double> emissivity_set, emissivity_true, reflected_c;
  bool bare_metal = false;
  std::string taken_at, notes;
  bool operator==(const Temperature&) const = default;
};
template <>
struct Table<Temperature> {
  static constexpr const char* name = "temperature";
  static constexpr auto columns =
      std::tuple{Column{"test_id", &Temperature::test_id, "the test"},
                 Column{"place", &Temperature::place, "what was measured; 'air' for the air around the fixture"},
                 Column{"method", &Temperature::method, "infrared, camera or contact"},
                 Column{"read_c", &Temperature::read_c, "temperature as read [deg C]"},
                 Column{"emissivity_set", &Temperature::emissivity_set, "emissivity the instrument was set to"},
                 Column{"emissivity_true", &Temperature::emissivity_true, "emissivity of the surface"},
                 Column{"reflected_c", &Temperature::reflected_c, "temperature of what the surface mirrors [deg C]"},
                 Column{"bare_metal", &Temperature::bare_metal, "bare or polished metal"},
                 Column{"taken_at", &Temperature::taken_at, "when (UTC)"},
                 Column{"notes", &Temperature::notes, "remarks"}};
};

}  // namespace sunbreak::book
