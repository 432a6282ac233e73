#include "core/targets/target_sets.h"

#include "core/quantity/daily_light.h"

namespace sunbreak {
namespace {

constexpr Target bands[] = {{"propagation", 100, 200, 16},
                            {"leafy & herbs", 150, 300, 16},
                            {"vegetative", 300, 600, 18},
                            {"flowering & fruiting", 600, 1000, 12},
                            {"high light", 900, 1200, 12}};

constexpr Target gentle[] = {{"propagation", 100, 200, 16},
                             {"leafy & herbs", 150, 300, 16},
                             {"vegetative", 250, 400, 18},
                             {"flowering & fruiting", 500, 800, 12}};

constexpr Target from_daily_light(std::string_view name, double low_mol, double high_mol, double photoperiod_h) {
  return {name, ppfd_for_dli(low_mol, photoperiod_h), ppfd_for_dli(high_mol, photoperiod_h), photoperiod_h};
}

constexpr Target daily[] = {from_daily_light("propagation", 6, 12, 16), from_daily_light("leafy & herbs", 12, 17, 16),
                            from_daily_light("vegetative", 18, 35, 18),
                            from_daily_light("flowering & fruiting", 25, 43, 12),
                            from_daily_light("high light", 39, 52, 12)};

constexpr TargetSet sets[] = {
    {"Bands", "PPFD bands by growth stage, as most testers quote them", bands},
    {"Gentle", "Lower bands, for growers who would rather save watts than push the crop", gentle},
    {"Daily light", "Bands worked out from the daily light a crop is given over its photoperiod", daily}};

}  // namespace

std::span<const TargetSet> shipped_target_sets() { return sets; }

}  // namespace sunbreak
