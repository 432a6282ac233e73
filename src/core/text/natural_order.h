#pragma once

#include <string_view>

namespace sunbreak {

/// Whether a name stands before another in a list that a person reads: letters of either case alike, whole numbers in
/// it by their value ("Bar 9" before "Bar 10"), all else by its bytes. A strict weak order.
bool natural_before(std::string_view a, std::string_view b);

}  // namespace sunbreak
