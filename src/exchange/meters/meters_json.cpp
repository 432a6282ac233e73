#include "exchange/meters/meters_json.h"

#include <algorithm>
#include <cmath>

#include "exchange/meters/or_null.h"

namespace sunbreak::exchange {
namespace {

using nlohmann::ordered_json;

ordered_json interval(const Estimate& e) { return ordered_json::array({or_null(e.low), or_null(e.high)}); }

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

ordered_json lux_factor_json(const LuxFactor& f) {
  return {{"k", or_null(f.k)},
          {"k_expanded_k2", or_null(f.k_expanded)},
          {"inverse", or_null(f.inverse())},
          {"r2", or_null(f.r_squared)},
          {"scatter", or_null(f.scatter)},
          {"intercept", or_null(f.intercept)},
          {"intercept_expanded_k2", or_null(f.intercept_expanded)},
          {"intercept_differs", f.intercept_differs},
          {"slope_with_intercept", or_null(f.slope_with_intercept)},
          {"slope_expanded_k2", or_null(f.slope_expanded)},
          {"bend", or_null(f.bend)},
          {"bend_expanded_k2", or_null(f.bend_expanded)},
          {"curve_needed", f.curve_needed},
          {"range_lux", ordered_json::array({f.lowest_lux, f.highest_lux})},
          {"pairs", f.residuals.size()},
          {"residuals", f.residuals},
          {"holds", f.holds()},
          {"reasons", f.reasons}};
}

ordered_json agreement_json(const Agreement& a) {
  return {{"ratio", or_null(a.ratio.value)},
          {"ratio_interval", interval(a.ratio)},
          {"mean_difference_pct", or_null(a.mean_difference_pct.value)},
          {"limits_pct", ordered_json::array({or_null(a.low_limit_pct.value), or_null(a.high_limit_pct.value)})},
          {"expanded_k2", or_null(half(a.mean_difference_pct))},
          {"low_limit_interval_pct", interval(a.low_limit_pct)},
          {"high_limit_interval_pct", interval(a.high_limit_pct)},
          {"scatter_pct", or_null(a.scatter_pct)},
          {"proportion", or_null(a.proportion.value)},
          {"proportion_interval", interval(a.proportion)},
          {"constant", or_null(a.constant.value)},
          {"constant_interval", interval(a.constant)},
          {"edge_pct", a.edge_pct ? or_null(a.edge_pct->value) : ordered_json(nullptr)},
          {"edge_interval_pct", a.edge_pct ? interval(*a.edge_pct) : ordered_json(nullptr)},
          {"angle_error", a.angle},
          {"level_error", a.level},
          {"pairs", a.differences_pct.size()},
          {"verdict", verdict_id(a.verdict)},
          {"words", a.words}};
}

ordered_json check_lamp_json(const std::vector<CheckReading>& readings, const std::vector<LampChart>& charts,
                             const std::vector<std::string>& days) {
  ordered_json j;
  j["charts"] = ordered_json::array();
  const auto day = [&](const LampChart& chart, std::size_t i) { return days[chart.readings[i]]; };
  for (const LampChart& chart : charts) {
    ordered_json points = ordered_json::array();
    for (std::size_t i = 0; i < chart.readings.size(); ++i)
      points.push_back({{"day", day(chart, i)},
                        {"off_center_pct", or_null(100 * std::expm1(chart.level[i] - chart.center))},
                        {"deviate", or_null(chart.deviate[i])},
                        {"ewma", or_null(chart.ewma[i])}});
    const ControlLimits limits;
    ordered_json c{{"lamp", chart.lamp},
                   {"meter", chart.meter},
                   {"readings", chart.readings.size()},
                   {"sd_pct", or_null(100 * chart.sd)},
                   {"limit_pct", or_null(100 * chart.single_limit())},
                   {"deviate_limit", limits.single_limit},
                   {"ewma_limit", limits.ewma_limit},
                   {"moved", chart.move.has_value()}};
    if (chart.move)
      c["move"] = {{"found_on", day(chart, chart.move->found_at)},
                   {"since", day(chart, chart.move->since)},
                   {"change_pct", or_null(100 * chart.move->change)},
                   {"expanded_k2_pct", or_null(100 * chart.move->expanded)}};
    c["points"] = std::move(points);
    j["charts"].push_back(std::move(c));
  }
  j["findings"] = ordered_json::array();
  for (const LampFinding& f : lamp_findings(readings, charts)) {
    const DriftCorrection correction = drift_correction(f);
    const auto since =
        std::find_if(readings.begin(), readings.end(), [&](const CheckReading& r) { return r.day == f.since_day; });
    j["findings"].push_back({{"moved", mover_id(f.mover)},
                             {"who", f.who},
                             {"since", days[static_cast<std::size_t>(since - readings.begin())]},
                             {"change_pct", or_null(100 * f.change)},
                             {"expanded_k2_pct", or_null(100 * f.expanded)},
                             {"correction", or_null(correction.factor)},
                             {"words", f.words}});
  }
  return j;
}

}  // namespace sunbreak::exchange
