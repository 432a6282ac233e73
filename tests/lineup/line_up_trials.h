#pragma once

#include <cstdint>
#include <map>
#include <string>

/// Trials of line-ups on simulated fixtures: what came of them, for the tests and for the study.
namespace sunbreak::trial {

/// Pairs of fixtures of one bench and one set of meters, by one figure and how far apart they truly are.
struct PairTally {
  int pairs = 0;
  int apart = 0, wrong_way = 0;
  int far = 0, far_found = 0;    ///< truly apart by twice the stated uncertainty of the difference, or more
  int known = 0;                 ///< differences whose interval holds the true one
  double own_over_separate = 0;  ///< the largest uncertainty of a difference over that of two separate ones
};
using PairTallies = std::map<std::pair<std::string, double>, PairTally>;  ///< by figure and true difference [%]
PairTallies try_pairs(std::uint64_t seed, int pairs);

/// Line-ups of eight by mean: how many ranks lie in their intervals.
struct RankTally {
  int ranks = 0, held = 0, whole = 0, line_ups = 0;
  double mean_width = 0;
};
RankTally try_ranks(std::uint64_t seed, int line_ups, bool all_pairs);

/// Values of a way against the truth, and of pairs as above.
struct WayTally {
  int values = 0, held = 0, refused = 0;
  int pairs = 0, pairs_held = 0, equal = 0, equal_apart = 0, far = 0, far_found = 0;
};
WayTally try_equal_watts(std::uint64_t seed, int pairs);
WayTally try_restated(std::uint64_t seed, int pairs);

}  // namespace sunbreak::trial
