#pragma once

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/display.h"
#include "record/test_record.h"

/// What a maker may claim: one table that fields, checks, words and the audit read.
namespace sunbreak::record {

/// A unit that makers use: kept = stated · factor + offset.
struct ClaimUnit {
  std::string_view symbol;
  double factor = 1, offset = 0;
  double kept(double stated) const { return stated * factor + offset; }
  double stated(double kept) const { return (kept - offset) / factor; }
};

/// One of the words that Claim::says may hold.
struct ClaimSaying {
  std::string_view id, words;
};

struct ClaimKind {
  enum Holds { Number, Range, Size, Lamp, Presence, Map };
  std::string_view name;  ///< as claim.kind has it
  std::string_view label;
  Holds holds = Number;
  std::vector<ClaimUnit> units{{""}};  ///< the first is the one that values are kept in
  double least = 0, most = 1e6;        ///< of the value, as kept
  bool whole = false;                  ///< a count
  std::vector<ClaimSaying> sayings{};  ///< what claim.says may be, where it is no free text
  std::string_view hint{};             ///< an example

  bool may_name_stage() const { return name == "coverage" || name == "height_m"; }
  bool may_name_state() const;  ///< a height and a setting stated with it
  bool may_name_walls() const { return holds == Map || name == "coverage"; }
};

/// In the order they are shown in.
std::span<const ClaimKind> claim_kinds();
const ClaimKind* claim_kind(std::string_view name);

/// The unit that a claim is stated in: its own where the kind knows it, or else the kind's first.
const ClaimUnit& unit_of(const Claim& claim);

/// What is wrong with a claim as a row, as what would be right; nothing where it may stand.
std::optional<std::string> claim_fault(const Claim& claim);

/// Whether it states what its kind needs to be held against a measurement; older ones may be words alone.
bool is_stated(const Claim& claim);

/// All that is claimed of a record's fixture: its claims, then what the facts of its box state of kinds that no claim
/// is of (those have the id 0).
std::vector<Claim> claims_of(const TestRecord& record);

/// A claim as one line: what is claimed, with what is stated beside it; in the maker's words where it is nothing else.
std::string claim_words(const Claim& claim, UnitSystem units);
/// The same without the state, source and day: "2.9 µmol/J without driver losses".
std::string claimed_value_words(const Claim& claim, UnitSystem units);

/// The PPFD of a claimed map, front row first; empty where there is none or it is not whole.
std::vector<double> map_values(const Claim& claim);
void set_map(Claim& claim, int columns, int rows, std::span<const double> ppfd);

}  // namespace sunbreak::record
