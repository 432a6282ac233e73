#pragma once

#include <span>
#include <vector>

#include "core/lineup/comparable.h"
#include "core/lineup/standing.h"

namespace sunbreak {

enum class Better { More, Less };

/// How sure the pairs are that tell ranks apart: each for itself at k = 2, or all of them together (S. Holm, Scand. J.
/// Statist. 6 (1979)), where at most in one of twenty line-ups a single pair is told apart that is alike.
enum class Sure { EachPair, AllPairs };

/// A rank as an interval among those that an entry may be compared with, itself counted: "2 to 4 of 7". All 0 for an
/// entry that has no such figure.
struct RankInterval {
  int low = 0, high = 0, of = 0;
  bool operator==(const RankInterval&) const = default;
};

/// Entries in the order of one figure, the best first, with what tells them apart. Pairs that may not be compared are
/// never told apart. Refers to `comparable`, which has to outlive it; without one all pairs may be.
class Ranking {
 public:
  Ranking(std::vector<Standing> standings, Better better, Sure sure = Sure::EachPair,
          const Comparability* comparable = nullptr);

  const std::vector<Standing>& standings() const { return standings_; }
  /// Entries that have the figure, by number, the best first.
  const std::vector<int>& order() const { return order_; }
  RankInterval rank(int entry) const { return ranks_[static_cast<std::size_t>(entry)]; }

  bool may_compare(int a, int b) const { return !comparable_ || comparable_->may(a, b); }
  /// Whether the better of two is better beyond the uncertainty of their difference.
  bool told_apart(int a, int b) const;
  /// Whether `a` is better than `b` beyond the uncertainty of their difference.
  bool beats(int a, int b) const;
  /// Those that it may be compared with and is not told apart from, in the ranking's order.
  std::vector<int> ties(int entry) const;

  /// How many standard uncertainties a difference has to be over: 2, or what Holm's procedure came to; infinite where
  /// it tells none apart.
  double standards_needed() const { return needed_; }

  /// Runs of entries of `sequence`, which follows the ranking's order, that are all ties of each other: first and last
  /// place, the longest ones, of two entries at least.
  std::vector<std::pair<int, int>> tie_brackets(std::span<const int> sequence) const;

 private:
  struct Pairs;
  double standards_between(int a, int b) const;
  Pairs lay_out_pairs() const;
  void squares_from(const Pairs& p, std::size_t at, std::size_t until, std::vector<double>& squares,
                    std::vector<double>& variances) const;
  std::size_t surely_apart_from(const Pairs& p, std::size_t at) const;
  bool comparable_at(const Pairs& p, std::size_t i, std::size_t j) const;
  void find_what_is_needed(const Pairs& p);
  void count_ranks(const Pairs& p);

  std::vector<Standing> standings_;
  Better better_;
  const Comparability* comparable_;
  double needed_ = 2;
  std::vector<double> variance_;
  std::vector<int> order_;
  std::vector<RankInterval> ranks_;
};

}  // namespace sunbreak
