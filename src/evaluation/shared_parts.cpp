#include "evaluation/shared_parts.h"

#include <cmath>
#include <set>
#include <string>

#include "record/plan_grid.h"

namespace sunbreak::evaluation {
namespace {

constexpr double one_bench_side_m = 0.001;

bool same_space(const Bench& a, const Bench& b) {
  return a.name == b.name && std::abs(a.width_m - b.width_m) <= one_bench_side_m &&
         std::abs(a.depth_m - b.depth_m) <= one_bench_side_m;
}

}  // namespace

bool same_meter(const Meter* a, const Meter* b) {
  return a && b && a->kind == b->kind && a->name == b->name && a->calibrated_on == b->calibrated_on;
}

std::function<bool(std::string_view)> shared_parts(const TestRecord& a, const Sweep& sweep_a, const TestRecord& b,
                                                   const Sweep& sweep_b) {
  std::set<std::string, std::less<>> shared;
  if (same_meter(a.meter(a.test.sensor_id), b.meter(b.test.sensor_id))) {
    shared.insert("cosine");
    if (sweep_a.spectral_factor == sweep_b.spectral_factor) shared.insert("spectral");
    if (sweep_a.calibration_factor == sweep_b.calibration_factor && sweep_a.moved_factor == sweep_b.moved_factor)
      shared.insert("calibration");
  }
  if (same_meter(a.meter(a.test.wall_meter_id), b.meter(b.test.wall_meter_id))) shared.insert("power");
  if (same_space(a.bench, b.bench)) {
    shared.insert("edges");
    if (grid_of(sweep_a) == grid_of(sweep_b)) shared.insert("grid");
  }
  return [shared](std::string_view contribution) { return shared.contains(contribution); };
}

}  // namespace sunbreak::evaluation
