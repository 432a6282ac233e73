#include "exchange/settle/settle_json.h"

#include <cmath>

#include "core/power/running_cost.h"
#include "core/quantity/daily_light.h"
#include "evaluation/settle_field.h"

namespace sunbreak::exchange {
namespace {

using record::Json;

}  // namespace

Json settle_point_json(const SettleMaps& maps, const SettleRequest& request, const SettlePoint& point,
                       const SettleUse& use) {
  const AreaLight& f = point.figures;
  const SettleExpanded e = use.walked ? evaluation::how_sure(*use.walked, maps, request, point)
                                      : expanded_of(request.band, maps.shared_sd, *point.height, point.setting);
  Json j{{"height_m", point.height->height_m},
         {"dimmer_pct", point.setting.percent},
         {"power_w", point.setting.power_w},
         {"mean_ppfd", f.mean},
         {"edge_mean_ppfd", f.edge},
         {"lowest_ppfd", f.lowest},
         {"highest_ppfd", f.highest},
         {"center_ppfd", f.center},
         {"corner_ppfd", f.corners},
         {"in_band_share", f.in_band},
         {"too_dim_share", f.too_dim},
         {"too_bright_share", f.too_bright},
         {"in_band_m2", f.in_band * maps.lattice.area.area_m2()},
         {"lowest_over_mean", f.lowest_over_mean()},
         {"dli_mean_mol_m2_d", dli_mol_m2_d(f.mean, use.photoperiod_h)},
         {"photoperiod_h", use.photoperiod_h}};
  const double watts = point.setting.power_w.value_or(NAN);
  const RunningCost cost = running_cost(watts, use.photoperiod_h, use.tariff_per_kwh.value_or(NAN));
  j["kwh_day"] = cost.kwh_day;
  j["money_day"] = cost.money_day;
  j["rule_met"] = judged(request.rule, request.band, f).met();
  j["chance"] = point.chance;
  j["expanded_k2"] = {{"mean_ppfd", e.mean},        {"edge_mean_ppfd", e.edge},
                      {"lowest_ppfd", e.lowest},    {"highest_ppfd", e.highest},
                      {"center_ppfd", e.center},    {"corner_ppfd", e.corners},
                      {"in_band_share", e.in_band}, {"lowest_over_mean", e.lowest_over_mean}};
  j["beyond_measured"] = point.height->beyond;
  const evaluation::TestLight* light = use.walked ? use.walked->light() : nullptr;
  j["predicted"] = !light || !evaluation::sweep_at(*light, maps, point);
  return j;
}

namespace {

Json way_json(const SettleMaps& maps, const SettleRequest& request, const BestWay& way, const SettleUse& use) {
  Json j = settle_point_json(maps, request, way.point, use);
  j["sure_enough"] = way.sure;
  j["lacking"] = lacking_words(request.rule, request.band, way.point.figures);
  return j;
}

}  // namespace

Json settle_json(const SettleMaps& maps, const SettleRequest& request, const SettleAnswers& answers,
                 const SettleUse& use) {
  const Rectangle& area = maps.lattice.area;
  Json j{{"rule", serving_rule_id(request.rule)},
         {"rule_words", serving_rule_words(request.rule, request.band)},
         {"target_low_ppfd", request.band.low},
         {"target_high_ppfd", request.band.high},
         {"sure_pct", 100 * request.sure},
         {"area",
          {{"left_m", area.left_m}, {"front_m", area.front_m}, {"width_m", area.width_m}, {"depth_m", area.depth_m}}}};
  Json reasons = Json::object();
  const auto add = [&](const char* name, const Result<SettlePoint>& answer) {
    if (answer)
      j[name] = settle_point_json(maps, request, answer.value(), use);
    else
      j[name] = nullptr, reasons[name] = answer.problem().sentence();
  };
  add("fewest_watts", answers.fewest_watts);
  add("widest", answers.widest);
  add("most_even", answers.most_even);
  j["reason"] = reasons;
  j["instead"] = answers.instead ? way_json(maps, request, *answers.instead, use) : Json();
  return j;
}

Json settle_row_json(const SettleMaps& maps, SettleRequest request, const std::string& stage, const CardStage& wanted,
                     const Result<BestWay>& row, SettleUse use) {
  request.band = wanted.band;
  use.photoperiod_h = wanted.photoperiod_h;
  Json j{{"stage", stage},
         {"target_low_ppfd", wanted.band.low},
         {"target_high_ppfd", wanted.band.high},
         {"photoperiod_h", wanted.photoperiod_h}};
  if (row)
    j.update(way_json(maps, request, row.value(), use));
  else
    j["height_m"] = nullptr, j["reason"] = row.problem().sentence();
  return j;
}

}  // namespace sunbreak::exchange
