#pragma once

#include <memory>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>

#include "core/claims/claimed_map.h"
#include "core/claims/lift.h"
#include "core/claims/verdict.h"
#include "core/quantity/display.h"
#include "evaluation/evaluation.h"

/// Audit: what the maker claims, held against what was measured.
namespace sunbreak::evaluation {

/// What an audit needs beside the test.
struct AuditContext {
  std::vector<CropTarget> targets;  ///< the shelf's lists
  /// Other tests, as they come, among which a lamp that this fixture is to stand in for may be.
  std::vector<std::shared_ptr<const Evaluation>> others;
  UnitSystem units = UnitSystem::Metric;  ///< that the words are in; those the evaluation was made with
  bool with_words = true;                 ///< the verdict in words too, which takes half of the time
};

/// A maker's map beside ours.
struct AuditedMap {
  HeldMap held;
  double expanded = unread;  ///< of our mean, relative, k = 2
  std::optional<OutsideOfMap> outside;
};

/// One claim with its measured counterpart and what follows.
struct AuditedClaim {
  Claim claim;
  std::string slot;           ///< by which it is told from the others of its test: kind and number
  std::string label;          ///< what is claimed
  std::string claimed_words;  ///< how much
  /// As numbers on one axis, in `unit`; NaN where there is none. Of a range, also its upper end.
  double claimed = unread, claimed_to = unread, measured = unread, measured_to = unread, expanded = unread;
  std::string unit;
  int decimals = 0;
  std::string measured_words;  ///< empty where nothing was measured
  Judgement judgement;
  std::string reason;   ///< what was compared with what, in a sentence or a few
  std::string weakest;  ///< what its ± mostly comes from
  std::string lifts;    ///< the one act that would help most; for what is not testable, what would make it so
  std::optional<AuditedMap> map;
};

/// Badge watts beside those at the wall.
struct WattsAtSetting {
  double percent = 100;
  double badge_w = unread;  ///< the badge's share of that setting
  FoundValue wall;
  double difference_pct() const { return 100 * (wall.value / badge_w - 1); }
  /// As a sweep's watts are told, in W.
  std::string wall_words() const;
};

/// A number that a sentence of the verdict states.
struct StatedNumber {
  std::string figure;  ///< what it is: an id of the table of figures, or one that docs/formats.md lists
  double value = unread, expanded = unread;  ///< as the sentence has it, in `unit`
  int decimals = 0;
  std::string unit;
};

/// One sentence of the verdict in words.
struct VerdictWords {
  enum Aspect { Light, Strength, Weakness, Use, Watch };
  std::string slot;
  Aspect aspect = Light;
  std::string drafted;                ///< what follows from the figures now
  std::string sentence;               ///< what stands: the draft, or the tester's own
  std::vector<StatedNumber> numbers;  ///< in the order they stand in the draft; never empty
  std::size_t tied = 0;               ///< which of them the sentence is about
  bool own = false, struck = false;
  bool figure_changed = false;  ///< since the tester wrote it

  const StatedNumber& tied_to() const { return numbers[tied]; }
};

/// "light", "strength", "weakness", "use" or "watch": as files have it.
const char* aspect_id(VerdictWords::Aspect aspect);

struct Audit {
  std::vector<AuditedClaim> claims;
  std::vector<WattsAtSetting> watts;
  std::vector<VerdictWords> words;  ///< struck ones among them
  std::string target_list;          ///< the one that stages of growth are looked up in
};

/// Audits a test of one configuration. Takes what its whole light takes where that is not known yet, and a second or
/// two more. Where `stop` asks for an end it means nothing.
Audit audit(const Evaluation& evaluation, const AuditContext& context, std::stop_token stop = {});

/// Puts the tester's own sentences on record in place of the drafts, and marks what is struck out.
void take_own_words(std::vector<VerdictWords>& words, const TestRecord& record);

/// The list of targets that a test goes by: that of its settings card, or that of its target, or the first.
std::string target_list_of(const TestRecord& record, const std::vector<CropTarget>& targets);

/// Whether a fixture is called what a lamp is claimed to be ("sodium", "ceramic lamp"): each of its words stands in its
/// name, kind or emitters. False for no word beside "lamp".
bool is_lamp_kind(const Fixture& fixture, const std::string& kind);

}  // namespace sunbreak::evaluation
