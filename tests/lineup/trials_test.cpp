#include <gtest/gtest.h>

#include "lineup/line_up_trials.h"

namespace sunbreak::trial {
namespace {

/// A slice of the study, on a seed of its own.
constexpr std::uint64_t seed = 77;

TEST(LineUpTrial, EqualPairsAreTiesAndFarOnesAreTold) {
  PairTally equal, all;
  for (const auto& [key, t] : try_pairs(seed, 80)) {
    if (key.second == 0) equal.pairs += t.pairs, equal.apart += t.apart;
    all.far += t.far, all.far_found += t.far_found, all.wrong_way += t.wrong_way, all.apart += t.apart;
    if (key.first == "mean_ppfd") {
      EXPECT_LE(t.own_over_separate, 0.5);
    }
  }
  EXPECT_GE(equal.pairs, 20);
  EXPECT_LE(equal.apart, 3);
  EXPECT_GE(all.far, 30);
  EXPECT_GE(all.far_found, 0.95 * all.far);
  EXPECT_LE(all.wrong_way, 3);
}

TEST(LineUpTrial, RankIntervalsHoldTheTrueRank) {
  for (const bool all_pairs : {false, true}) {
    const RankTally t = try_ranks(seed, 15, all_pairs);
    EXPECT_GE(t.held, 0.95 * t.ranks);
    EXPECT_LT(t.mean_width, 7.5) << "they tell something";
  }
}

TEST(LineUpTrial, EqualWattsAndOtherRoomsHoldTheTruth) {
  for (const WayTally& t : {try_equal_watts(seed, 24), try_restated(seed, 8)}) {
    EXPECT_GE(t.pairs, 6);
    EXPECT_GE(t.held, 0.85 * t.values);
    EXPECT_GE(t.pairs_held, 0.85 * t.pairs);
    EXPECT_EQ(t.far, t.far_found);
    EXPECT_LE(t.equal_apart, 1);
  }
}

}  // namespace
}  // namespace sunbreak::trial
