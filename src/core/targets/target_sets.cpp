#include "core/targets/target_sets.h"

namespace sunbreak {
namespace {

// Two thirds to three quarters of the daily light below for Gentle, all of it for the others, divided by the hours and
// rounded to 5.
constexpr Target short_days[] = {{"propagation", 105, 175, 16},
                                 {"leafy & herbs", 210, 295, 16},
                                 {"young plants", 245, 400, 18},
                                 {"flowering & fruiting", 555, 925, 12},
                                 {"high light", 835, 1110, 12}};

constexpr Target long_days[] = {{"propagation", 105, 175, 16},
                                {"leafy & herbs", 185, 260, 18},
                                {"young plants", 245, 400, 18},
                                {"flowering & fruiting", 370, 615, 18},
                                {"high light", 555, 740, 18}};

constexpr Target gentle[] = {{"propagation", 70, 140, 16},
                             {"leafy & herbs", 155, 225, 16},
                             {"young plants", 185, 310, 18},
                             {"flowering & fruiting", 415, 695, 12}};

constexpr Target daily[] = {{"propagation", 6, 10, 16, true},
                            {"leafy & herbs", 12, 17, 16, true},
                            {"young plants", 16, 26, 18, true},
                            {"flowering & fruiting", 24, 40, 12, true},
                            {"high light", 36, 48, 12, true}};

constexpr TargetSet sets[] = {
    {"Short days", "The daily light of public growing advice over the hours that short-day crops flower in",
     short_days},
    {"Long days", "The same daily light over more hours, for crops that flower in any: less PPFD does", long_days},
    {"Gentle", "Two thirds to three quarters of it, for growers who would rather save watts than push the crop",
     gentle},
    {"Daily light", "The daily light itself; the photoperiod turns it into PPFD", daily}};

}  // namespace

std::span<const TargetSet> shipped_target_sets() { return sets; }

}  // namespace sunbreak
