#pragma once

#include <string_view>
#include <vector>

#include "record/kinds/claim.h"

namespace sunbreak::book {

/// What the invented makers say of their fixtures, by the fixture's name. Maps have no values yet: the sample's own
/// light makes them, times `map_flattery`.
std::vector<record::Claim> sample_claims(std::string_view fixture);

/// How much brighter a maker's map is than the light at its places.
double map_flattery(std::string_view fixture);

}  // namespace sunbreak::book
