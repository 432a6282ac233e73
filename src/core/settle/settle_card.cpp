#include "core/settle/settle_card.h"

#include <utility>

namespace sunbreak {
namespace {

using Rows = std::vector<Result<BestWay>>;

SettleRequest request_of(const SettleRequest& request, const CardStage& stage) {
  SettleRequest own = request;
  own.band = stage.band;
  return own;
}

Rows best_of(const SettleMaps& maps, std::span<const CardStage> stages, const SettleRequest& request,
             const std::stop_token& stop) {
  Rows rows;
  for (const CardStage& stage : stages) rows.push_back(best_way(maps, request_of(request, stage), stop));
  return rows;
}

/// The height at which most stages can be served; of those the one that takes the least energy a day over all stages.
Rows at_one_height(const SettleMaps& maps, std::span<const CardStage> stages, const SettleRequest& request,
                   const std::stop_token& stop) {
  std::pair<int, double> most{0, 0};
  std::shared_ptr<const SettleHeight> best;
  for (const auto& height : maps.heights) {
    if (stop.stop_requested() || !request.limits.allows_height(height->height_m)) continue;
    SettleMaps one = maps;
    one.heights = {height};
    std::pair<int, double> served{0, 0};
    for (const CardStage& stage : stages)
      if (const auto way = fewest_watts(one, request_of(request, stage), stop))
        ++served.first, served.second -= *way.value().setting.power_w * stage.photoperiod_h;
    if (served.first > 0 && (!best || served > most)) most = served, best = height;
  }
  if (!best) return best_of(maps, stages, request, stop);
  SettleMaps one = maps;
  one.heights = {best};
  return best_of(one, stages, request, stop);
}

}  // namespace

std::vector<Result<BestWay>> settle_card(const SettleMaps& maps, std::span<const CardStage> stages,
                                         const SettleRequest& request, CardPolicy policy, std::stop_token stop) {
  if (policy == CardPolicy::OneHeight) return at_one_height(maps, stages, request, stop);
  if (policy == CardPolicy::FewestWatts) return best_of(maps, stages, request, stop);
  Rows rows;
  for (const CardStage& stage : stages) {
    const SettleRequest own = request_of(request, stage);
    auto chosen = policy == CardPolicy::Widest ? widest(maps, own, stop) : most_even(maps, own, stop);
    if (!chosen) {
      rows.push_back(best_way(maps, own, stop));
      continue;
    }
    const SettlePoint& p = chosen.value();
    const bool met = judged(own.rule, own.band, p.figures).met();
    rows.push_back(BestWay{p, met, met && p.chance >= own.sure});
  }
  return rows;
}

}  // namespace sunbreak
