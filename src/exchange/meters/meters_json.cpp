#include "exchange/meters/meters_json.h"

#include <algorithm>
#include <cmath>

namespace sunbreak::exchange {
namespace {

using record::Json;

Json interval(const Estimate& e) { return Json::array({e.low, e.high}); }

double half(const Estimate& e) { return (e.high - e.low) / 2; }

const char* mover_id(Mover mover) {
  switch (mover) {
    case Mover::Sensor:
      return "sensor";
    case Mover::Lamp:
      return "lamp";
    case Mover::Both:
      return "both";
    case Mover::NotTold:
      break;
  }
  return "not told";
}

}  // namespace

const char* verdict_id(AgreementVerdict verdict) {
  switch (verdict) {
    case AgreementVerdict::Agree:
      return "agree";
    case AgreementVerdict::Factor:
      return "factor";
    case AgreementVerdict::Level:
      return "level";
    case AgreementVerdict::Angle:
      return "angle";
    case AgreementVerdict::Scatter:
      break;
  }
  return "scatter";
}

Json lux_factor_json(const LuxFactor& f) {
  return {{"k", f.k},
          {"k_expanded_k2", f.k_expanded},
          {"inverse", f.inverse()},
          {"r2", f.r_squared},
          {"scatter", f.scatter},
          {"intercept", f.intercept},
          {"intercept_expanded_k2", f.intercept_expanded},
          {"intercept_differs", f.intercept_differs},
          {"slope_with_intercept", f.slope_with_intercept},
          {"slope_expanded_k2", f.slope_expanded},
          {"bend", f.bend},
          {"bend_expanded_k2", f.bend_expanded},
          {"curve_needed", f.curve_needed},
          {"range_lux", Json::array({f.lowest_lux, f.highest_lux})},
          {"pairs", f.residuals.size()},
          {"residuals", f.residuals},
          {"holds", f.holds()},
          {"reasons", f.reasons}};
}

Json agreement_json(const Agreement& a) {
  return {{"ratio", a.ratio.value},
          {"ratio_interval", interval(a.ratio)},
          {"mean_difference_pct", a.mean_difference_pct.value},
          {"limits_pct", Json::array({a.low_limit_pct.value, a.high_limit_pct.value})},
          {"expanded_k2", half(a.mean_difference_pct)},
          {"low_limit_interval_pct", interval(a.low_limit_pct)},
          {"high_limit_interval_pct", interval(a.high_limit_pct)},
          {"scatter_pct", a.scatter_pct},
          {"proportion", a.proportion.value},
          {"proportion_interval", interval(a.proportion)},
          {"constant", a.constant.value},
          {"constant_interval", interval(a.constant)},
          {"edge_pct", a.edge_pct ? Json(a.edge_pct->value) : Json()},
          {"edge_interval_pct", a.edge_pct ? interval(*a.edge_pct) : Json()},
          {"angle_error", a.angle},
          {"level_error", a.level},
          {"pairs", a.differences_pct.size()},
          {"verdict", verdict_id(a.verdict)},
          {"words", a.words}};
}

Json check_lamp_json(const std::vector<CheckReading>& readings, const std::vector<LampChart>& charts,
                     const std::vector<std::string>& days) {
  Json j;
  j["charts"] = Json::array();
  const auto day = [&](const LampChart& chart, std::size_t i) { return days[chart.readings[i]]; };
  for (const LampChart& chart : charts) {
    Json points = Json::array();
    for (std::size_t i = 0; i < chart.readings.size(); ++i)
      points.push_back({{"day", day(chart, i)},
                        {"off_center_pct", 100 * std::expm1(chart.level[i] - chart.center)},
                        {"deviate", chart.deviate[i]},
                        {"ewma", chart.ewma[i]}});
    const ControlLimits limits;
    Json c{{"lamp", chart.lamp},
           {"meter", chart.meter},
           {"readings", chart.readings.size()},
           {"sd_pct", 100 * chart.sd},
           {"limit_pct", 100 * chart.single_limit()},
           {"deviate_limit", limits.single_limit},
           {"ewma_limit", limits.ewma_limit},
           {"moved", chart.move.has_value()}};
    if (chart.move)
      c["move"] = {{"found_on", day(chart, chart.move->found_at)},
                   {"since", day(chart, chart.move->since)},
                   {"change_pct", 100 * chart.move->change},
                   {"expanded_k2_pct", 100 * chart.move->expanded}};
    c["points"] = std::move(points);
    j["charts"].push_back(std::move(c));
  }
  j["findings"] = Json::array();
  for (const LampFinding& f : lamp_findings(readings, charts)) {
    const DriftCorrection correction = drift_correction(f);
    const auto since =
        std::find_if(readings.begin(), readings.end(), [&](const CheckReading& r) { return r.day == f.since_day; });
    j["findings"].push_back({{"moved", mover_id(f.mover)},
                             {"who", f.who},
                             {"since", days[static_cast<std::size_t>(since - readings.begin())]},
                             {"change_pct", 100 * f.change},
                             {"expanded_k2_pct", 100 * f.expanded},
                             {"correction", correction.factor},
                             {"words", f.words}});
  }
  return j;
}

}  // namespace sunbreak::exchange
