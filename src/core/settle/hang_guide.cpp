#include "core/settle/hang_guide.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace sunbreak {

HangGuide::HangGuide(std::vector<double> heights_m, std::vector<double> ppfd)
    : heights_m_(std::move(heights_m)), ppfd_(std::move(ppfd)) {
  if (ppfd_.empty()) return;
  const auto brightest = std::max_element(ppfd_.begin(), ppfd_.end()) - ppfd_.begin();
  heights_m_.erase(heights_m_.begin(), heights_m_.begin() + brightest);
  ppfd_.erase(ppfd_.begin(), ppfd_.begin() + brightest);
}

void HangGuide::agree(double height_m, double ppfd) {
  for (std::size_t k = 1; k < heights_m_.size(); ++k)
    if (height_m >= heights_m_[k - 1] && height_m <= heights_m_[k]) {
      const double share = (height_m - heights_m_[k - 1]) / (heights_m_[k] - heights_m_[k - 1]);
      scale_ = ppfd / std::exp(std::lerp(std::log(ppfd_[k - 1]), std::log(ppfd_[k]), share));
    }
}

std::optional<double> HangGuide::height_of(double ppfd) const {
  const double wanted = ppfd / scale_;
  for (std::size_t k = 1; k < ppfd_.size(); ++k)
    if (ppfd_[k - 1] >= wanted && wanted >= ppfd_[k] && ppfd_[k] > 0) {
      const double fall = std::log(ppfd_[k - 1] / ppfd_[k]);
      const double share = fall > 0 ? std::log(ppfd_[k - 1] / wanted) / fall : 0;
      return std::lerp(heights_m_[k - 1], heights_m_[k], share);
    }
  return {};
}

std::optional<HangGuide::Step> HangGuide::step(double reads_ppfd, double wanted_ppfd) const {
  const auto now = height_of(reads_ppfd), wanted = height_of(wanted_ppfd);
  if (!now || !wanted) return {};
  return Step{*now, *wanted};
}

}  // namespace sunbreak
