#pragma once

#include <stop_token>

#include "core/settle/settle_solver.h"

namespace sunbreak {

/// The way of running the fixture that most likely meets a request's rule within its limits, whether or not it is
/// likely at all; of ways as likely (within half a percent) the one with the fewest watts, or the least light where
/// watts are not known. A Problem where there is nothing to choose from.
Result<SettlePoint> surest(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop = {});

/// Figures with all light off together by a factor, and the brightest and dimmest places off beside the rest by a share
/// the better way, or for a negative share the worse.
AreaLight off_by(AreaLight figures, double factor, double share);

/// How far single places may be off beside the light of the edge at a height, a share with k = 2.
double places_beside_edge(const SettleErrors& errors);

/// Whether a request's rule may be met somewhere within its limits with what is predicted being off by its ± (k = 2):
/// all light together either way, and places beside the edge the better way.
bool may_be_met(const SettleMaps& maps, const SettleRequest& request);

}  // namespace sunbreak
