#pragma once

#include <optional>

#include "core/figures/area_light.h"
#include "core/settle/settle_maps.h"

namespace sunbreak {

/// What an answer may not leave. Nothing: no limit.
struct SettleLimits {
  std::optional<double> min_height_m, max_height_m, max_power_w, max_ppfd;
  bool operator==(const SettleLimits&) const = default;

  bool allows_height(double height_m) const;
  bool allows(const SettleSetting& setting, const AreaLight& figures) const;
};

}  // namespace sunbreak
