#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/display.h"
#include "evaluation/check_lamps.h"
#include "evaluation/lineup/way_light.h"
#include "record/spectrum_samples.h"

namespace sunbreak::evaluation {
namespace {

constexpr std::size_t readings_that_count = 6, least_readings = 3;
constexpr double least_standard = 0.002;  ///< of the lamp's level, however alike its readings: it is placed by hand

struct LampLevel {
  double ppfd = 0, standard = 0;  ///< mean of the stations; its standard uncertainty, relative
  std::size_t readings = 0;
};

/// What a sensor made of a lamp about a moment: by the readings that lie nearest to it.
std::optional<LampLevel> level_about(const TestRecord& record, const Meter& sensor, const std::string& lamp,
                                     double time_s) {
  struct Timed {
    double away_s, level;
    std::string taken_at;
  };
  std::vector<Timed> all;
  for (const CheckLampReading& r : record.check_readings) {
    const Meter* meter = record.meter(r.meter_id);
    const auto light = numbers_of(r.light);
    if (r.lamp != lamp || !meter || meter->name != sensor.name || !light || light->empty()) continue;
    if (std::ranges::find(all, r.taken_at, &Timed::taken_at) != all.end()) continue;  // came back with a package
    double sum = 0;
    for (const double value : *light) sum += value;
    all.push_back({std::fabs(seconds_of(r.taken_at) - time_s), sum / static_cast<double>(light->size()), r.taken_at});
  }
  std::ranges::stable_sort(all, {}, &Timed::away_s);
  if (all.size() > readings_that_count) all.resize(readings_that_count);
  if (all.size() < least_readings) return {};
  LampLevel told;
  told.readings = all.size();
  const double n = static_cast<double>(all.size());
  for (const Timed& t : all) told.ppfd += t.level / n;
  double squares = 0;
  for (const Timed& t : all) squares += std::pow(t.level / told.ppfd - 1, 2);
  told.standard = std::max(least_standard, std::sqrt(squares / (n - 1) / n));
  return told;
}

}  // namespace

std::optional<Problem> bring_to_lamp(WayLight& light, const Evaluation& evaluation, const LineUpWay& way) {
  const TestRecord& record = evaluation.record();
  const Meter* sensor = record.meter(record.test.sensor_id);
  const double tested_s = tested_at_s(record.test);
  if (!sensor || std::isnan(tested_s))
    return Problem{"its sensor or its day is not stated", "it cannot be tied to a check lamp", "state both on Rig"};
  const auto level = level_about(record, *sensor, way.check_lamp, tested_s);
  if (!level)
    return Problem{fmt::format("{} has fewer than three readings of the check lamp '{}'", sensor->name, way.check_lamp),
                   "its board cannot be tied to the others'", "read the lamp with it, by Check lamp on Home"};
  // The lamp was read by the sensor as it was then: what brought it back since does not count beside it.
  const double factor = way.lamp_ppfd / level->ppfd / light.sweep->moved_factor;
  for (double& ppfd : light.ppfd) ppfd *= factor;
  light.budget.calibration = {level->standard, Origin::Measured,
                              fmt::format("{} readings of the check lamp", level->readings)};
  light.budget.expected_ppfd.clear();
  light.by_lamp = true, light.as_walked = false;
  light.changes.push_back(
      fmt::format("Brought to the check lamp '{}' at {} µmol/m²/s: {} read it as {}, so its light counts × {:.4f} "
                  "(± {:.1f} %); the sensor's own calibration does not count.",
                  way.check_lamp, short_number(way.lamp_ppfd, 1), sensor->name, short_number(level->ppfd, 1), factor,
                  200 * level->standard));
  return {};
}

}  // namespace sunbreak::evaluation
