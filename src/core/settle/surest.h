#pragma once

#include <stop_token>

#include "core/settle/settle_solver.h"

namespace sunbreak {

/// The way of running the fixture that most likely meets a request's rule within its limits, whether or not it is
/// likely at all; of ways as likely (within half a percent) the one with the fewest watts, or the least light where
/// watts are not known. A Problem where there is nothing to choose from.
Result<SettlePoint> surest(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop = {});

/// Whether a request's rule may be met somewhere within its limits with what is predicted being off by its ± (k = 2):
/// all light together either way, and single places the better way.
bool may_be_met(const SettleMaps& maps, const SettleRequest& request);

}  // namespace sunbreak
