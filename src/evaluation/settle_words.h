#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/quantity/display.h"
#include "core/settle/settle_solver.h"
#include "evaluation/test_light.h"

namespace sunbreak::evaluation {

/// What would help a way that does not meet a rule: "A smaller area, a second fixture or a height lower than was walked
/// would help." Empty where the rule is met.
std::string mending_words(const SettleRequest& request, const SettlePoint& point, const TestLight& light);

/// A way that is named in place of one that is as is asked for: "No way meets the rule. The nearest, 41 cm, 100 %, 320
/// W: the edge is 40 µmol/m²/s short; 78 % in band, 12 % sure." With what would help.
std::string instead_words(const SettleRequest& request, const BestWay& way, const TestLight& light, UnitSystem units);

/// "41 cm, 63 %, 152 W", as a place on the field is named.
std::string settle_place_words(const SettlePoint& point, UnitSystem units);

/// What the answers cost against each other: "40 W more than needed buys 0.11 m² in band". One sentence each, for those
/// that differ.
std::vector<std::string> settle_cost_words(const SettleAnswers& answers, const SettleLattice& lattice,
                                           UnitSystem units);

/// What a little less light buys: "Hung higher, where the mean is 3 % less (44 cm), lowest ÷ mean goes from 0.61 to
/// 0.63." Empty where that is beyond reach.
std::string settle_trade_words(const SettleMaps& maps, const SettlePoint& point, const Band& band, UnitSystem units);

/// "For 95 % instead of 50 %: 12 W more." Empty where either is not known or nothing is asked.
std::string settle_price_words(const std::optional<SettlePoint>& likely, const SettlePoint& sure, double asked);

}  // namespace sunbreak::evaluation
