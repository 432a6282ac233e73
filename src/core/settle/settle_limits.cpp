#include "core/settle/settle_limits.h"

namespace sunbreak {

bool SettleLimits::allows_height(double height_m) const {
  constexpr double rounding_m = 1e-6;
  return (!min_height_m || height_m >= *min_height_m - rounding_m) &&
         (!max_height_m || height_m <= *max_height_m + rounding_m);
}

bool SettleLimits::allows(const SettleSetting& setting, const AreaLight& figures) const {
  return (!max_power_w || (setting.power_w && *setting.power_w <= *max_power_w)) &&
         (!max_ppfd || figures.highest <= *max_ppfd);
}

}  // namespace sunbreak
