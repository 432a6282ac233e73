#include "evaluation/settings_card.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/power/running_cost.h"
#include "evaluation/crop_targets.h"
#include "evaluation/settle_words.h"

namespace sunbreak::evaluation {

std::vector<CardRow> made_card(const SettleMaps& maps, const SettleRequest& request,
                               const std::vector<CropTarget>& targets, CardPolicy policy,
                               const std::vector<CardRow>& before, Id test_id, std::stop_token stop) {
  std::vector<CardStage> stages;
  for (const CropTarget& t : targets) stages.push_back({band_of(t, t.photoperiod_h), t.photoperiod_h});
  const auto points = settle_card(maps, stages, request, policy, std::move(stop));
  std::vector<CardRow> rows;
  for (std::size_t i = 0; i < targets.size(); ++i) {
    CardRow& row = rows.emplace_back();
    row.test_id = test_id;
    row.stage = targets[i].name;
    row.low_ppfd = stages[i].band.low, row.high_ppfd = stages[i].band.high;
    row.photoperiod_h = stages[i].photoperiod_h;
    if (points[i])
      row.height_m = points[i].value().point.height->height_m, row.percent = points[i].value().point.setting.percent;
    const auto same =
        std::find_if(before.begin(), before.end(), [&](const CardRow& old) { return old.stage == row.stage; });
    if (same != before.end()) row.weeks = same->weeks;
  }
  return rows;
}

SettingsCard settings_card(const TestRecord& test_record, const TestLight& light, const Evaluation& walked,
                           std::stop_token stop) {
  SettingsCard card;
  const Settling settling = settling_of(test_record);
  card.request = request_asked(settling, test_record.test, light, {});
  card.area = area_asked(settling, light);
  card.area_m2 = card.area.area_m2();
  const auto [lowest, highest] = light.heights_m();
  constexpr double rounding_m = 1e-6;
  std::vector<double> heights;
  for (const CardRow& row : test_record.card_rows)
    if (row.height_m && *row.height_m >= lowest - rounding_m && *row.height_m <= highest + rounding_m &&
        std::find(heights.begin(), heights.end(), *row.height_m) == heights.end())
      heights.push_back(*row.height_m);
  SettleMaps maps = settle_settings(light);
  if (!heights.empty())
    if (auto made = settle_maps(light, card.area, heights, 0, stop)) maps = std::move(made.value());
  for (const CardRow& row : test_record.card_rows) {
    CardLine& line = card.lines.emplace_back(CardLine{row, {}, {}, false, {}});
    if (!row.height_m || !row.percent) {
      line.why = "no height and setting lies within the limits";
      continue;
    }
    const auto height = std::find_if(maps.heights.begin(), maps.heights.end(),
                                     [&](const auto& h) { return h->height_m == *row.height_m; });
    const auto setting = setting_at(maps, *row.percent);
    if (height == maps.heights.end() || !setting) {
      line.why =
          height == maps.heights.end() ? "light is not known at that height" : "light is not known at that setting";
      continue;
    }
    SettleRequest own = card.request;
    own.band = {row.low_ppfd, row.high_ppfd};
    line.point = point_at(maps, own, *height, *setting);
    line.expanded = how_sure(walked, maps, own, *line.point, stop);
    const AreaLight& light_there = line.point->figures;
    line.met = judged(own.rule, own.band, light_there).met();
    line.within = own.limits.allows_height((*height)->height_m) && own.limits.allows(*setting, light_there);
    line.sure = line.met && line.point->chance >= own.sure;
    line.lacking = lacking_words(own.rule, own.band, light_there);
    line.mending = mending_words(own, *line.point, light);
    line.walked = light.read_at((*height)->height_m, setting->percent) != nullptr;
  }
  return card;
}

std::string card_line_words(const CardLine& line) {
  if (!line.point) return line.why;
  std::string words;
  if (!line.met) words = "nearest way: " + line.lacking + ". " + line.mending;
  if (line.met && !line.sure) words = "the surest way there is";
  if (!line.within)
    words += std::string(words.empty() ? "" : words.ends_with('.') ? " " : "; ") + "outside of the limits";
  return words;
}

std::optional<GrowSum> grow_sum(const SettingsCard& card) {
  GrowSum sum;
  for (const CardLine& line : card.lines) {
    if (!line.row.weeks || !line.point || !line.point->setting.power_w) continue;
    const double days = days_a_week * *line.row.weeks;
    sum.days += days;
    sum.kwh += days * running_cost(*line.point->setting.power_w, line.row.photoperiod_h, 0).kwh_day;
  }
  return sum.days > 0 ? std::optional(sum) : std::nullopt;
}

std::vector<std::string> claimed_heights(const TestRecord& test_record, UnitSystem units) {
  std::vector<std::string> heights;
  for (const Claim& claim : test_record.claims)
    if (claim.kind == "height_m")
      heights.push_back(claim.words.empty() && claim.value ? length_text(*claim.value, units) : claim.words);
  return heights;
}

}  // namespace sunbreak::evaluation
