#include "core/whole_light/cubic_light.h"

#include <cmath>
#include <map>
#include <utility>

namespace sunbreak {

CubicLight::CubicLight(const WholeLightQuestion& question, int setting, double left_out_m) {
  std::map<double, std::size_t> heights;
  for (std::size_t s = 0; s < question.sweeps.size(); ++s)
    if (question.sweeps[s].setting == setting && question.sweeps[s].height_m != left_out_m &&
        question.sweeps[s].ppfd.size() == question.sweeps.front().ppfd.size())
      heights[question.sweeps[s].height_m] = s;
  for (const auto& [height, sweep] : heights) {
    heights_m_.push_back(height);
    sweeps_.push_back(&question.sweeps[sweep].ppfd);
  }
}

StationCurve CubicLight::of(std::size_t station) const {
  std::vector<double> heights_m, logs;
  heights_m.reserve(count()), logs.reserve(count());  // asked for thousands of stations at a time
  for (std::size_t k = 0; k < count(); ++k)
    if (const double ppfd = (*sweeps_[k])[station]; ppfd > 0)
      heights_m.push_back(heights_m_[k]), logs.push_back(std::log(ppfd));
  return {std::move(heights_m), std::move(logs)};
}

StationCurve::StationCurve(std::vector<double> heights_m, std::vector<double> log_ppfd)
    : heights_m_(std::move(heights_m)), logs_(std::move(log_ppfd)) {
  if (heights_m_.size() > 1) between_ = MonotoneCubic::through(heights_m_, logs_).value();
}

double StationCurve::at(double height_m) const {
  const std::vector<double>&h = heights_m_, &e = logs_;
  if (h.empty()) return unread;
  if (h.size() == 1) return h.front() == height_m ? std::exp(e.front()) : unread;
  const auto end_slope = [&](std::size_t a, std::size_t b) { return (e[b] - e[a]) / (h[b] - h[a]); };
  if (height_m < h.front()) return std::exp(e.front() + end_slope(0, 1) * (height_m - h.front()));
  if (height_m > h.back()) return std::exp(e.back() + end_slope(h.size() - 2, h.size() - 1) * (height_m - h.back()));
  return std::exp(between_->at(height_m));
}

}  // namespace sunbreak
