#include <fmt/format.h>

#include <cmath>
#include <memory>

#include "cli/figures_command.h"
#include "cli/input_output.h"
#include "cli/options.h"
#include "cli/say.h"
#include "cli/source_test.h"
#include "core/quantity/daily_light.h"
#include "core/quantity/length.h"
#include "core/quantity/uncertain_text.h"
#include "evaluation/crop_targets.h"
#include "evaluation/evaluation.h"
#include "evaluation/settle_field.h"
#include "evaluation/settle_words.h"
#include "exchange/settle/settle_json.h"
#include "record/json.h"

namespace sunbreak::cli {
namespace {

using evaluation::Evaluation;
using evaluation::TestLight;
using record::Json;

struct SettleArguments {
  std::string file, test, configuration, rule, area, list, policy = "fewest watts";
  std::optional<double> low, high, dli_low, dli_high, hours;
  std::optional<double> min_height_m, max_height_m, max_watts, max_ppfd, at_watts, at_height_m, at_dimmer;
  double sure = 50;
  bool json = false, beyond = false;
};

/// What is asked, put together from the arguments and the test's own target where they name none.
struct Asked {
  SettleRequest request;
  exchange::SettleUse use;
  Rectangle area;
};

Result<Band> asked_band(const SettleArguments& a, const record::Test& test, double hours) {
  const bool by_ppfd = a.low || a.high, by_light = a.dli_low || a.dli_high;
  if (by_ppfd && by_light)
    return Problem{"a target in PPFD and one of daily light", "only one can hold", "give one of them"};
  if (a.low.has_value() != a.high.has_value() || a.dli_low.has_value() != a.dli_high.has_value())
    return Problem{"a target with one end", "a band has two", "give both ends"};
  Band band{test.target_low_ppfd, test.target_high_ppfd};
  if (by_ppfd) band = {*a.low, *a.high};
  if (by_light) band = {ppfd_for_dli(*a.dli_low, hours), ppfd_for_dli(*a.dli_high, hours)};
  if (!(band.low > 0) || !(band.high > band.low))
    return Problem{fmt::format("a target of {:.4g} to {:.4g}", by_light ? *a.dli_low : band.low,
                               by_light ? *a.dli_high : band.high),
                   "", "give both ends, the lower over zero and under the higher"};
  return band;
}

Result<Asked> asked_of(const SettleArguments& a, const record::TestRecord& test, const TestLight& light) {
  Asked asked;
  asked.use = {a.hours.value_or(test.test.photoperiod_h), test.test.tariff_per_kwh};
  if (!(asked.use.photoperiod_h > 0) || asked.use.photoperiod_h > 24)
    return Problem{fmt::format("a photoperiod of {:.4g} h", asked.use.photoperiod_h), "",
                   "choose more than 0 and at most 24"};
  const auto band = asked_band(a, test.test, asked.use.photoperiod_h);
  if (!band) return band.problem();
  record::Settling settling;
  settling.rule = a.rule.empty() ? serving_rule_id(evaluation::serving_rule_of(test)) : a.rule;
  if (const auto rule = parse_serving_rule(settling.rule); !rule) return rule.problem();
  settling.sure_pct = a.sure;
  settling.min_height_m = a.min_height_m, settling.max_height_m = a.max_height_m;
  settling.max_power_w = a.max_watts, settling.max_ppfd = a.max_ppfd;
  // A height that is named is asked for, wherever it lies.
  settling.beyond_walked = a.beyond || a.at_height_m;
  asked.request = evaluation::request_asked(settling, test.test, light, band.value());
  const auto area = evaluation::parse_area(a.area, evaluation::whole_area(light), LengthUnit::Centimeter);
  if (!area) return area.problem();
  asked.area = area.value();
  return asked;
}

/// The maps that the arguments leave: all, or those at one height, setting or wattage.
Result<SettleMaps> asked_maps(const SettleArguments& a, const TestLight& light, const Rectangle& area) {
  std::vector<double> heights = evaluation::settle_heights(light);
  if (a.at_height_m) {
    const auto [low, high] = light.heights_m();
    constexpr double rounding_m = 1e-6;
    if (*a.at_height_m < low - rounding_m || *a.at_height_m > high + rounding_m)
      return Problem{fmt::format("{:.1f} cm is beyond what can be told ({:.1f} … {:.1f} cm)", 100 * *a.at_height_m,
                                 100 * low, 100 * high),
                     "a prediction there would be a guess", "ask for a height between, or walk that one"};
    heights = {*a.at_height_m};
  }
  auto maps = evaluation::settle_maps(light, area, std::move(heights), 0);
  if (!maps) return maps;
  std::optional<SettleSetting> setting;
  if (a.at_dimmer) {
    setting = setting_at(maps.value(), *a.at_dimmer);
    if (!setting)
      return light.setting(*a.at_dimmer).ok()
                 ? Problem{fmt::format("{:.4g} % is not known", *a.at_dimmer), "", "ask for another"}
                 : light.setting(*a.at_dimmer).problem();
  } else if (a.at_watts) {
    setting = setting_of_power(maps.value(), *a.at_watts);
    const auto& steps = maps.value().steps;
    if (!setting)
      return Problem{fmt::format("no setting is known to take {:.4g} W", *a.at_watts),
                     steps.front().power_w && steps.back().power_w
                         ? fmt::format("known are {:.0f} … {:.0f} W", *steps.front().power_w, *steps.back().power_w)
                         : "no watts are on record",
                     "ask for watts between, or run the dimmer's stair"};
  }
  return setting ? at_setting(maps.value(), *setting) : maps;
}

std::string point_text(const Evaluation& evaluation, const SettleMaps& maps, const SettleRequest& request,
                       const SettlePoint& p) {
  const SettleExpanded e = evaluation::how_sure(evaluation, maps, request, p);
  return fmt::format(
      "{}: mean {}, edge {}, {:.0f} to {:.0f} µmol/m²/s, {:.0f} % in band, lowest ÷ mean "
      "{:.2f}; the rule holds with a chance of {}",
      evaluation::settle_place_words(p, UnitSystem::Metric), uncertain_text(p.figures.mean, e.mean, 0),
      uncertain_text(p.figures.edge, e.edge, 0), p.figures.lowest, p.figures.highest, 100 * p.figures.in_band,
      p.figures.lowest_over_mean(), chance_text(p.chance));
}

void print_answers(const Evaluation& evaluation, const SettleMaps& maps, const Asked& asked,
                   const SettleAnswers& answers) {
  say("Predicted, not measured. Rule: {}.\n", serving_rule_words(asked.request.rule, asked.request.band));
  const auto print = [&](const char* name, const Result<SettlePoint>& answer) {
    say("{:14}{}\n", name,
        answer ? point_text(evaluation, maps, asked.request, answer.value()) + "." : answer.problem().sentence());
  };
  print("fewest watts", answers.fewest_watts);
  print("widest", answers.widest);
  print("most even", answers.most_even);
  if (answers.instead)
    say("{}\n", evaluation::instead_words(asked.request, *answers.instead, *evaluation.light(), UnitSystem::Metric));
  for (const std::string& words : evaluation::settle_cost_words(answers, maps.lattice, UnitSystem::Metric))
    say("{}\n", words);
  if (answers.fewest_watts) {
    SettleRequest likely = asked.request;
    likely.sure = 0.5;
    const auto at_half = fewest_watts(maps, likely);
    const std::string price = evaluation::settle_price_words(at_half ? std::optional(at_half.value()) : std::nullopt,
                                                             answers.fewest_watts.value(), asked.request.sure);
    if (!price.empty()) say("{}\n", price);
  }
}

Result<std::vector<record::CropTarget>> asked_list(const SettleArguments& a) {
  if (a.list.empty()) return std::vector<record::CropTarget>{};
  const auto all = source_targets(a.file);
  auto list = evaluation::targets_of_set(all, a.list);
  if (!list.empty()) return list;
  std::string names;
  for (const std::string& name : evaluation::set_names(all)) names += (names.empty() ? "" : ", ") + name;
  return Problem{"no list of targets is named '" + a.list + "'", "", "choose one of: " + names};
}

Result<CardPolicy> asked_policy(const std::string& text) {
  std::string names;
  for (const CardPolicyName& p : card_policies) {
    if (p.id == text) return p.policy;
    names += (names.empty() ? "" : ", ") + std::string(p.id);
  }
  return Problem{"a card by '" + text + "'", "", "choose one of: " + names};
}

int run_settle(const SettleArguments& a) {
  const auto test = source_test(a.file, a.test, a.configuration);
  if (!test) return refuse(test.problem());
  const auto evaluation = evaluation::evaluate(test.value());
  const TestLight* light = evaluation->light();
  if (!light)
    return refuse(
        Problem{"no sweep of the test has readings", "there is no light to work with", "walk a height first"});
  const auto asked = asked_of(a, test.value(), *light);
  if (!asked) return refuse(asked.problem());
  const auto list = asked_list(a);
  if (!list) return refuse(list.problem());
  const auto policy = asked_policy(a.policy);
  if (!policy) return refuse(policy.problem());
  const auto made = asked_maps(a, *light, asked.value().area);
  if (!made) return refuse(made.problem());
  const SettleMaps& maps = made.value();
  const SettleRequest& request = asked.value().request;
  const SettleAnswers answers = settle(maps, request);
  std::vector<CardStage> stages;
  for (const record::CropTarget& t : list.value())
    stages.push_back({evaluation::band_of(t, t.photoperiod_h), t.photoperiod_h});
  const auto rows = settle_card(maps, stages, request, policy.value());
  if (a.json) {
    exchange::SettleUse use = asked.value().use;
    use.walked = evaluation.get();
    Json j = exchange::settle_json(maps, request, answers, use);
    j["card"] = Json::array();
    for (std::size_t i = 0; i < rows.size(); ++i)
      j["card"].push_back(exchange::settle_row_json(maps, request, list.value()[i].name, stages[i], rows[i], use));
    j["lacks"] = Json::array();
    for (const auto& lack : evaluation::settle_lacks(*light)) j["lacks"].push_back(lack.words);
    say_json(j);
    return 0;
  }
  print_answers(*evaluation, maps, asked.value(), answers);
  for (std::size_t i = 0; i < rows.size(); ++i) {
    SettleRequest own = request;
    own.band = stages[i].band;
    say("{:24}{:>4.3g} h  {}\n", list.value()[i].name, stages[i].photoperiod_h,
        !rows[i]               ? rows[i].problem().sentence()
        : rows[i].value().sure ? point_text(*evaluation, maps, own, rows[i].value().point) + "."
                               : evaluation::instead_words(own, rows[i].value(), *light, UnitSystem::Metric));
  }
  for (const auto& lack : evaluation::settle_lacks(*light)) say("{}\n", lack.words);
  return 0;
}

}  // namespace

void add_settle_command(CLI::App& app, int& status) {
  auto a = std::make_shared<SettleArguments>();
  CLI::App* c = app.add_subcommand("settle", "How to run the fixture: height, dimmer setting, hours");
  add_text(*c, "FILE", a->file, "a lab book or a data package (.zip)")->required();
  add_text(*c, "--test", a->test, "the test's number or name");
  add_text(*c, "--configuration", a->configuration, "its name; the fixture as it comes by default");
  add_number(*c, "--target-low", a->low, over_least(crop_ppfd("low end of a target")),
             "low end of the target in µmol/m²/s; the test's own target by default");
  add_number(*c, "--target-high", a->high, over_least(crop_ppfd("high end of a target")), "high end");
  add_number(*c, "--dli-low", a->dli_low, daily_light(), "low end as daily light in mol/m²/d");
  add_number(*c, "--dli-high", a->dli_high, daily_light(), "high end");
  add_number(*c, "--photoperiod", a->hours, photoperiod(), "hours of light a day; the test's by default");
  add_text(*c, "--rule", a->rule, "edge, every, share:90, mean, corners:600 or center:800; the test's own by default");
  add_text(*c, "--area", a->area,
           "such as 100x100cm about the middle, or 100x60cm@10x20cm from the left and the front");
  add_length(*c, "--min-height", a->min_height_m, hanging_height(), "such as 30cm");
  add_length(*c, "--max-height", a->max_height_m, hanging_height(), "such as 80cm");
  add_number(*c, "--max-watts", a->max_watts, wall_watts(), "at the wall plug");
  add_number(*c, "--max-ppfd", a->max_ppfd, over_least(crop_ppfd("PPFD")), "highest PPFD allowed anywhere on the area");
  add_number(*c, "--sure", a->sure, recorded<record::Settling>("sure_pct", "chance"),
             "the least chance in % that the rule holds; 50 by default");
  auto* watts =
      add_number(*c, "--at-watts", a->at_watts, wall_watts(), "answer at the setting that takes so many watts");
  add_length(*c, "--at-height", a->at_height_m, hanging_height(), "answer at this height alone");
  add_number(*c, "--at-dimmer", a->at_dimmer, dimmer_setting(), "answer at this setting alone, in %")->excludes(watts);
  add_text(*c, "--list", a->list, "a list of targets: a settings card with a row for each");
  add_text(*c, "--policy", a->policy, "what the card goes by: fewest watts, widest, most even or one height");
  c->add_flag("--beyond", a->beyond,
              "answers may leave the walked heights and come nearer than the gaps between emitters allow");
  c->add_flag("--json", a->json, "print JSON (keys: docs/formats.md)");
  c->callback([a, &status] { status = run_settle(*a); });
}

}  // namespace sunbreak::cli
