#include "core/targets/target_sets.h"

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

constexpr Target daily[] = {{"propagation", 6, 12, 16, true},
                            {"leafy & herbs", 12, 17, 16, true},
                            {"vegetative", 18, 35, 18, true},
                            {"flowering & fruiting", 25, 43, 12, true},
                            {"high light", 39, 52, 12, true}};

constexpr TargetSet sets[] = {
    {"Bands", "PPFD bands by growth stage, as most testers quote them", bands},
    {"Gentle", "Lower bands, for growers who would rather save watts than push the crop", gentle},
    {"Daily light", "Bands worked out from the daily light a crop is given over its photoperiod", daily}};

}  // namespace

std::span<const TargetSet> shipped_target_sets() { return sets; }

}  // namespace sunbreak
