#include "instruments/simulator/simulated_bench.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/optics/fixture_shapes.h"
#include "instruments/simulator/lamp_spectrum.h"

namespace sunbreak::instruments {
namespace {

constexpr double same_place_m = 0.02;

constexpr double wander_time_s = 40, driver_warms_s = 1500, air_c = 22;

/// Light and watts against the dial: neither is linear.
double dimmed_light(double share) { return share * (1.06 - 0.06 * share); }
double dimmed_watts(double share) { return 0.03 + 0.97 * share; }

}  // namespace

SimulatedScene SimulatedScene::six_bars() {
  SimulatedScene scene;
  scene.fixture = bars(6, 1.0, 1.02, 18, 896);
  return scene;
}

SimulatedBench::SimulatedBench(SimulatedScene scene, std::uint64_t seed)
    : scene_(std::move(scene)),
      light_(scene_.room),
      deviates_(seed),
      position_{scene_.room.width_m / 2, scene_.room.depth_m / 2, 0},
      target_(position_) {}

void SimulatedBench::advance(double seconds) {
  time_s_ += seconds;
  const Vec3 way = target_ - position_;
  const double distance = std::sqrt(dot(way, way)), step = scene_.carriage_m_s * seconds;
  if (distance <= step)
    position_ = target_;
  else
    position_ = position_ + Vec3{way.x * step / distance, way.y * step / distance, 0};
  const double keep = std::exp(-seconds / wander_time_s);
  mains_offset_v_ = keep * mains_offset_v_ + std::sqrt(1 - keep * keep) * scene_.mains_wander_v * deviates_();
}

void SimulatedBench::switch_on(bool on) {
  on_since_s_ = on ? std::optional(on_since_s_.value_or(time_s_)) : std::nullopt;
}
void SimulatedBench::set_dimmer(double percent) { dimmer_pct_ = std::clamp(percent, 0.0, 110.0); }

void SimulatedBench::set_height(double height_m) {
  scene_.height_m = std::clamp(height_m, 0.02, scene_.room.height_m - 0.02);
  hung_.clear();
}

void SimulatedBench::set_level(double roll_deg, double pitch_deg) {
  scene_.roll_deg = roll_deg, scene_.pitch_deg = pitch_deg;
  hung_.clear();
}

void SimulatedBench::set_center(double off_x_m, double off_y_m) {
  scene_.off_x_m = off_x_m, scene_.off_y_m = off_y_m;
  hung_.clear();
}

bool SimulatedBench::move_to(double x_m, double y_m) {
  const double m = scene_.margin_m;
  if (!(x_m >= m && x_m <= scene_.room.width_m - m && y_m >= m && y_m <= scene_.room.depth_m - m)) return false;
  target_ = {x_m, y_m, 0};
  return true;
}

bool SimulatedBench::moving() const { return !(position_ == target_); }

const std::vector<Emitter>& SimulatedBench::hung() const {
  if (hung_.empty()) {
    hung_ =
        placed(tilted(scene_.fixture, scene_.roll_deg, scene_.pitch_deg),
               {scene_.room.width_m / 2 + scene_.off_x_m, scene_.room.depth_m / 2 + scene_.off_y_m, scene_.height_m});
    known_place_.reset();
  }
  return hung_;
}

double SimulatedBench::light_factor() const {
  if (!on_since_s_) return 0;
  const double warmth = std::exp(-(time_s_ - *on_since_s_) / scene_.light_stabilizes_s);
  return dimmed_light(dimmer_pct_ / 100) * (1 + scene_.light_drop * warmth);
}

double SimulatedBench::watts() const {
  if (!on_since_s_) return 0.4;
  const double warmth = std::exp(-(time_s_ - *on_since_s_) / scene_.watts_stabilize_s);
  return scene_.watts_at_full * dimmed_watts(dimmer_pct_ / 100) * (1 + scene_.watts_drop * warmth);
}

double SimulatedBench::true_ppfd() const {
  const auto& lamp = hung();
  if (!known_place_ || !(*known_place_ == position_)) {
    known_ = light_.predict_once(lamp, {&position_, 1});
    known_place_ = position_;
  }
  return light_factor() * (known_.direct[0] + known_.reflected[0]);
}

void SimulatedBench::set_tilt(std::optional<Vec3> place, double tilt_deg) {
  tilted_at_ = place;
  tilted_deg_ = tilt_deg;
}

double SimulatedBench::sensor_reading() {
  if (stuck_) return last_shown_;
  true_ppfd();
  Vec3 normal_of_sensor = straight_up;
  if (tilted_at_ && std::hypot(tilted_at_->x - position_.x, tilted_at_->y - position_.y) < same_place_m) {
    const double tilt = tilted_deg_ * std::numbers::pi / 180;
    normal_of_sensor = {std::sin(tilt), 0, std::cos(tilt)};
  } else if (deviates_.uniform() < scene_.tilt_chance) {
    const double tilt = scene_.tilt_deg * std::numbers::pi / 180, turn = 2 * std::numbers::pi * deviates_.uniform();
    normal_of_sensor = {std::sin(tilt) * std::cos(turn), std::sin(tilt) * std::sin(turn), std::cos(tilt)};
  }
  double direct = 0;
  for (const Emitter& e : hung()) {
    const Vec3 to = e.place_m - position_;
    const double elevation = to.z / std::sqrt(dot(to, to));
    direct += direct_ppfd({&e, 1}, position_, normal_of_sensor) * (1 - scene_.cosine_loss * (1 - elevation));
  }
  double seen = light_factor() * (direct + known_.reflected[0] * (1 - scene_.cosine_loss / 3));
  if (shadow_ && std::hypot(shadow_->x - position_.x, shadow_->y - position_.y) < shadow_radius_m_)
    seen *= shadow_passes_;
  const double shown = seen * (1 + scene_.calibration_error) * (1 + scene_.noise * deviates_()) + scene_.dark;
  last_shown_ = std::round(shown / scene_.resolution) * scene_.resolution;
  return last_shown_;
}

Spectrum SimulatedBench::spectrum_reading() {
  Spectrum light = lamp_spectrum(true_ppfd());
  double highest = 0;
  for (const double value : light.values) highest = std::max(highest, value);
  for (double& value : light.values) value += scene_.noise * (value + 0.1 * highest) * deviates_();
  return light;
}

void SimulatedBench::set_sensor(double calibration_error, double cosine_loss) {
  scene_.calibration_error = std::clamp(calibration_error, -0.9, 9.0);
  scene_.cosine_loss = std::clamp(cosine_loss, -0.5, 0.9);
}

PowerReading SimulatedBench::wall_reading() {
  PowerReading r;
  const double load = watts() / std::max(scene_.watts_at_full, 1.0);
  r.volts = scene_.mains_v + mains_offset_v_;
  r.watts = watts() * (1 + scene_.meter_noise * deviates_());
  r.power_factor = is_on() ? 0.98 - 0.10 * std::exp(-4 * load) : 0.35;
  r.volt_amperes = r.watts / r.power_factor;
  r.amperes = r.volt_amperes / r.volts;
  r.hertz = scene_.mains_hz + 0.01 * deviates_();
  return r;
}

double SimulatedBench::driver_temperature_c() const {
  if (!on_since_s_) return air_c;
  return air_c + 34 * watts() / std::max(scene_.watts_at_full, 1.0) *
                     (1 - std::exp(-(time_s_ - *on_since_s_) / driver_warms_s));
}

void SimulatedBench::set_shadow(std::optional<Vec3> place, double radius_m, double passed_share) {
  shadow_ = place, shadow_radius_m_ = radius_m, shadow_passes_ = passed_share;
}

}  // namespace sunbreak::instruments
