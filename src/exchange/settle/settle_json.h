#pragma once

#include <optional>
#include <string>
#include <vector>
#include "record/json.h"

#include "core/settle/settle_card.h"
#include "evaluation/evaluation.h"

namespace sunbreak::exchange {

/// What an answer is asked for beside the request: hours of light a day and the price of energy.
struct SettleUse {
  double photoperiod_h = 12;
  std::optional<double> tariff_per_kwh;
  const evaluation::Evaluation* walked = nullptr;  ///< of the test: at what was walked it tells how sure that is
};

/// A way of running the fixture: height, setting, watts, figures with their ±, chance. Keys: docs/formats.md.
record::Json settle_point_json(const SettleMaps& maps, const SettleRequest& request, const SettlePoint& point,
                               const SettleUse& use);

/// {"rule": …, "fewest_watts": … or null, …, "reason": {…}} as the command line prints it.
record::Json settle_json(const SettleMaps& maps, const SettleRequest& request, const SettleAnswers& answers,
                         const SettleUse& use);

/// One row of a card: its stage, and the point or null with a reason.
record::Json settle_row_json(const SettleMaps& maps, SettleRequest request, const std::string& stage,
                             const CardStage& wanted, const Result<BestWay>& row, SettleUse use);

}  // namespace sunbreak::exchange
