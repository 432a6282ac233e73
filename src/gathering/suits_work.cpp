#include "gathering/suits_work.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "core/quantity/number.h"
#include "gathering/crew.h"
#include "gathering/members.h"

namespace sunbreak::gathering {
namespace {

using evaluation::Entrant;
using evaluation::Suit;
using evaluation::SuitAnswer;
using evaluation::SuitQuestion;
using record::Json;
using Answers = std::vector<std::optional<SuitAnswer>>;

constexpr std::array<std::pair<const char*, SuitOrder>, 4> orders{{{"cost", SuitOrder::Cost},
                                                                   {"watts", SuitOrder::Watts},
                                                                   {"count", SuitOrder::Count},
                                                                   {"evenness", SuitOrder::Evenness}}};

/// What is less the better; what is not known comes last.
double order_value(const Suit& s, SuitOrder order) {
  const double value = order == SuitOrder::Cost    ? s.cost.value
                       : order == SuitOrder::Watts ? s.power_w.value
                       : order == SuitOrder::Count ? s.count()
                                                   : -s.lowest_over_mean;
  return std::isnan(value) ? INFINITY : value;
}

Json suit_json(const Entrant& e, const Suit& s) {
  return {{"test", e.title},
          {"fixture", e.fixture},
          {"count", s.count()},
          {"columns", s.pattern.columns},
          {"rows", s.pattern.rows},
          {"column_spacing_m", s.pattern.column_spacing_m},
          {"row_spacing_m", s.pattern.row_spacing_m},
          {"height_m", s.height_m},
          {"dimmer_pct", s.percent},
          {"power_w", s.power_w.value},
          {"power_expanded_k2", s.power_w.expanded},
          {"mean_ppfd", s.mean_ppfd.value},
          {"mean_expanded_k2", s.mean_ppfd.expanded},
          {"lowest_over_mean", s.lowest_over_mean},
          {"in_band", s.in_band},
          {"chance", s.chance},
          {"price", s.price},
          {"cost", s.cost.value},
          {"cost_expanded_k2", s.cost.expanded}};
}

}  // namespace

Result<SuitOrder> parse_suit_order(const std::string& word) {
  for (const auto& [name, order] : orders)
    if (word == name) return order;
  return Problem{fmt::format("suits are not ordered by '{}'", word), "", "choose cost, watts, count or evenness"};
}

std::string suit_order_words(SuitOrder order) {
  for (const auto& [name, which] : orders)
    if (which == order) return name;
  return {};
}

std::optional<Problem> take_budget(SuitQuestion& question, const std::string& text) {
  if (text.empty()) return {};
  const auto unit_at = text.find_first_not_of("0123456789.");
  const auto amount = parse_number(text.substr(0, unit_at));
  const std::string unit(unit_at == std::string::npos ? std::string_view()
                                                      : trimmed(std::string_view(text).substr(unit_at)));
  if (!amount || *amount <= 0 || (!unit.empty() && unit != "W" && unit != question.currency))
    return Problem{fmt::format("'{}' is no budget", text), "",
                   fmt::format("write watts as 600W, or money as 1200{}", question.currency)};
  (unit == "W" ? question.most_w : question.most_money) = *amount;
  return {};
}

std::string suit_room_words(const SuitQuestion& q, UnitSystem units) {
  return fmt::format("{}, {} high", size_text(q.room.width_m, q.room.depth_m, units),
                     length_text(q.room.height_m, units));
}

Answers suits_of(const std::vector<Entrant>& entrants, const SuitQuestion& question,
                 const std::optional<std::filesystem::path>& book, UnitSystem units, std::stop_token stop,
                 const std::function<void(const Filling&)>& on_progress, int threads) {
  Answers answers(entrants.size()), worked(entrants.size());
  Filling filling{0, static_cast<int>(entrants.size())};
  if (on_progress) on_progress(filling);
  run_crew(
      entrants.size(), book, threads, stop,
      [&](std::size_t n, const book::Book* own) {
        try {
          const auto record = record_of(entrants[n], own);
          if (!record) {
            worked[n] = SuitAnswer{{}, false, record.problem().seen};
            return;
          }
          const auto evaluation = evaluation::evaluate(record.value(), nullptr, units);
          worked[n] = evaluation::suit_of(*evaluation, entrants[n], question, units, stop);
        } catch (const std::exception& e) {
          worked[n] = SuitAnswer{{}, false, fmt::format("it could not be worked out: {}", e.what())};
        }
      },
      [&](std::size_t n) {
        answers[n] = std::move(worked[n]);
        ++filling.done;
        if (on_progress) on_progress(filling);
      });
  return answers;
}

SortedSuits sorted_suits(const Answers& answers, SuitOrder order) {
  SortedSuits sorted;
  for (std::size_t i = 0; i < answers.size(); ++i) {
    if (!answers[i]) continue;
    (answers[i]->meets ? sorted.suit : answers[i]->suit ? sorted.almost : sorted.unknown).push_back(i);
  }
  const auto by_order = [&](std::size_t a, std::size_t b) {
    const Suit &x = *answers[a]->suit, &y = *answers[b]->suit;
    const auto key = [&](const Suit& s) { return std::pair{order_value(s, order), order_value(s, SuitOrder::Watts)}; };
    return key(x) < key(y);
  };
  std::ranges::stable_sort(sorted.suit, by_order);
  std::ranges::stable_sort(sorted.almost, by_order);
  return sorted;
}

Json suits_json(const std::vector<Entrant>& entrants, const Answers& answers, const SuitQuestion& q, SuitOrder order) {
  const SortedSuits sorted = sorted_suits(answers, order);
  Json j{{"room", {{"width_m", q.room.width_m}, {"depth_m", q.room.depth_m}, {"height_m", q.room.height_m}}},
         {"target_low_ppfd", q.band.low},
         {"target_high_ppfd", q.band.high},
         {"rule", serving_rule_words(q.rule, q.band)},
         {"photoperiod_h", q.money.hours_a_day},
         {"years", q.money.years},
         {"tariff_per_kwh", q.money.tariff_per_kwh},
         {"currency", q.currency},
         {"by", suit_order_words(order)},
         {"rows", Json::array()},
         {"almost", Json::array()},
         {"unknown", Json::array()}};
  for (const std::size_t i : sorted.suit) j["rows"].push_back(suit_json(entrants[i], *answers[i]->suit));
  for (const std::size_t i : sorted.almost) {
    Json row = suit_json(entrants[i], *answers[i]->suit);
    row["why_not"] = answers[i]->why_not;
    j["almost"].push_back(std::move(row));
  }
  for (const std::size_t i : sorted.unknown)
    j["unknown"].push_back(
        {{"test", entrants[i].title}, {"fixture", entrants[i].fixture}, {"why", answers[i]->why_not}});
  return j;
}

}  // namespace sunbreak::gathering
