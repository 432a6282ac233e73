#pragma once

#include <span>

#include "core/figures/serving_rule.h"
#include "core/settle/settle_limits.h"

namespace sunbreak {

inline constexpr int settle_draws = 200;

/// The chance that a rule is met and the highest PPFD allowed is kept, over draws of what meters, model, dimmer and
/// place leave open, all together. The draws are the same at every point, so that points compare.
double chance_of(const ServingRule& rule, const Band& band, const SettleLimits& limits, double shared_sd,
                 const SettleHeight& height, const SettleSetting& setting);

/// The share of the area that is in band on average over what meters, model and dimmer leave open of all light: where
/// much of it lies near an end of the band, less than the figure without errors.
double likely_in_band(const Band& band, double shared_sd, const SettleHeight& height, const SettleSetting& setting);

/// Half the width of the middle 95.4 % of a figure over the same draws (k = 2), in its unit; of shares too.
struct SettleExpanded {
  double mean = 0, edge = 0, center = 0, corners = 0, lowest = 0, highest = 0, in_band = 0, lowest_over_mean = 0;
};
/// Shares take most of the time; without them that of in_band is 0.
SettleExpanded expanded_of(const Band& band, double shared_sd, const SettleHeight& height, const SettleSetting& setting,
                           bool with_shares = true);

}  // namespace sunbreak
