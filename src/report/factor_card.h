#pragma once

#include <span>
#include <string>

#include "core/result.h"
#include "record/kinds/fitted_lux_factor.h"
#include "record/kinds/meter.h"

namespace sunbreak::report {

/// The lux factors of a lab book as one self-contained page: meters by lights, each factor with its ± and the levels it
/// holds for, and by what it was found. A Problem where there is none.
Result<std::string> factor_card(std::span<const record::FittedLuxFactor> factors,
                                std::span<const record::Meter> meters);

}  // namespace sunbreak::report
