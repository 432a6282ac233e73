#include "evaluation/lineup/shared_sources.h"

#include <fmt/format.h>

#include <algorithm>
#include <iterator>
#include <utility>

#include "evaluation/shared_parts.h"

namespace sunbreak::evaluation {
namespace {

std::string meter_words(const Meter* meter, const std::string& owner) {
  return meter ? fmt::format("{}|{}|{}|{}", owner, meter->kind, meter->name, meter->calibrated_on) : std::string();
}

}  // namespace

std::string shared_source(std::string_view contribution, const TestRecord& record, const Sweep& sweep,
                          const std::string& owner) {
  const std::string sensor = meter_words(record.meter(record.test.sensor_id), owner);
  if (!sensor.empty()) {
    if (contribution == "cosine") return "cosine|" + sensor;
    if (contribution == "calibration")
      return fmt::format("calibration|{}|{}|{}", sensor, sweep.calibration_factor, sweep.moved_factor);
    if (contribution == "spectrum")
      return fmt::format("spectrum|{}|{}|{}", sensor, sweep.spectral_factor, record.fixture.name);
    if (contribution == "spectral") {
      const std::string light = kind_of_light(record.fixture);
      return light.empty() ? std::string() : fmt::format("spectral|{}|{}|{}", sensor, sweep.spectral_factor, light);
    }
  }
  const std::string wall = meter_words(record.meter(record.test.wall_meter_id), owner);
  if (contribution == "power" && !wall.empty()) return "power|" + wall;
  if (contribution == "edges")
    return fmt::format("edges|{}|{}|{}|{}", owner, record.bench.name, record.bench.width_m, record.bench.depth_m);
  return {};
}

std::string_view source_words(std::string_view source) {
  static constexpr std::pair<std::string_view, std::string_view> words[] = {
      {"calibration", "the sensor's calibration"},
      {"cosine", "its response at low angles"},
      {"spectral", "its response to this kind of light"},
      {"spectrum", "the lamp's spectrum"},
      {"power", "the wall meter"},
      {"edges", "the bench's edges"}};
  const std::string_view kind = source.substr(0, source.find('|'));
  const auto found = std::ranges::find(words, kind, &std::pair<std::string_view, std::string_view>::first);
  return found == std::end(words) ? "what they share" : found->second;
}

}  // namespace sunbreak::evaluation
