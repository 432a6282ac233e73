#pragma once

#include <stop_token>
#include <string>
#include <vector>

#include "core/settle/settle_card.h"
#include "evaluation/evaluation.h"
#include "evaluation/settle_field.h"

namespace sunbreak::evaluation {

/// A settings card made anew: a row for each target, in their order, chosen by the policy. Weeks of stages of the same
/// name are kept from the rows there were.
std::vector<CardRow> made_card(const SettleMaps& maps, const SettleRequest& request,
                               const std::vector<CropTarget>& targets, CardPolicy policy,
                               const std::vector<CardRow>& before, Id test_id, std::stop_token stop = {});

/// A row of the card with what is predicted for it; judged anew, whatever it was chosen by.
struct CardLine {
  CardRow row;
  std::optional<SettlePoint> point;  ///< nothing where the row names no way, or one out of reach
  SettleExpanded expanded;
  bool met = false;     ///< the rule is
  bool sure = false;    ///< it is met with the chance that is asked for
  bool within = false;  ///< the limits are kept
  bool walked = false;  ///< the light there was read, not predicted
  std::string lacking;  ///< what the rule lacks there, in words; empty where it is met
  std::string mending;  ///< and what would help
  std::string why;      ///< where there is no point
};

/// What is to be said of a row beside its figures: why there are none, what the rule lacks, that a limit is not kept,
/// or that no way is sure enough. Empty where all is as was asked for.
std::string card_line_words(const CardLine& line);

struct SettingsCard {
  std::vector<CardLine> lines;
  SettleRequest request;  ///< without a band: each row has its own
  Rectangle area;
  double area_m2 = 0;
};

/// The card on record of a test. Rows are predicted at their very heights; where one is of a sweep that was walked
/// whole its ± is that sweep's own. Takes some 100 ms where the light is known.
SettingsCard settings_card(const TestRecord& test_record, const TestLight& light, const Evaluation& walked,
                           std::stop_token stop = {});

/// Energy [kWh] and days of a whole grow, over the rows with weeks; nothing where none has them.
struct GrowSum {
  double days = 0, kwh = 0;
};
std::optional<GrowSum> grow_sum(const SettingsCard& card);

/// The maker's hanging heights, as claimed; empty where none are.
std::vector<std::string> claimed_heights(const TestRecord& test_record, UnitSystem units);

}  // namespace sunbreak::evaluation
