#include "instruments/simulator/device_commands.h"

#include <fmt/format.h>

#include <algorithm>

#include "core/quantity/number.h"

namespace sunbreak::instruments {
namespace {

constexpr std::size_t errors_kept = 16;
constexpr double most_fetched = 32;  ///< pairs in a line

std::string upper(std::string_view text) {
  std::string result(trimmed(text));
  std::transform(result.begin(), result.end(), result.begin(),
                 [](unsigned char c) { return static_cast<char>(std::toupper(c)); });
  return result;
}

/// Numbers with commas between them; nothing where one of them is none.
std::optional<std::vector<double>> numbers_in(std::string_view text) {
  std::vector<double> numbers;
  while (!trimmed(text).empty()) {
    const auto comma = text.find(',');
    const auto number = parse_number(trimmed(text.substr(0, comma)));
    if (!number) return {};
    numbers.push_back(*number);
    text = comma == std::string_view::npos ? std::string_view() : text.substr(comma + 1);
  }
  return numbers;
}

}  // namespace

DeviceCommands::DeviceCommands(Device device, SimulatedBench& bench, LineFaults& faults, double& speed)
    : device_(device), bench_(bench), faults_(faults), speed_(speed) {}

std::string DeviceCommands::identify() const {
  switch (device_) {
    case Device::Sensor:
      return "Tarn Hollow,simulated quantum sensor,QS-SIM,1";
    case Device::WallMeter:
      return "Tarn Hollow,simulated wall meter,W-SIM,1";
    case Device::Carriage:
      return "Tarn Hollow,simulated carriage,C-SIM,1";
    case Device::Spectrometer:
      return "Tarn Hollow,simulated spectrometer,SP-SIM,1";
    case Device::Control:
      return "Tarn Hollow,simulated bench control,B-SIM,1";
  }
  return {};
}

void DeviceCommands::remember(int code, const std::string& words) {
  if (errors_.size() < errors_kept) errors_.push_back(fmt::format("{},\"{}\"", code, words));
}

std::string DeviceCommands::answer(std::string_view line) {
  const std::string_view text = trimmed(line);
  if (text.empty()) return {};
  const auto space = text.find(' ');
  const std::string head = upper(text.substr(0, space));
  const auto numbers = numbers_in(space == std::string_view::npos ? std::string_view() : text.substr(space + 1));
  if (head == "*IDN?") return identify();
  if (head == "*CLS") return errors_.clear(), std::string();
  if (head == "SYST:ERR?") {
    if (errors_.empty()) return "0,\"No error\"";
    const std::string first = errors_.front();
    errors_.erase(errors_.begin());
    return first;
  }
  if (!numbers) return remember(-104, "Data type error"), std::string();
  if (device_ == Device::Sensor && head == "MEAS:PPFD?") return fmt::format("{:.1f}", bench_.sensor_reading());
  if (device_ == Device::WallMeter && head == "MEAS:POW?") {
    const PowerReading r = bench_.wall_reading();
    return fmt::format("{:.1f},{:.3f},{:.1f},{:.1f},{:.3f},{:.2f}", r.volts, r.amperes, r.watts, r.volt_amperes,
                       r.power_factor, r.hertz);
  }
  if (device_ == Device::WallMeter && head == "MEAS:TEMP?") return fmt::format("{:.1f}", bench_.driver_temperature_c());
  if (device_ == Device::Spectrometer)
    if (std::string answer = spectrometer(head, *numbers); !answer.empty()) return answer;
  if (device_ == Device::Carriage && head == "POS?")
    return fmt::format("{:.4f},{:.4f}", bench_.position().x, bench_.position().y);
  if (device_ == Device::Carriage && head == "MOV?") return bench_.moving() ? "1" : "0";
  if (device_ == Device::Carriage && head == "POS") {
    if (numbers->size() != 2) return remember(-109, "Missing parameter"), std::string();
    if (!bench_.move_to((*numbers)[0], (*numbers)[1])) remember(-222, "Data out of range");
    return {};
  }
  if (device_ == Device::Control && control(head, *numbers)) return "OK";
  remember(-113, "Undefined header");
  return {};
}

/// A spectrum is measured as a whole and fetched in pieces: pairs of wavelength and light.
std::string DeviceCommands::spectrometer(const std::string& head, const std::vector<double>& n) {
  if (head == "UNIT?") return "W/m2/nm";
  if (head == "MEAS:SPEC?") {
    measured_ = bench_.spectrum_reading();
    return std::to_string(measured_->values.size());
  }
  if (head != "FETC:SPEC?" || n.size() != 2 || !measured_) return {};
  const double count = static_cast<double>(measured_->values.size());
  if (!(n[0] >= 0 && n[0] < count && n[1] >= 1)) return {};
  std::string pairs;
  const double end = std::min({n[0] + n[1], n[0] + most_fetched, count});
  for (auto i = static_cast<std::size_t>(n[0]); i < static_cast<std::size_t>(end); ++i)
    pairs += fmt::format("{}{:g},{:.6g}", pairs.empty() ? "" : ",", measured_->wavelengths_nm[i], measured_->values[i]);
  return pairs;
}

bool DeviceCommands::control(const std::string& head, const std::vector<double>& n) {
  const auto has = [&](const char* name, std::size_t count) { return head == name && n.size() == count; };
  if (has("SIM:POW", 1))
    bench_.switch_on(n[0] != 0);
  else if (has("SIM:DIM", 1))
    bench_.set_dimmer(n[0]);
  else if (has("SIM:HEIG", 1))
    bench_.set_height(n[0]);
  else if (has("SIM:LEV", 2))
    bench_.set_level(n[0], n[1]);
  else if (has("SIM:CENT", 2))
    bench_.set_center(n[0], n[1]);
  else if (has("SIM:SPE", 1))
    speed_ = std::clamp(n[0], 0.0, 10'000.0);
  else if (has("SIM:SHAD", 2))
    bench_.set_shadow(Vec3{n[0], n[1], 0});
  else if (has("SIM:SHAD", 0))
    bench_.set_shadow(std::nullopt);
  else if (has("SIM:TILT", 3))
    bench_.set_tilt(Vec3{n[0], n[1], 0}, n[2]);
  else if (has("SIM:TILT", 0))
    bench_.set_tilt({});
  else if (has("SIM:TILC", 1))
    bench_.set_tilt_chance(n[0]);
  else if (has("SIM:SENS", 2))
    bench_.set_sensor(n[0], n[1]);
  else if (has("SIM:STUC", 1))
    bench_.set_stuck(n[0] != 0);
  else if (has("SIM:DROP", 1))
    faults_.drop_chance = n[0];
  else if (has("SIM:GARB", 1))
    faults_.garble_chance = n[0];
  else if (has("SIM:FLOO", 1))
    faults_.garbage_bytes = static_cast<int>(std::clamp(n[0], 0.0, 8e6));
  else if (has("SIM:AWAY", 1))
    faults_.away_s = std::clamp(n[0], 0.0, 3600.0);
  else
    return false;
  return true;
}

}  // namespace sunbreak::instruments
