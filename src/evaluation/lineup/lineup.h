#pragma once

#include <memory>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/lineup/dominance.h"
#include "core/lineup/light_for_money.h"
#include "evaluation/lineup/entrant.h"
#include "evaluation/lineup/lineup_figures.h"
#include "evaluation/lineup/own_index.h"
#include "evaluation/once.h"

namespace sunbreak::evaluation {

/// What a line-up is by, beside what its entries are.
struct LineUpTerms {
  std::string figure = "canopy_efficacy_umol_j";
  Sure sure = Sure::EachPair;
  MoneyTerms money;
  std::string currency = "EUR";  ///< prices in another are no prices here
  double photoperiod_h = 12;     ///< that daily light is of
  bool price_counts = false;     ///< among what dominance looks at
  bool operator==(const LineUpTerms&) const = default;
};

struct LineUpMember {
  Entrant entrant;
  std::shared_ptr<const LineUpEntry> entry;
};

/// Members that stand under one heading.
struct LineUpBlock {
  std::string heading;  ///< why they may not be held against the first group; empty for that one
  std::vector<int> members;
};

/// Fixtures held against each other by one figure, in one way. Members keep their places; results speak of them by
/// those.
class LineUp {
 public:
  LineUp(std::vector<LineUpMember> members, LineUpTerms terms, UnitSystem units = UnitSystem::Metric);
  LineUp(const LineUp&) = delete;  // its parts refer to each other

  const std::vector<LineUpMember>& members() const { return members_; }
  const LineUpTerms& terms() const { return terms_; }
  const LineUpFigure& figure() const { return figure_; }
  const Ranking& ranking() const { return ranking_; }

  /// Any figure of all members, with what they have in common.
  std::vector<Standing> standings(std::string_view figure_id) const;
  Standing standing(std::string_view figure_id, int member) const;
  /// Why a member has no value of the line-up's figure; empty where it has one.
  std::string why_none(int member) const;

  /// Reasons why two may not be compared by the line-up's figure; empty where they may.
  std::vector<Unlike> why_not(int a, int b) const;

  /// What two have in common that cancels in their difference by the line-up's figure, in words, the largest first; of
  /// those alone that would widen it by a tenth.
  std::vector<std::string> what_cancels(int a, int b) const;

  /// Members in groups of those that may be compared, the largest first, each in the ranking's order; what has no value
  /// is in none.
  const std::vector<std::vector<int>>& groups() const { return groups_; }

  /// The groups as they are listed: each under a heading of its own, but those of one member that are kept from the
  /// first group for the same reasons stand together, since none of them may be held against another either.
  std::vector<LineUpBlock> blocks() const;

  /// By light (mean PPFD), evenness (lowest ÷ mean), watts, and price where it counts.
  const std::vector<std::vector<int>>& dominated() const;

  /// "2 to 4 of 7", "3 of 7".
  static std::string rank_words(const RankInterval& rank);

 private:
  std::vector<LineUpMember> members_;
  LineUpTerms terms_;
  UnitSystem units_;
  std::optional<OwnIndex> index_;  ///< that they are lined up by, if by one
  std::string index_words_;
  LineUpFigure figure_;
  std::vector<std::vector<std::uint32_t>> sources_;  ///< a member's sources as numbers that all share
  std::vector<ComparedFacts> facts_;
  double log_middle_ = 0;  ///< of the index
  Comparability comparable_;
  Ranking ranking_;
  std::vector<std::vector<int>> groups_;
  Once<std::vector<std::vector<int>>> dominated_;

  std::vector<std::vector<std::uint32_t>> number_sources() const;
  std::vector<ComparedFacts> gather_facts() const;
  const LineUpFigure& figure_of(std::string_view id) const;
  std::vector<Standing> index_parts(std::size_t member) const;
  double find_log_middle() const;
  Standing own_standing(std::size_t member, int figure) const;
  Standing standing_of(const LineUpFigure& figure, std::size_t member) const;
  Standing money(std::size_t member, const LineUpFigure& figure) const;
  void find_groups();
  std::vector<std::vector<int>> find_dominated() const;
};

/// A line-up that a test stands in, with its declared way in words; null and empty where there is none.
struct StandingLineUp {
  std::shared_ptr<const LineUp> lineup;
  std::string way;
};

/// A sentence for each figure that both have: which is higher, by how much, and whether that is beyond its uncertainty.
struct PairSentence {
  std::string figure_id, words;
  double a = unread, b = unread;
  StandingDifference difference;
  bool told_apart = false;
};
std::vector<PairSentence> pair_sentences(const LineUp& lineup, int a, int b, UnitSystem units);

/// What is between two by the line-up's figure: the difference with its ±, whether that tells them apart, and, where
/// it does although the ± of the two overlap, what cancels. Empty where they may not be compared, or one has no value.
std::string beside_words(const LineUp& lineup, int a, int b, UnitSystem units);

}  // namespace sunbreak::evaluation
