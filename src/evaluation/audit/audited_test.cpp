#include "evaluation/audit/audited_test.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>

#include "core/figures/figure_table.h"
#include "core/quantity/lower_case.h"
#include "evaluation/budget_question.h"
#include "evaluation/crop_targets.h"
#include "evaluation/rig_model.h"
#include "evaluation/stabilization.h"
#include "record/claim_splitting.h"

namespace sunbreak::evaluation {
namespace {

constexpr double same_percent = 0.05;

bool same_setting(double a, double b) { return std::abs(a - b) < same_percent; }

double mean_of(const std::vector<double>& values) {
  return std::accumulate(values.begin(), values.end(), 0.0) / static_cast<double>(values.size());
}

/// The standard deviation of a mean of readings; 0 of a single one, which tells nothing of it.
double sd_of_mean(const std::vector<double>& values) {
  if (values.size() < 2) return 0;
  const double mean = mean_of(values);
  double squares = 0;
  for (const double v : values) squares += (v - mean) * (v - mean);
  const auto n = static_cast<double>(values.size());
  return std::sqrt(squares / (n - 1) / n);
}

}  // namespace

std::string target_list_of(const TestRecord& record, const std::vector<CropTarget>& targets) {
  const auto names = set_names(targets);
  if (names.empty()) return {};
  if (!record.settlings.empty() && std::ranges::find(names, record.settlings.front().card_list) != names.end())
    return record.settlings.front().card_list;
  const auto own = target_of(targets, record.test);
  return own ? own->set_name : names.front();
}

AuditedTest::AuditedTest(const Evaluation& evaluation, const AuditContext& context, std::stop_token stop)
    : evaluation_(evaluation), context_(context), stop_(std::move(stop)), light_(evaluation.light(stop_)) {
  const auto& views = evaluation.views();
  for (const Sweep& sweep : record().sweeps)
    if (const auto view = views.find(sweep.id); view != views.end()) {
      wall_meter_ = 2 * budget_question(record(), sweep, *view->second, views).power.value;
      break;
    }
  list_name_ = target_list_of(record(), context.targets);
  list_ = targets_of_set(context.targets, list_name_);
  rule_ = serving_rule_of(record());
}

std::vector<double> AuditedTest::percents_with_watts() const {
  std::set<double> percents;
  for (const Sweep& sweep : record().sweeps)
    if (const Stop* stop = record().stop(sweep.stop_id); stop && sweep.power_w && *sweep.power_w > 0)
      percents.insert(stop->percent);
  for (const StairStop& stop : record().stair_stops)
    if (stop.power_w && stop.percent > 0) percents.insert(stop.percent);
  std::vector<double> distinct;
  for (const double p : percents)
    if (distinct.empty() || !same_setting(p, distinct.back())) distinct.push_back(p);
  return distinct;
}

std::optional<FoundValue> AuditedTest::watts_read(double percent) const {
  std::vector<double> watts;
  for (const Sweep& sweep : record().sweeps)
    if (const Stop* stop = record().stop(sweep.stop_id);
        stop && same_setting(stop->percent, percent) && sweep.power_w && *sweep.power_w > 0)
      watts.push_back(*sweep.power_w);
  if (watts.empty())
    for (const StairStop& stop : record().stair_stops)
      if (same_setting(stop.percent, percent) && stop.power_w) watts.push_back(*stop.power_w);
  if (watts.empty()) return {};
  const double mean = mean_of(watts);
  return FoundValue{mean, std::hypot(wall_meter_ * mean, 2 * sd_of_mean(watts))};
}

std::optional<FoundValue> AuditedTest::watts(double percent) const {
  if (const auto read = watts_read(percent)) return read;
  const auto between = light_ ? light_->power_w(percent) : std::nullopt;
  if (!between) return {};
  return FoundValue{*between, wall_meter_ * *between};
}

std::optional<double> AuditedTest::wall_mean(double percent,
                                             const std::function<std::optional<double>(const WallReading&)>& of) const {
  std::vector<double> values;
  for (const WallReading& reading : record().wall_readings) {
    const auto value = of(reading);
    if (!value) continue;
    std::optional<double> at;
    if (reading.sweep_id) {
      const Sweep* sweep = record().sweep(*reading.sweep_id);
      const Stop* stop = sweep ? record().stop(sweep->stop_id) : nullptr;
      if (stop) at = stop->percent;
    } else if (!reading.taken_at.empty()) {
      at = lamp_at(record().lamp_events, seconds_of(reading.taken_at)).percent;
    }
    if (at && same_setting(*at, percent)) values.push_back(*value);
  }
  return values.empty() ? std::nullopt : std::optional(mean_of(values));
}

Result<SettleSetting> AuditedTest::setting(double percent) const {
  const auto between = light_->setting(percent);
  if (!between) return between.problem();
  SettleMaps settings = settle_settings(*light_);
  if (auto s = setting_at(settings, percent)) {
    s->light_factor = between.value().light_factor;
    return *s;
  }
  const BetweenSetting& b = between.value();
  return SettleSetting{percent, b.light_factor, 0, light_->power_w(percent), b.lower, b.upper, b.upper_share};
}

std::vector<SurePart> AuditedTest::light_parts(bool a_joule) const {
  if (!fits() || light_->question().sweep_ids.empty()) return {};
  std::vector<SurePart> parts{{"fit", light_->found().ppf_umol_s.expanded / light_->found().ppf_umol_s.value}};
  for (SurePart& part :
       sweep_parts(light_->question().sweep_ids.front(), a_joule ? "canopy_efficacy_umol_j" : "mean_ppfd"))
    if (part.id == "calibration" || part.id == "spectral" || part.id == "cosine" || part.id == "power")
      parts.push_back(std::move(part));
  return parts;
}

std::vector<SurePart> AuditedTest::sweep_parts(Id sweep_id, std::string_view figure_id) const {
  std::vector<SurePart> parts;
  const Budget* budget = evaluation_.budget(sweep_id, stop_);
  const int at = figure_index(figure_id);
  if (!budget || at < 0) return parts;
  const auto k = static_cast<std::size_t>(at);
  for (const Contribution& c : budget->contributions)
    if (c.standard[k] > 0 && budget->values[k] > 0)
      parts.push_back({std::string(c.id), 2 * c.standard[k] / budget->values[k]});
  return parts;
}

std::optional<AuditedTest::Stage> AuditedTest::stage(const std::string& name) const {
  const Test& t = record().test;
  if (name.empty()) {
    CropTarget own;
    own.name = t.target_name, own.low = t.target_low_ppfd, own.high = t.target_high_ppfd;
    own.photoperiod_h = t.photoperiod_h;
    return Stage{own, {own.low, own.high}, true};
  }
  const auto named = [&](const std::string& wanted) -> std::optional<Stage> {
    for (const CropTarget& target : list_)
      if (lower_case(target.name) == lower_case(wanted))
        return Stage{target, band_of(target, target.photoperiod_h), false};
    return {};
  };
  if (auto found = named(name)) return found;
  const std::string usual = stage_in_words(name);
  return usual.empty() ? std::nullopt : named(usual);
}

const Result<SettleMaps>& AuditedTest::maps(const Rectangle& area) const {
  for (const auto& [known, maps] : maps_)
    if (known == area) return *maps;
  auto made = std::make_unique<Result<SettleMaps>>(settle_maps(*light_, area, settle_heights(*light_), 0, stop_));
  return *maps_.emplace_back(area, std::move(made)).second;
}

const FloorLight* AuditedTest::floor() const {
  if (!light_ || light_->question().fit.sweeps.empty()) return nullptr;
  if (!floor_) {
    const auto& known = maps(known_area(*light_));
    floor_.emplace(known ? std::optional(FloorLight::of_maps(within(known.value(), advised({}, *light_))))
                         : std::nullopt);
  }
  return floor_->has_value() ? &**floor_ : nullptr;
}

std::optional<FloorLight> AuditedTest::floor_at(double height_m) const {
  const auto made = settle_maps(*light_, known_area(*light_), {height_m}, height_m, stop_);
  return made ? std::optional(FloorLight::of_maps(made.value())) : std::nullopt;
}

std::optional<Room> AuditedTest::other_room(const Claim& claim) const {
  const Footprint size{*claim.width_m, *claim.depth_m};
  Bench claimed = record().bench;
  if (!claim.walls.empty())
    claimed.wall_left = claimed.wall_right = claimed.wall_front = claimed.wall_back = claim.walls;
  const Room& fitted = light_->question().fit.room;
  if (claimed != record().bench) {
    claimed.width_m = size.width_m, claimed.depth_m = size.depth_m, claimed.height_m = fitted.height_m;
    claimed.ceiling.clear(), claimed.floor.clear();
    return room_of(claimed);
  }
  if (fits_in(size, known_area(*light_))) return {};
  const auto& found = light_->found().reflectance;  // in the order of `faces`
  const auto of = [&](std::size_t face) { return std::isnan(found[face].value) ? 0.0 : found[face].value; };
  return Room{size.width_m, size.depth_m, fitted.height_m, {of(0), of(1), of(2), of(3), of(5), of(4)}};
}

std::optional<Problem> beyond_reach(const AuditedTest& test, double height_m) {
  constexpr double rounding_m = 1e-6;
  const auto [low, high] = test.light()->heights_m();
  if (height_m >= low - rounding_m && height_m <= high + rounding_m) return {};
  return Problem{fmt::format("{} is beyond what can be told ({} to {})", length_text(height_m, test.units()),
                             length_text(low, test.units()), length_text(high, test.units())),
                 "", "walk a height near " + length_text(height_m, test.units())};
}

Problem elsewhere_not_known(const AuditedTest& test) {
  const std::string& advice = test.light()->found().advice;
  return {"it is claimed for another space, and the whole light that would tell is not known", "",
          advice.empty() ? "walk two heights" : advice};
}

std::string room_words(const Claim& claim, UnitSystem units) {
  const std::string size = size_text(*claim.width_m, *claim.depth_m, units);
  if (claim.walls.empty()) return fmt::format("a space of {} with this bench's walls", size);
  return fmt::format("a space of {} {}", size,
                     claim.walls == "open" ? "without walls" : "with " + claim.walls + " walls");
}

std::string dial_words(double percent) { return fmt::format("{} %", short_number(percent, 1)); }

void judge(AuditedClaim& a, std::span<const SurePart> parts, ClaimSense sense) {
  const FoundValue measured{a.measured, a.expanded};
  a.judgement = judge_figure(a.claimed, measured, sense);
  if (const auto lift = best_lift(a.claimed, measured, parts, sense)) {
    a.weakest = lift->weakest;
    a.lifts = lift_words(*lift, a.judgement.verdict);
  }
}

void not_testable(AuditedClaim& a, std::string reason, std::string would) {
  a.judgement = {};
  a.reason = std::move(reason);
  a.lifts = std::move(would);
}

}  // namespace sunbreak::evaluation
