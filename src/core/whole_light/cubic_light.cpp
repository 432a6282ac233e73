#include "core/whole_light/cubic_light.h"

#include <cmath>
#include <map>

#include "core/power/monotone_cubic.h"

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

double CubicLight::at(std::size_t station, double height_m) const {
  std::vector<double> h, e;
  h.reserve(count()), e.reserve(count());  // asked for thousands of stations at a time
  for (std::size_t k = 0; k < count(); ++k)
    if (const double ppfd = (*sweeps_[k])[station]; ppfd > 0) h.push_back(heights_m_[k]), e.push_back(std::log(ppfd));
  if (h.empty()) return unread;
  if (h.size() == 1) return h.front() == height_m ? std::exp(e.front()) : unread;
  const auto end_slope = [&](std::size_t a, std::size_t b) { return (e[b] - e[a]) / (h[b] - h[a]); };
  if (height_m < h.front()) return std::exp(e.front() + end_slope(0, 1) * (height_m - h.front()));
  if (height_m > h.back()) return std::exp(e.back() + end_slope(h.size() - 2, h.size() - 1) * (height_m - h.back()));
  return std::exp(MonotoneCubic::through(h, e).value().at(height_m));
}

}  // namespace sunbreak
