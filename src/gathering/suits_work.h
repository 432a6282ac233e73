#pragma once

#include <filesystem>
#include <functional>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>
#include "record/json.h"

#include "evaluation/lineup/suits.h"
#include "gathering/line_up_work.h"

namespace sunbreak::gathering {

/// By what suits are ordered.
enum class SuitOrder { Cost, Watts, Count, Evenness };
Result<SuitOrder> parse_suit_order(const std::string& word);
std::string suit_order_words(SuitOrder order);

/// "1200EUR" or "1200" in the question's currency, or "600W".
std::optional<Problem> take_budget(evaluation::SuitQuestion& question, const std::string& text);

/// The room in a line of print: "3 × 4 m, 240 cm high".
std::string suit_room_words(const evaluation::SuitQuestion& question, UnitSystem units);

/// The answers of all entrants, in their order, on all cores; empty where `stop` asked for an end first.
std::vector<std::optional<evaluation::SuitAnswer>> suits_of(
    const std::vector<evaluation::Entrant>& entrants, const evaluation::SuitQuestion& question,
    const std::optional<std::filesystem::path>& book, UnitSystem units = UnitSystem::Metric, std::stop_token stop = {},
    const std::function<void(const Filling&)>& on_progress = {}, int threads = 0);

/// Entrants by number: those that do, best first; those that almost do, nearest first; those of which nothing is known.
struct SortedSuits {
  std::vector<std::size_t> suit, almost, unknown;
};
SortedSuits sorted_suits(const std::vector<std::optional<evaluation::SuitAnswer>>& answers, SuitOrder order);

/// {"room": …, "rows": […], "almost": […], "unknown": […]}. Keys: docs/formats.md.
record::Json suits_json(const std::vector<evaluation::Entrant>& entrants,
                        const std::vector<std::optional<evaluation::SuitAnswer>>& answers,
                        const evaluation::SuitQuestion& question, SuitOrder order);

}  // namespace sunbreak::gathering
