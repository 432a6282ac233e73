#pragma once

#include <optional>
#include <stop_token>
#include <string>

#include "core/figures/serving_rule.h"
#include "core/lineup/light_for_money.h"
#include "core/optics/room.h"
#include "core/whole_light/elsewhere.h"
#include "evaluation/lineup/entrant.h"
#include "evaluation/test_light.h"

namespace sunbreak::evaluation {

/// A room that is to be lit, and what it may take.
struct SuitQuestion {
  Room room;
  Band band;
  ServingRule rule;
  MoneyTerms money;
  std::string currency = "EUR";
  std::optional<double> most_money;  ///< for buying the fixtures
  std::optional<double> most_w;
};

/// How one fixture would light the room: so many of it, hung and dimmed so.
struct Suit {
  HangingPattern pattern;
  double height_m = 0, percent = 100;
  FoundValue mean_ppfd;  ///< with the sensor's calibration
  double lowest_over_mean = unread, in_band = unread;
  double chance = 0;            ///< that the rule is met, by all light being off together
  FoundValue power_w, cost;     ///< of all together; the cost over the years, price and energy
  std::optional<double> price;  ///< of all together
  int count() const { return pattern.columns * pattern.rows; }
};

/// The cheapest way (the fewest watts where a price is not known) of those that meet the rule within the budget; else
/// the nearest to it, and what it fails by; else why nothing can be told.
struct SuitAnswer {
  std::optional<Suit> suit;
  bool meets = false;
  std::string why_not;
};

/// Takes what the whole light takes, and a second or two more. Fixtures hang in a lattice evenly over the room, at the
/// heights they were walked at and between.
SuitAnswer suit_of(const Evaluation& evaluation, const Entrant& entrant, const SuitQuestion& question,
                   UnitSystem units = UnitSystem::Metric, std::stop_token stop = {});

/// The room of a size with walls as they are described ("white", "reflective", "dark", "open").
Room room_to_light(const Footprint& size, double height_m, const std::string& walls);

}  // namespace sunbreak::evaluation
