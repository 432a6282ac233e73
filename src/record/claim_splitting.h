#pragma once

#include <string>
#include <vector>

#include "record/test_record.h"

namespace sunbreak::record {

/// What a maker's sentence was read as.
struct SplitClaim {
  std::vector<Claim> claims;  ///< each stated, with the part of the sentence that it was read from as its words
  std::string rest;           ///< parts that nothing was read from
};

/// Reads claims from a sentence as makers write them: "2 × 240 W; flowers 120 × 120 cm at 45 cm; dims to 20 %, boosts
/// to 110 %". `kind` says what the sentence was written under, for numbers that could be of several kinds; empty where
/// it was not. Only what is surely meant is read; the rest is told, and so is what is left of a part where it holds a
/// number.
SplitClaim split_claim(const std::string& sentence, const std::string& kind = {});

/// A claim's words read as claims of the same fixture, source and day.
SplitClaim split_claim(const Claim& claim);

/// The stages of growth that a text names, as the shipped lists call them.
std::vector<std::string> stages_in_words(std::string_view text);
/// The stage of growth that a text names, as the shipped lists call it; empty where it names none.
std::string stage_in_words(std::string_view text);

}  // namespace sunbreak::record
