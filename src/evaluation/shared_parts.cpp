#include "evaluation/shared_parts.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <string>

#include "core/quantity/lower_case.h"
#include "evaluation/budget_question.h"
#include "evaluation/sensor_spectrum.h"
#include "record/plan_grid.h"

namespace sunbreak::evaluation {
namespace {

constexpr double one_bench_side_m = 0.001;

bool same_space(const Bench& a, const Bench& b) {
  return a.name == b.name && std::abs(a.width_m - b.width_m) <= one_bench_side_m &&
         std::abs(a.depth_m - b.depth_m) <= one_bench_side_m;
}

/// The correlation of what the sensor's spectral response does under two lamps of one kind.
double alike_share(const TestRecord& a, const Sweep& sweep_a, const TestRecord& b, const Sweep& sweep_b) {
  const auto alike = [](const TestRecord& record, const Sweep& sweep) {
    const double whole = spectral_standard(record, sweep);
    return whole > 0 ? std::max(0.0, 1 - std::pow(spectral_apart(record, sweep) / whole, 2)) : 0;
  };
  return std::sqrt(alike(a, sweep_a) * alike(b, sweep_b));
}

}  // namespace

bool same_meter(const Meter* a, const Meter* b) {
  return a && b && a->kind == b->kind && a->name == b->name && a->calibrated_on == b->calibrated_on;
}

std::string kind_of_light(const Fixture& fixture) {
  static const std::map<std::string, std::string, std::less<>> kinds{
      {"sodium", "sodium"}, {"hps", "sodium"}, {"halide", "metal halide"},    {"ceramic", "metal halide"},
      {"led", "LED"},       {"diode", "LED"},  {"fluorescent", "fluorescent"}};
  const std::string text = lower_case(fixture.kind + " " + fixture.emitters + " " + fixture.name);
  std::string word;
  for (const char c : text + " ") {
    if (c >= 'a' && c <= 'z') {
      word += c;
      continue;
    }
    if (const auto kind = kinds.find(word.ends_with('s') && word != "hps" ? word.substr(0, word.size() - 1) : word);
        kind != kinds.end())
      return kind->second;
    word.clear();
  }
  return {};
}

double spectral_apart(const TestRecord& record, const Sweep& sweep) {
  // Of one of two: their difference is √2 of it.
  constexpr double unknown = 0.0075 / std::numbers::sqrt2, least = 0.002;
  const auto here = spectral_correction_here(record);
  if (!here || !*here) return unknown;
  const SpectralCorrection& c = here->value();
  return std::max({least, std::abs(c.factor / sweep.spectral_factor - 1), c.standard_uncertainty});
}

std::function<double(std::string_view)> shared_parts(const TestRecord& a, const Sweep& sweep_a, const TestRecord& b,
                                                     const Sweep& sweep_b) {
  std::map<std::string, double, std::less<>> shared;
  if (same_meter(a.meter(a.test.sensor_id), b.meter(b.test.sensor_id))) {
    shared["cosine"] = 1;
    const bool one_lamp = a.fixture.name == b.fixture.name;
    const std::string kind = kind_of_light(a.fixture);
    if (sweep_a.spectral_factor == sweep_b.spectral_factor &&
        (one_lamp || (!kind.empty() && kind == kind_of_light(b.fixture))))
      shared["spectral"] = one_lamp ? 1 : alike_share(a, sweep_a, b, sweep_b);
    if (sweep_a.calibration_factor == sweep_b.calibration_factor && sweep_a.moved_factor == sweep_b.moved_factor)
      shared["calibration"] = 1;
  }
  if (same_meter(a.meter(a.test.wall_meter_id), b.meter(b.test.wall_meter_id))) shared["power"] = 1;
  if (same_space(a.bench, b.bench)) {
    shared["edges"] = 1;
    if (grid_of(sweep_a) == grid_of(sweep_b)) shared["grid"] = 1;
  }
  return [shared](std::string_view contribution) {
    const auto found = shared.find(contribution);
    return found == shared.end() ? 0 : found->second;
  };
}

}  // namespace sunbreak::evaluation
