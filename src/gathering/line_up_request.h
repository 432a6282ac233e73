#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "evaluation/lineup/lineup.h"
#include "record/kinds/crop_target.h"
#include "record/kinds/saved_line_up.h"

namespace sunbreak::gathering {

/// A line-up asked for in words that people type and that are saved, made ready: what its entries are asked, and what
/// it is by. Fills in what is not stated: the height that most walked, the target and hours of most tests.
struct ReadyLineUp {
  evaluation::EntryQuestion question;
  evaluation::LineUpTerms terms;
  std::string target_name;  ///< of the band
  std::string weights;      ///< of the user's own index, in words; empty where it is by a figure of the table
};

/// A Problem names the word of the request that cannot be used.
Result<ReadyLineUp> ready_line_up(const record::SavedLineUp& asked, std::span<const evaluation::Entrant> entrants,
                                  const std::vector<record::CropTarget>& targets);

/// The way, target and rule as they are printed with a line-up.
std::string declared_way(const ReadyLineUp& ready, UnitSystem units);

/// A band by the name of a target, in any of the lists, or from "555-925"; nothing where neither is meant.
std::optional<std::pair<std::string, Band>> target_band(const std::string& words,
                                                        const std::vector<record::CropTarget>& targets);

}  // namespace sunbreak::gathering
