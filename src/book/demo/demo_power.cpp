#include "book/demo/demo_power.h"

#include <cmath>

#include "core/quantity/number.h"
#include "evaluation/wall_log.h"

namespace sunbreak::book {

using namespace evaluation;
namespace {

constexpr double sample_every_s = 5, light_noise = 0.0015, watts_noise = 0.0006, full_power_factor = 0.97;
constexpr double a_stop_s = 90;
/// Of the warm-up's fall, what a change of the dimmer brings.
constexpr double dimmed_fall = 0.15;

}  // namespace

void SamplePower::settle(const StabilizedPower& at, double from_s, double until_s) {
  edit_.add(LampEvent{0, test_.id, on_ ? "stop" : "on", at.dial_pct, utc_text(from_s)});
  const double fall = truth_.fall * (on_ ? dimmed_fall : 1);
  on_ = true;
  std::vector<LogSample> samples;
  double mains_v = 0;
  for (double t = sample_every_s; t < until_s - from_s; t += sample_every_s) {
    const double warmth = std::exp(-t / truth_.time_constant_s);
    mains_v = 0.98 * mains_v + 0.2 * normal_();
    LogSample s;
    s.time_s = from_s + t;
    s.light_raw = rounded_to(at.reference_raw * (1 + fall * warmth) * (1 + light_noise * normal_()), 1);
    s.power_w = rounded_to(at.watts * (1 + fall / 2 * warmth) * (1 + watts_noise * normal_()), 1);
    s.voltage_v = rounded_to(230.2 + mains_v, 1);
    s.apparent_va = rounded_to(s.power_w / full_power_factor, 1);
    s.current_a = rounded_to(s.apparent_va / s.voltage_v, 3);
    s.power_factor = full_power_factor;
    s.frequency_hz = rounded_to(50 + 0.01 * normal_(), 2);
    samples.push_back(s);
  }
  LogPart part;
  part.test_id = test_.id;
  part.source = "simulated";
  part.count = static_cast<int>(samples.size());
  part.samples = pack_samples(samples);
  edit_.add(part);
}

void SamplePower::walk_stair(const std::vector<StabilizedPower>& stops, int station, double from_s) {
  edit_.add(LampEvent{0, test_.id, "on", 100.0, utc_text(from_s - 3600)});
  double at = from_s;
  double full_w = 0;
  for (const StabilizedPower& s : stops) full_w = std::max(full_w, s.watts);
  for (const StabilizedPower& s : stops) {
    edit_.add(LampEvent{0, test_.id, "stop", s.dial_pct, utc_text(at)});
    StairStop stop{0, test_.id, s.dial_pct, {}, {}, utc_text(at + a_stop_s / 2)};
    stop.power_w = rounded_to(s.watts * (1 + watts_noise * normal_()), 1);
    stop.power_factor = rounded_to(s.dial_pct > 0 ? 0.98 - 0.1 * std::exp(-4 * s.watts / full_w) : 0.35, 2);
    const Id id = edit_.add(stop);
    if (s.dial_pct > 0)
      edit_.add(StairReading{0, id, station, rounded_to(s.reference_raw * (1 + 0.001 * normal_()), 1), "simulated", 5,
                             rounded_to(0.002 * s.reference_raw, 2)});
    at += a_stop_s;
  }
  switch_off(at);
}

std::vector<Id> SamplePower::take_temperatures(double at_s, double height_m) {
  std::vector<Id> taken;
  for (const PowerTruth::Shot& shot : truth_.shots) {
    Temperature t;
    t.test_id = test_.id;
    t.place = shot.place;
    t.method = shot.method;
    t.read_c = shot.read_c;
    t.emissivity_set = shot.emissivity_set;
    t.emissivity_true = shot.emissivity_true;
    t.bare_metal = shot.bare_metal;
    t.material = shot.material;
    t.height_m = height_m;
    t.percent = shot.percent;
    t.hottest_c = shot.hottest_c, t.coldest_c = shot.coldest_c;
    t.taken_at = utc_text(at_s + 60 * shot.later_min);
    taken.push_back(edit_.add(t));
  }
  return taken;
}

void SamplePower::switch_off(double at_s) {
  edit_.add(LampEvent{0, test_.id, "off", {}, utc_text(at_s)});
  on_ = false;
}

}  // namespace sunbreak::book
