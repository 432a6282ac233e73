#pragma once

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "record/test_record.h"

/// The sheet of a fixture: what there is to say of it beside its light. The list is one table; screens, reports,
/// packages and checks read it from here.
namespace sunbreak::record {

struct FactKind {
  enum Holds { Number, Length, Count, Choice, Words, Day, ProtectionCode };
  std::string_view name;   ///< as box_fact.name has it
  std::string_view group;  ///< the heading that it stands under
  std::string_view label;
  Holds holds = Words;
  std::string_view unit;         ///< of a number; lengths are kept in meters
  double least = 0, most = 1e6;  ///< of a number
  std::vector<std::string_view> choices{};
  std::string_view hint{};  ///< an example, or what it is about
};

/// In the order they are shown in; those of a group stand together.
std::span<const FactKind> fact_kinds();
const FactKind* fact_kind(std::string_view name);

/// The fact of a name and source (stated or checked); null where there is none.
const BoxFact* box_fact(const TestRecord& record, std::string_view name, std::string_view source);

/// What is wrong with a fact, as what would be right; nothing where it may stand.
std::optional<std::string> fact_fault(const BoxFact& fact);

/// Whether a text is a code of protection against solids and water: IP, a digit 0 to 6 or X, a digit 0 to 9 or X (with K
/// after a 9), then at most an additional letter A to D and a supplementary H, M, S or W (IEC 60529).
bool is_protection_code(std::string_view text);

/// What an IP code promises, in words: dust and water.
std::string protection_words(std::string_view code);

/// What a safety listing covers and what it does not, in one sentence.
std::string_view listing_caution();

/// What the fixture costs: its price less the discount, and shipping; nothing where the price is not stated.
std::optional<double> cost_of(const Fixture& fixture);

}  // namespace sunbreak::record
