#include "core/settle/settle_card.h"

#include <utility>

namespace sunbreak {
namespace {

using Rows = std::vector<Result<SettlePoint>>;

SettleRequest request_of(const SettleRequest& request, const CardStage& stage) {
  SettleRequest own = request;
  own.band = stage.band;
  return own;
}

Rows fewest_of(const SettleMaps& maps, std::span<const CardStage> stages, const SettleRequest& request,
               const std::stop_token& stop) {
  Rows rows;
  for (const CardStage& stage : stages) rows.push_back(fewest_watts(maps, request_of(request, stage), stop));
  return rows;
}

/// The height at which most stages can be served; of those the one that takes the least energy a day over all stages.
Rows at_one_height(const SettleMaps& maps, std::span<const CardStage> stages, const SettleRequest& request,
                   const std::stop_token& stop) {
  Rows best;
  std::pair<int, double> most{-1, 0};
  for (const auto& height : maps.heights) {
    if (stop.stop_requested() || !request.limits.allows_height(height->height_m)) continue;
    SettleMaps one = maps;
    one.heights = {height};
    Rows rows = fewest_of(one, stages, request, stop);
    std::pair<int, double> served{0, 0};
    for (std::size_t i = 0; i < rows.size(); ++i)
      if (rows[i]) ++served.first, served.second -= *rows[i].value().setting.power_w * stages[i].photoperiod_h;
    if (served > most) most = served, best = std::move(rows);
  }
  // Why a stage cannot be served is told of all heights.
  return most.first > 0 ? best : fewest_of(maps, stages, request, stop);
}

}  // namespace

std::vector<Result<SettlePoint>> settle_card(const SettleMaps& maps, std::span<const CardStage> stages,
                                             const SettleRequest& request, CardPolicy policy, std::stop_token stop) {
  if (policy == CardPolicy::OneHeight) return at_one_height(maps, stages, request, stop);
  if (policy == CardPolicy::FewestWatts) return fewest_of(maps, stages, request, stop);
  Rows rows;
  for (const CardStage& stage : stages) {
    const SettleRequest own = request_of(request, stage);
    rows.push_back(policy == CardPolicy::Widest ? widest(maps, own, stop) : most_even(maps, own, stop));
  }
  return rows;
}

}  // namespace sunbreak
