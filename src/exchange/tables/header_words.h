#pragma once

#include <string>
#include <string_view>

#include "core/quantity/lower_case.h"

namespace sunbreak::exchange {

/// Whether a header cell has `name` among its words ("Power (kW)" has power and kw). A name of two words may stand
/// anywhere in it.
bool header_names(std::string_view header, std::string_view name);

/// Whether one of its words begins with `name`.
bool header_starts(std::string_view header, std::string_view name);

}  // namespace sunbreak::exchange
