#pragma once

#include <optional>
#include <stop_token>
#include <string>
#include <vector>

#include "core/quantity/display.h"
#include "core/settle/settle_solver.h"
#include "evaluation/test_light.h"

namespace sunbreak::evaluation {

/// Single questions to a field, each with the number that it is asked of; what holds none is not asked.
struct SettleAsked {
  std::optional<double> power_w;             ///< which height, at these watts
  std::optional<double> height_m;            ///< which setting, at this height
  std::optional<double> center_ppfd;         ///< at which height does the center read it, at the setting stood at
  std::optional<double> corner_ppfd;         ///< at which setting do the corners read it, at the height stood at
  std::optional<double> mean_ppfd;           ///< which area has such a mean, where one stands
  std::optional<double> daily_light_mol_m2;  ///< which photoperiod brings it, where one stands
  bool operator==(const SettleAsked&) const = default;
};

/// An answer in words, and where it stands on the field, if at one place.
struct SettleReply {
  std::string words;
  bool known = false;                              ///< the words are an answer, not why there is none
  std::optional<std::pair<double, double>> place;  ///< height [m] and setting [%]
};

/// Replies to each of SettleAsked, in its order; empty words for what was not asked.
std::vector<SettleReply> settle_replies(const TestLight& light, const SettleMaps& maps, const SettleRequest& request,
                                        const SettlePoint& here, const SettleAsked& asked, double photoperiod_h,
                                        UnitSystem units, std::stop_token stop = {});

/// The largest square, and the largest floor of the bench's proportions, that keep a mean when the walls are brought in
/// to it, with the fixture hung as high and as bright; nothing where none of 20 cm or more does, or where the light
/// does not fit.
struct BroughtIn {
  std::optional<Footprint> square, rectangle;
};
BroughtIn walls_brought_in(const TestLight& light, double height_m, double light_factor, double mean_ppfd,
                           std::stop_token stop = {});

}  // namespace sunbreak::evaluation
