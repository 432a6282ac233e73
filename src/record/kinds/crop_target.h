#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// One crop's band in one school's list, as PPFD or as daily light over its photoperiod.
struct CropTarget {
  Id id = 0;
  std::string set_name, reason;  ///< the list it is in, and why that list draws its bands so
  std::string name;
  bool by_daily_light = false;
  double low = 0, high = 0;  ///< µmol m⁻² s⁻¹, or mol m⁻² d⁻¹ where by daily light
  double photoperiod_h = 12;
  bool removed = false;
  bool operator==(const CropTarget&) const = default;
};

template <>
struct Described<CropTarget> {
  static constexpr Facts facts{.name = "crop_target", .since = 5, .published = false};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("set_name", &CropTarget::set_name, "the list it is in");
    columns.add("reason", &CropTarget::reason, "why that list draws its bands so");
    columns.add("name", &CropTarget::name, "crop or stage of growth");
    columns.add("by_daily_light", &CropTarget::by_daily_light, "the band is one of daily light, not of PPFD");
    columns.add("low", &CropTarget::low, "low end [umol/m2/s, or mol/m2/d by daily light]").between(0, 20000);
    columns.add("high", &CropTarget::high, "high end, in the same unit").between(0, 20000);
    columns.add("photoperiod_h", &CropTarget::photoperiod_h, "hours of light a day").unit("h").between(0, 24);
    columns.add("removed", &CropTarget::removed, "taken off the shelf");
  }
};

}  // namespace sunbreak::record
