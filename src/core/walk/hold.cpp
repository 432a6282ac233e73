#include "core/walk/hold.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {
namespace {
constexpr double silence_s = 1, least_allowed = 0.3;  // a sensor's last digit in the dark
}

HeldValue averaged(const std::deque<double>& values) {
  HeldValue held;
  held.samples = static_cast<int>(values.size());
  for (const double v : values) held.value += v;
  if (held.samples > 1) held.value /= held.samples;
  double squares = 0;
  for (const double v : values) squares += (v - held.value) * (v - held.value);
  if (held.samples > 1) held.spread = std::sqrt(squares / (held.samples - 1));
  return held;
}

HeldValue merged(const HeldValue& a, const HeldValue& b) {
  if (a.samples == 0 || b.samples == 0) return a.samples == 0 ? b : a;
  const double all = a.samples + b.samples, between = b.value - a.value;
  const double squares = (a.samples - 1) * a.spread * a.spread + (b.samples - 1) * b.spread * b.spread +
                         between * between * a.samples * b.samples / all;
  return {a.value + between * b.samples / all, a.samples + b.samples, std::sqrt(squares / (all - 1))};
}

double HoldDetector::allowed(double around) const {
  return std::max(rule_.tolerance * std::abs(around), least_allowed);
}

bool HoldDetector::at_the_taken(double value) const {
  return taken_ && std::abs(value - *taken_) <= 2 * allowed(*taken_);
}

void HoldDetector::moved() {
  window_.clear();
  taken_.reset();
  under_way_ = false;
}

std::optional<HeldValue> HoldDetector::feed(double time_s, double value) {
  if (!window_.empty() && time_s - window_.back().time_s > silence_s + rule_.hold_s) window_.clear();
  if (under_way_) return {};
  if (taken_) {
    if (at_the_taken(value)) return {};
    moved();
  }
  window_.push_back({time_s, value});
  const auto mean = [&] {
    double sum = 0;
    for (const Sample& s : window_) sum += s.value;
    return sum / static_cast<double>(window_.size());
  };
  // The oldest values are let go until the rest agree.
  for (bool agree = false; !agree;) {
    const double middle = mean();
    agree = std::all_of(window_.begin(), window_.end(),
                        [&](const Sample& s) { return std::abs(s.value - middle) <= allowed(middle); });
    if (!agree) window_.pop_front();
  }
  if (progress() < 1) return {};
  std::deque<double> values;
  for (const Sample& s : window_) values.push_back(s.value);
  const HeldValue held = averaged(values);
  window_.clear();
  taken_ = held.value;
  return held;
}

double HoldDetector::progress() const {
  if (window_.empty()) return 0;
  const double held_s = window_.back().time_s - window_.front().time_s;
  const double by_time = rule_.hold_s > 0 ? held_s / rule_.hold_s : 1;
  const double by_count = static_cast<double>(window_.size()) / std::max(rule_.samples, 1);
  return std::min({by_time, by_count, 1.0});
}

}  // namespace sunbreak
