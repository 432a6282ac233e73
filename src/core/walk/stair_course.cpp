#include "core/walk/stair_course.h"

namespace sunbreak {
namespace {

constexpr HoldRule watts_hold{0.005, 8, 4};
constexpr std::size_t light_values = 5;
constexpr double least_watts = 2;  ///< below, half a percent is less than a meter resolves
constexpr int watts_let_pass = 2, light_let_pass = 1;

}  // namespace

StairCourse::StairCourse(std::vector<double> settings_pct, std::vector<int> stations)
    : settings_pct_(std::move(settings_pct)), stations_(std::move(stations)) {
  set_up();
}

std::optional<double> StairCourse::setting_pct() const {
  if (phase_ == Phase::Done) return {};
  return settings_pct_[setting_at_];
}

void StairCourse::set_up() {
  if (setting_at_ >= settings_pct_.size()) {
    phase_ = Phase::Done;
    return;
  }
  phase_ = Phase::Set;
  step_ = {settings_pct_[setting_at_]};
  station_at_ = 0;
}

void StairCourse::dial_is_set() {
  phase_ = Phase::Watts;
  hold_ = HoldDetector(watts_hold);
  passing_ = watts_let_pass;
}

void StairCourse::at_station() {
  phase_ = Phase::Light;
  gathered_.clear();
  gathering_ = false;
}

void StairCourse::sensor_is_there() {
  gathering_ = true;
  passing_ = light_let_pass;
}

bool StairCourse::feed_watts(double time_s, double watts, std::optional<double> power_factor) {
  if (phase_ != Phase::Watts || (passing_ > 0 && passing_-- > 0)) return false;
  // Standby is so little that its last digit is more than half a percent.
  const auto held = watts < least_watts ? std::optional(HeldValue{watts, 1, 0}) : hold_.feed(time_s, watts);
  if (held) take_watts(held->value, power_factor);
  return held.has_value();
}

bool StairCourse::feed_light(double raw) {
  if (phase_ != Phase::Light || !gathering_ || (passing_ > 0 && passing_-- > 0)) return false;
  gathered_.push_back(raw);
  if (gathered_.size() < light_values) return false;
  take_light(averaged(gathered_));
  return true;
}

void StairCourse::take_watts(double watts, std::optional<double> power_factor) {
  step_.power_w = watts;
  step_.power_factor = power_factor;
  if (step_.percent > 0)
    at_station();
  else
    phase_ = Phase::Read;
}

void StairCourse::take_light(const HeldValue& raw) {
  step_.light.push_back({station(), raw});
  if (++station_at_ < stations_.size())
    at_station();
  else
    phase_ = Phase::Read;
}

void StairCourse::next() {
  ++setting_at_;
  set_up();
}

void StairCourse::read_again() { set_up(); }

double StairCourse::progress() const {
  if (phase_ == Phase::Watts) return hold_.progress();
  if (phase_ == Phase::Light) return static_cast<double>(gathered_.size()) / light_values;
  return 0;
}

}  // namespace sunbreak
