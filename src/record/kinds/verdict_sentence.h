#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// A sentence of a test's verdict that its tester wrote over, or struck out, in place of the drafted one.
struct VerdictSentence {
  Id id = 0, test_id = 0;
  std::string slot;     ///< which drafted sentence, by what it is about
  std::string words;    ///< empty: struck out
  std::string drafted;  ///< the draft when it was written over, with the figures of then
  std::optional<Id> configuration_id{};
  bool operator==(const VerdictSentence&) const = default;
};

template <>
struct Described<VerdictSentence> {
  static constexpr Facts facts{.name = "verdict_sentence", .since = 9};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &VerdictSentence::test_id, "the test").belongs_to("test");
    columns.add("slot", &VerdictSentence::slot, "which sentence of the drafted verdict it stands in for");
    columns.add("words", &VerdictSentence::words, "the tester's own sentence; empty: struck out");
    columns.add("drafted", &VerdictSentence::drafted, "the draft at that time, with its figures");
    columns
        .add("configuration_id", &VerdictSentence::configuration_id,
             "the configuration; empty: the fixture as it comes")
        .refers_to("configuration");
  }
};

}  // namespace sunbreak::record
