#pragma once

#include <array>
#include <span>
#include <string_view>
#include <vector>

#include "core/settle/settle_solver.h"

namespace sunbreak {

/// By what a settings card chooses among the ways that suit a stage of growth.
enum class CardPolicy {
  FewestWatts,
  Widest,
  MostEven,
  OneHeight  ///< the fewest watts at one height for all stages
};

struct CardPolicyName {
  CardPolicy policy;
  std::string_view id, words;
};
inline constexpr std::array<CardPolicyName, 4> card_policies{
    {{CardPolicy::FewestWatts, "fewest watts", "fewest watts"},
     {CardPolicy::Widest, "widest", "widest coverage"},
     {CardPolicy::MostEven, "most even", "most even light"},
     {CardPolicy::OneHeight, "one height", "one height for all"}}};

/// A stage of growth, as a row of the card wants it.
struct CardStage {
  Band band;
  double photoperiod_h = 12;
};

/// A way of running the fixture for each stage, in their order, each with the best there is for it; a Problem only
/// where there is nothing to choose from. `request` gives rule, limits and how sure, each stage its own band.
std::vector<Result<BestWay>> settle_card(const SettleMaps& maps, std::span<const CardStage> stages,
                                         const SettleRequest& request, CardPolicy policy, std::stop_token stop = {});

}  // namespace sunbreak
