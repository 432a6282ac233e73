#include "evaluation/settle_field.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>
#include <set>

#include "core/power/running_cost.h"
#include "core/settle/settle_maker.h"
#include "evaluation/stair_records.h"
#include "record/configurations.h"

namespace sunbreak::evaluation {
namespace {

constexpr int field_settings = 60, steps_a_setting = 4;
constexpr double least_side_m = 0.05, touching_m = 1e-6;

SettleSetting settle_setting(const TestLight& light, double percent) {
  const BetweenSetting b = light.setting(percent).value();
  SettleSetting s{percent, b.light_factor, stair_sd, light.power_w(percent), b.lower, b.upper, b.upper_share};
  const auto& settings = light.question().settings;
  for (std::size_t k = 0; k < settings.size(); ++k)
    if (settings[k].percent == percent && k < light.found().setting_factors.size()) {
      const FoundValue& factor = light.found().setting_factors[k];
      s.light_sd = std::isnan(factor.expanded) ? 0 : factor.expanded / 2 / factor.value;
    }
  return s;
}

/// So many settings over the dial's known part, and those walked.
std::vector<SettleSetting> settings_over(const TestLight& light, int count) {
  const auto [low, high] = light.percents();
  std::set<double> percents;
  for (int k = 0; k < count; ++k) percents.insert(low + (high - low) * k / (count - 1));
  // In place of their nearest, so that a walked one is met exactly.
  const double apart = (high - low) / (count - 1);
  for (const LightSetting& walked : light.question().settings) {
    std::erase_if(percents, [&](double at) { return std::abs(at - walked.percent) < apart / 2; });
    if (walked.percent >= low && walked.percent <= high) percents.insert(walked.percent);
  }
  std::vector<SettleSetting> settings;
  for (const double percent : percents) settings.push_back(settle_setting(light, percent));
  return settings;
}

/// Where the dimmer can be set over the dial's known part; where none of its places is known, what was walked.
std::vector<SettleSetting> settable_over(const TestLight& light) {
  const auto [low, high] = light.percents();
  std::vector<SettleSetting> settings;
  for (const double percent : settable_pct(light.question().dimmer, low, high))
    settings.push_back(settle_setting(light, percent));
  if (settings.empty())
    for (const LightSetting& walked : light.question().settings)
      if (walked.percent >= low && walked.percent <= high) settings.push_back(settle_setting(light, walked.percent));
  std::ranges::sort(settings, {}, &SettleSetting::percent);
  return settings;
}

}  // namespace

Rectangle whole_area(const TestLight& light) { return light.question().fit.sweeps.front().layout.measured; }

Rectangle known_area(const TestLight& light) {
  const Room& room = light.question().fit.room;
  return light.way() == BetweenWay::Cubic ? whole_area(light) : Rectangle{0, 0, room.width_m, room.depth_m};
}

Result<Rectangle> parse_area(std::string_view text, const Rectangle& whole, LengthUnit bare) {
  const Problem unknown{fmt::format("'{}' is no area", text), "",
                        "write it as 100x100cm, or with its place from the left and the front as 100x60cm@10x20cm"};
  std::string typed(text);
  for (const std::string_view cross : {"×", "*"})
    for (auto at = typed.find(cross); at != std::string::npos; at = typed.find(cross))
      typed.replace(at, cross.size(), "x");
  if (typed.find_first_not_of(" \t") == std::string::npos) return whole;
  const auto pair_of = [&](std::string part) -> std::optional<Footprint> {
    // A bare last number has the usual unit, and a bare first one that of the last.
    while (!part.empty() && part.back() == ' ') part.pop_back();
    if (!part.empty() && (std::isdigit(static_cast<unsigned char>(part.back())) != 0 || part.back() == '.'))
      part += symbol(bare);
    const auto size = parse_footprint(part);
    return size ? std::optional(size.value()) : std::nullopt;
  };
  const auto at = typed.find('@');
  const auto size = pair_of(typed.substr(0, at));
  if (!size) return unknown;
  if (at == std::string::npos)
    return Rectangle{whole.left_m + (whole.width_m - size->width_m) / 2,
                     whole.front_m + (whole.depth_m - size->depth_m) / 2, size->width_m, size->depth_m};
  const std::string place = typed.substr(at + 1);
  const auto cross = place.find('x');
  if (cross == std::string::npos) return unknown;
  // A place may be 0, which no side is.
  const auto unit_at = place.find_first_not_of("0123456789.,x \t");
  const std::string unit = unit_at == std::string::npos ? std::string(symbol(bare)) : place.substr(unit_at);
  const auto length_of = [&](std::string part) {
    if (part.find_first_not_of("0123456789., \t") == std::string::npos) part += unit;
    return parse_length_m(part);
  };
  const auto left = length_of(place.substr(0, cross)), front = length_of(place.substr(cross + 1));
  if (!left || !front) return unknown;
  return Rectangle{left.value(), front.value(), size->width_m, size->depth_m};
}

std::optional<Problem> problem_of_area(const TestLight& light, const Rectangle& area, UnitSystem told_in) {
  const Rectangle whole = known_area(light);
  if (!(area.width_m >= least_side_m) || !(area.depth_m >= least_side_m))
    return Problem{"an area of " + size_text(area.width_m, area.depth_m, told_in),
                   "it is smaller than what light is known for",
                   fmt::format("choose {} or more each way", length_text(least_side_m, told_in))};
  if (area.left_m < whole.left_m - touching_m || area.front_m < whole.front_m - touching_m ||
      area.left_m + area.width_m > whole.left_m + whole.width_m + touching_m ||
      area.front_m + area.depth_m > whole.front_m + whole.depth_m + touching_m)
    return Problem{fmt::format("an area of {}, {} from the left and {} from the front",
                               size_text(area.width_m, area.depth_m, told_in), length_text(area.left_m, told_in),
                               length_text(area.front_m, told_in)),
                   "light is known for " + size_text(whole.width_m, whole.depth_m, told_in),
                   "choose an area within it"};
  return {};
}

Settling settling_of(const TestRecord& test_record) {
  if (!test_record.settlings.empty()) return test_record.settlings.front();
  Settling fresh;
  fresh.test_id = test_record.test.id;
  fresh.configuration_id = configuration_of(test_record);
  return fresh;
}

Rectangle area_asked(const Settling& settling, const TestLight& light) {
  const Rectangle whole = whole_area(light);
  if (!settling.area_width_m || !settling.area_depth_m) return whole;
  const double width = *settling.area_width_m, depth = *settling.area_depth_m;
  return {settling.area_left_m.value_or(whole.left_m + (whole.width_m - width) / 2),
          settling.area_front_m.value_or(whole.front_m + (whole.depth_m - depth) / 2), width, depth};
}

std::optional<double> circuit_limit_w(const Test& test) {
  if (!test.circuit_a || !test.mains_v) return {};
  return continuous_load_share * *test.circuit_a * *test.mains_v;
}

SettleRequest request_asked(const Settling& settling, const Test& test, const Band& band) {
  SettleRequest request;
  request.band = band;
  if (const auto rule = parse_serving_rule(settling.rule)) request.rule = rule.value();
  request.limits = {settling.min_height_m, settling.max_height_m, settling.max_power_w, settling.max_ppfd};
  if (const auto circuit = circuit_limit_w(test))
    request.limits.max_power_w = std::min(request.limits.max_power_w.value_or(*circuit), *circuit);
  request.sure = settling.sure_pct / 100;
  return request;
}

std::pair<double, double> advised_heights_m(const TestLight& light) {
  const auto& sweeps = light.question().fit.sweeps;
  if (sweeps.empty()) return {0, 0};
  const auto [lowest, highest] = std::ranges::minmax(sweeps, {}, &FitSweep::height_m);
  return {std::min(std::max(lowest.height_m, light.question().least_height_m), highest.height_m), highest.height_m};
}

SettleLimits advised(SettleLimits limits, const TestLight& light) {
  const auto [lowest, highest] = advised_heights_m(light);
  limits.min_height_m = std::max(limits.min_height_m.value_or(lowest), lowest);
  limits.max_height_m = std::min(limits.max_height_m.value_or(highest), highest);
  return limits;
}

SettleRequest request_asked(const Settling& settling, const Test& test, const TestLight& light, const Band& band) {
  SettleRequest request = request_asked(settling, test, band);
  if (!settling.beyond_walked) request.limits = advised(request.limits, light);
  return request;
}

std::vector<double> settle_heights(const TestLight& light) {
  std::vector<double> measured;
  for (const FitSweep& sweep : light.question().fit.sweeps) measured.push_back(sweep.height_m);
  auto heights = settle_heights_m(light.heights_m(), std::move(measured), light.question().height_step_m);
  std::erase_if(heights, [&](double h) { return h >= light.question().fit.room.height_m; });
  return heights;
}

SettleMaps settle_settings(const TestLight& light) {
  SettleMaps maps;
  maps.shared_sd = light.shared_light_sd();
  if (const auto [low, high] = light.percents(); low == high) {
    maps.settings = maps.steps = {settle_setting(light, low)};
  } else {
    maps.settings = settings_over(light, field_settings);
    maps.free_dimmer = light.question().dimmer.free;
    maps.steps = maps.free_dimmer ? settings_over(light, field_settings * steps_a_setting) : settable_over(light);
  }
  return maps;
}

Result<SettleMaps> settle_maps(const TestLight& light, const Rectangle& area, std::vector<double> heights_m,
                               double near_m, std::stop_token stop,
                               const std::function<void(const SettleMaps&)>& on_more) {
  if (light.question().fit.sweeps.empty())
    return Problem{"no sweep has readings", "there is nothing to choose from", "walk a height"};
  if (auto problem = problem_of_area(light, area)) return *problem;
  const SettleMaker maker(light.question().fit, light.between(), area, light.walked());
  SettleMaps maps = settle_settings(light);
  maps.lattice = maker.lattice();
  maps.heights = maker.heights(std::move(heights_m), near_m, stop, [&](const SettleMaker::Heights& so_far) {
    if (!on_more) return;
    maps.heights = so_far;
    on_more(maps);
  });
  if (maps.heights.empty() && stop.stop_requested())
    return Problem{"it was stopped before a height was worked out", "nothing is known of it", "ask again"};
  if (maps.heights.empty())
    return Problem{"light is not known everywhere on that area", "stations were not read, or only loose spots were",
                   "read the missing stations, or choose a smaller area"};
  return maps;
}

std::vector<SettleLack> settle_lacks(const TestLight& light) {
  std::vector<SettleLack> lacks;
  std::set<double> heights;
  for (const FitSweep& sweep : light.question().fit.sweeps) heights.insert(sweep.height_m);
  if (heights.size() < 2)
    lacks.push_back({SettleLack::From::Walk, "One height was walked: walk another, and the height can be chosen."});
  if (const auto [low, high] = light.percents(); low == high)
    lacks.push_back({SettleLack::From::WarmUp,
                     "Light is known at one dimmer setting: run the stair with light, and the setting can be chosen."});
  if (!light.power_w(light.percents().second))
    lacks.push_back(
        {SettleLack::From::WarmUp, "No watts are on record: note them, and what takes the fewest can be told."});
  return lacks;
}

std::optional<Id> sweep_at(const TestLight& light, const SettleMaps& maps, const SettlePoint& point) {
  if (maps.lattice.area != whole_area(light)) return {};
  return light.sweep_read_at(point.height->height_m, point.setting.percent);
}

SettleExpanded as_read(SettleExpanded predicted, const Budget& budget) {
  const auto take = [&](double& expanded, const char* figure) {
    if (const double own = budget.expanded(figure); !std::isnan(own)) expanded = own;
  };
  take(predicted.mean, "mean_ppfd");
  take(predicted.edge, "edge_ppfd");
  take(predicted.center, "centre_ppfd");
  take(predicted.lowest, "lowest_ppfd");
  take(predicted.highest, "highest_ppfd");
  take(predicted.lowest_over_mean, "lowest_over_mean");
  return predicted;
}

SettleExpanded how_sure(const Evaluation& evaluation, const SettleMaps& maps, const SettleRequest& request,
                        const SettlePoint& point, std::stop_token stop) {
  const SettleExpanded predicted = expanded_of(request.band, maps.shared_sd, *point.height, point.setting);
  const TestLight* light = evaluation.light();
  const auto sweep = light ? sweep_at(*light, maps, point) : std::nullopt;
  const Budget* budget = sweep ? evaluation.budget(*sweep, std::move(stop)) : nullptr;
  return budget ? as_read(predicted, *budget) : predicted;
}

}  // namespace sunbreak::evaluation
