#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "instruments/simulator/simulated_bench.h"

namespace sunbreak::instruments {

enum class Device { Sensor, WallMeter, Carriage, Spectrometer, Control };

/// Faults of the line itself, which the server carries out.
struct LineFaults {
  double drop_chance = 0;    ///< answers that never arrive
  double garble_chance = 0;  ///< answers that arrive as garbage
  int garbage_bytes = 0;     ///< to send once, at once
  double away_s = 0;         ///< the device is to vanish for so long
};

/// The text commands of one simulated device, in the manner of IEEE 488.2 and SCPI; docs/instruments.md lists them. An
/// unknown or wrong command leaves an error in the queue that SYST:ERR? reads.
class DeviceCommands {
 public:
  DeviceCommands(Device device, SimulatedBench& bench, LineFaults& faults, double& speed);

  /// Carries a line out. Returns the answer without its line end, empty where the command has none.
  std::string answer(std::string_view line);

 private:
  std::string identify() const;
  std::string spectrometer(const std::string& head, const std::vector<double>& numbers);
  bool control(const std::string& head, const std::vector<double>& numbers);
  void remember(int code, const std::string& words);

  Device device_;
  SimulatedBench& bench_;
  LineFaults& faults_;
  double& speed_;
  std::vector<std::string> errors_;
  std::optional<Spectrum> measured_;  ///< by a spectrometer, until the next
};

}  // namespace sunbreak::instruments
