#pragma once

#include <string>
#include <vector>
#include "record/json.h"

#include "core/meters/agreement.h"
#include "core/meters/check_lamp.h"
#include "core/meters/lux_factor.h"

namespace sunbreak::exchange {

/// What the command line tells of meters; what is not known is null. Expanded uncertainties are half widths of 95 %.
record::Json lux_factor_json(const LuxFactor& factor);
record::Json agreement_json(const Agreement& agreement);
/// `days`: how each reading's day is written.
record::Json check_lamp_json(const std::vector<CheckReading>& readings, const std::vector<LampChart>& charts,
                             const std::vector<std::string>& days);

/// The verdict's name in files: agree, factor, level, angle or scatter.
const char* verdict_id(AgreementVerdict verdict);

}  // namespace sunbreak::exchange
