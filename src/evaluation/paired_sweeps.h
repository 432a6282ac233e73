#pragma once

#include "core/meters/agreement.h"
#include "core/result.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::evaluation {

/// The stations that two sweeps share, within 1 cm, as each sweep's sensor read them, corrected. A Problem where they
/// are not of one fixture, height and setting, either cannot be laid out, or they share none.
Result<std::vector<SensorPair>> paired_stations(const TestRecord& a, const Sweep& of_a, const TestRecord& b,
                                                const Sweep& of_b);

}  // namespace sunbreak::evaluation
