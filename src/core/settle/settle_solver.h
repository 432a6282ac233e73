#pragma once

#include <stop_token>

#include "core/figures/serving_rule.h"
#include "core/quantity/display.h"
#include "core/settle/settle_chance.h"
#include "core/settle/settle_limits.h"
#include "core/settle/settle_maps.h"

namespace sunbreak {

/// What is asked of the maps.
struct SettleRequest {
  Band band;
  ServingRule rule;
  SettleLimits limits;
  double sure = 0.5;                        ///< the least chance that an answer holds
  UnitSystem told_in = UnitSystem::Metric;  ///< of lengths in what is said of it
  bool operator==(const SettleRequest&) const = default;
};

/// A way of running the fixture.
struct SettlePoint {
  std::shared_ptr<const SettleHeight> height;
  SettleSetting setting;
  AreaLight figures;
  double chance = 0;  ///< that the request's rule and the PPFD allowed are kept there
};

/// What the maps say at a height and setting.
SettlePoint point_at(const SettleMaps& maps, const SettleRequest& request,
                     const std::shared_ptr<const SettleHeight>& height, const SettleSetting& setting);

// The three answers. A Problem says why there is none. Where several ways are as good (0.2 % of the area, 0.003 of
// lowest ÷ mean), the one that takes the fewest watts is given.

/// The fewest watts at which the rule is met, as sure as is asked for.
Result<SettlePoint> fewest_watts(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop = {});
/// The widest area in band, as is likely with what light and meters leave open; whether the rule is met or not.
Result<SettlePoint> widest(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop = {});
/// The most even light whose mean is in band, as sure as is asked for.
Result<SettlePoint> most_even(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop = {});

/// The way that lacks least of meeting the rule, where none does: by the share of the area in band, of those as good by
/// how much the edge is short of the low end, and of those by watts.
Result<SettlePoint> lacking_least(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop = {});

/// The way to name where a target is wanted, whatever it takes: the fewest watts as sure as is asked for; where none is
/// as sure, the surest that meets the rule; where none meets it, the one that lacks least.
struct BestWay {
  SettlePoint point;
  bool met = false, sure = false;
};
Result<BestWay> best_way(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop = {});

struct SettleAnswers {
  Result<SettlePoint> fewest_watts, widest, most_even;
  std::optional<BestWay> instead;  ///< where no way is as is asked for
};
SettleAnswers settle(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop = {});

/// What orders ways that are otherwise as good: watts, or the light where they are not known.
inline double effort(const SettleSetting& setting) { return setting.power_w.value_or(setting.light_factor); }

/// A setting a share of the way between two neighboring ones.
SettleSetting blended(const SettleSetting& a, const SettleSetting& b, double share);

/// The setting at a place of the dial, from the maps' steps; nothing beyond them.
std::optional<SettleSetting> setting_at(const SettleMaps& maps, double percent);
/// The dimmest setting that takes so many watts; nothing where none is known to.
std::optional<SettleSetting> setting_of_power(const SettleMaps& maps, double power_w);

/// The maps with one of their heights, or one setting, alone.
SettleMaps at_height(const SettleMaps& maps, double height_m);
SettleMaps at_setting(const SettleMaps& maps, const SettleSetting& setting);
/// The maps without the heights that limits do not allow.
SettleMaps within(const SettleMaps& maps, const SettleLimits& limits);

}  // namespace sunbreak
