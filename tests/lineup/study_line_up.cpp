#include <fmt/format.h>

#include <cstdlib>

#include "lineup/line_up_trials.h"

using namespace sunbreak::trial;

namespace {

constexpr std::uint64_t study_seed = 20'261'129;
constexpr int pairs = 500, line_ups = 200, way_pairs = 200, restated_pairs = 80;
constexpr double most_equal_apart = 0.05, least_found = 0.95, most_of_separate = 0.5, least_ranks = 0.95;

bool all_good = true;

double share(int part, int of) { return of > 0 ? static_cast<double>(part) / of : 0; }

void judge(const char* what, double value, double limit, bool at_least) {
  const bool good = at_least ? value >= limit : value <= limit;
  all_good = all_good && good;
  fmt::print("{}: {:.1f} % ({} {:.0f}){}\n", what, 100 * value, at_least ? "at least" : "at most", 100 * limit,
             good ? "" : "  FALLS SHORT");
}

void print(const char* name, const WayTally& t) {
  fmt::print("\n{}: {} pairs, {} refused; values hold the truth {:.1f} %, differences {:.1f} %\n", name, t.pairs,
             t.refused, 100 * share(t.held, t.values), 100 * share(t.pairs_held, t.pairs));
  judge("  of pairs apart by twice the uncertainty found, the right way round", share(t.far_found, t.far), least_found,
        true);
  judge("  equal pairs ranked apart", share(t.equal_apart, t.equal), most_equal_apart, false);
}

}  // namespace

/// Fixtures planted on simulated benches, and how line-ups rank them. An argument is another seed.
int main(int argc, char** argv) {
  const std::uint64_t seed = argc > 1 ? std::strtoull(argv[1], nullptr, 10) : study_seed;
  fmt::print("seed {}\n\n{:24} {:>7} {:>6} {:>7} {:>6} {:>7} {:>11}\n", seed, "figure", "apart %", "pairs", "ranked",
             "wrong", "held %", "far, found");
  PairTally equal, far;
  double mean_own = 0;
  for (const auto& [key, t] : try_pairs(seed, pairs)) {
    const auto& [figure, apart] = key;
    fmt::print("{:24} {:>7} {:>6} {:>7} {:>6} {:>7.1f} {:>11}\n", figure, apart, t.pairs, t.apart, t.wrong_way,
               100 * share(t.known, t.pairs), fmt::format("{}/{}", t.far_found, t.far));
    if (apart == 0) equal.pairs += t.pairs, equal.apart += t.apart;
    far.far += t.far, far.far_found += t.far_found;
    if (figure == "mean_ppfd") mean_own = std::max(mean_own, t.own_over_separate);
  }
  fmt::print("\n");
  judge("equal pairs ranked apart", share(equal.apart, equal.pairs), most_equal_apart, false);
  judge("pairs apart by twice the uncertainty found, the right way round", share(far.far_found, far.far), least_found,
        true);
  judge("uncertainty of a difference in mean, of what two separate ones give, at most", mean_own, most_of_separate,
        false);
  for (const bool all : {false, true}) {
    const RankTally r = try_ranks(seed, line_ups, all);
    fmt::print("\n{} line-ups of eight, ranks sure for {}: intervals {:.1f} places wide; all eight held in {:.1f} %\n",
               r.line_ups, all ? "all pairs together" : "each pair", r.mean_width, 100 * share(r.whole, r.line_ups));
    judge("  ranks in their intervals", share(r.held, r.ranks), least_ranks, true);
  }
  print("equal watts", try_equal_watts(seed, way_pairs));
  print("restated", try_restated(seed, restated_pairs));
  return all_good ? 0 : 1;
}
