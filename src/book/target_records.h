#pragma once

#include "book/record_table.h"

/// The rows about crop targets that outlive a test.
namespace sunbreak::book {

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
struct Table<CropTarget> {
  static constexpr const char* name = "crop_target";
  static constexpr auto columns =
      std::tuple{Column{"set_name", &CropTarget::set_name, "the list it is in"},
                 Column{"reason", &CropTarget::reason, "why that list draws its bands so"},
                 Column{"name", &CropTarget::name, "crop or stage of growth"},
                 Column{"by_daily_light", &CropTarget::by_daily_light, "the band is one of daily light, not of PPFD"},
                 Column{"low", &CropTarget::low, "low end [umol/m2/s, or mol/m2/d by daily light]"},
                 Column{"high", &CropTarget::high, "high end, in the same unit"},
                 Column{"photoperiod_h", &CropTarget::photoperiod_h, "hours of light a day [h]"},
                 Column{"removed", &CropTarget::removed, "taken off the shelf"}};
};

}  // namespace sunbreak::book
