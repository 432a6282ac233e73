#pragma once

#include <optional>
#include <string_view>
#include <vector>

namespace sunbreak {

/// Hanging heights for a first look at a fixture, highest first [m]: rungs about 1.35 times apart on whole 5 cm, from
/// the lowest that 1.5 times the emitter spacing allows (15 cm at least) to 90 cm, or to what the bench leaves under a
/// clearance of 30 cm.
std::vector<double> ladder_heights(std::optional<double> bench_height_m, std::optional<double> emitter_spacing_m);

/// The maker's height with one a third below and one a third above, on whole centimeters, highest first [m].
std::vector<double> heights_around(double makers_height_m);

/// The first length in a claim's words ("45 cm over the canopy", "18 in") [m]; of a span ("30 to 45 cm") its middle.
/// Nothing where there is none.
std::optional<double> height_in_words(std::string_view words);

}  // namespace sunbreak
