#include "book/demo/demo_meters.h"

#include <cmath>

#include "book/demo/demo_spectra.h"
#include "core/meters/lux_factor.h"
#include "core/quantity/normal_deviates.h"
#include "core/spectrum/color.h"
#include "core/spectrum/tungsten_lamp.h"
#include "record/spectrum_samples.h"
#include "record/utc.h"

namespace sunbreak::book {
namespace {

constexpr double first_day_s = 1'777'883'400;  ///< 4 May 2026, 08:30 UTC
constexpr double seconds_a_day = 86'400;
constexpr int days = 49, moves_on = 32;

double rounded(double value) { return std::round(10 * value) / 10; }

}  // namespace

void know_response(record::Meter& sensor) {
  record::put_response(sensor, {{385, 395, 405, 415, 450, 500, 550, 600, 650, 680, 692, 699, 706, 715},
                                {0, 0.35, 0.9, 0.97, 0.985, 1, 1.005, 1, 0.995, 0.985, 0.96, 0.5, 0.08, 0}});
  sensor.response_origin = "as its maker plots it";
  Spectrum tungsten = tungsten_lamp();
  for (double& value : tungsten.values) value = std::round(1e4 * value) / 1e4;
  record::put_reference_light(sensor, tungsten);
  sensor.reference_light_name = tungsten_lamp_name;
}

record::Meter sample_lux_meter() { return {0, "lux", "borrowed lux meter", "2024-09-03", 1, 0, 3.0, 100000.0}; }

record::FittedLuxFactor sample_lux_factor(record::Id lux_meter, record::Id fixture) {
  const auto light = record::spectrum_of(sample_spectra().front());
  const double k = 1 / lux_per_ppfd(SpectralCurve(light.value()));
  NormalDeviates deviates(214);
  std::vector<LuxPair> pairs;
  std::vector<double> numbers;
  for (const double ppfd : {62.0, 118.0, 203.0, 305.0, 412.0, 528.0, 655.0, 742.0}) {
    // The meter's own eye reads this light 2 % less than the standard one.
    pairs.push_back({std::round(0.98 * ppfd / k * (1 + 0.006 * deviates())), rounded(ppfd * (1 + 0.004 * deviates()))});
    numbers.push_back(pairs.back().lux);
    numbers.push_back(pairs.back().ppfd);
  }
  const LuxFactor fitted = lux_factor(pairs).value();
  record::FittedLuxFactor row;
  row.meter_id = lux_meter;
  row.name = "under Ostler Six-Bar";
  row.light_class = "white with red";
  row.fixture = "Ostler Six-Bar", row.fixture_id = fixture;
  row.k = fitted.k, row.k_expanded = fitted.k_expanded;
  row.lowest_lux = fitted.lowest_lux, row.highest_lux = fitted.highest_lux;
  row.pairs = record::text_of_numbers(numbers);
  row.reference = "loft sensor", row.reference_uncertainty_pct = 2.5;
  record::put_light(row, light.value());
  row.made_on = "2026-04-20";
  return row;
}

std::vector<record::CheckLampReading> sample_check_readings(record::Id steady, record::Id moving) {
  NormalDeviates deviates(37);
  std::vector<record::CheckLampReading> readings;
  for (int day = 0; day < days; ++day) {
    if (day % 7 >= 5) continue;
    const double place = 1 + 0.003 * deviates();
    int minute = 0;
    for (const record::Id meter : {steady, moving}) {
      const double level = meter == steady ? 1 : 0.97 * (day >= moves_on ? 0.982 : 1);
      record::CheckLampReading row;
      row.meter_id = meter;
      row.lamp = "Ostler Six-Bar, window bay, 40 cm, 50 %";
      row.taken_at = record::utc_text(first_day_s + day * seconds_a_day + 60.0 * minute++);
      std::vector<double> light;
      for (const double there : {412.0, 361.0, 358.0})
        light.push_back(rounded(there * level * place * (1 + 0.0025 * deviates())));
      row.light = record::text_of_numbers(light);
      row.watts = rounded(163.4 * (1 + 0.001 * deviates()));
      row.source = "simulated";
      readings.push_back(row);
    }
  }
  return readings;
}

}  // namespace sunbreak::book
