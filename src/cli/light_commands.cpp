#include <fmt/format.h>

#include <memory>

#include "cli/figures_command.h"
#include "cli/figures_json.h"
#include "cli/input_output.h"
#include "cli/options.h"
#include "cli/say.h"
#include "cli/source_test.h"
#include "core/quantity/length.h"
#include "core/whole_light/reference_rooms.h"
#include "evaluation/evaluation.h"
#include "evaluation/light_words.h"
#include "evaluation/test_light.h"
#include "exchange/files/read_file.h"
#include "exchange/scene/scene_file.h"
#include "exchange/whole_light/light_json.h"
#include "record/json.h"

namespace sunbreak::cli {
namespace {

using evaluation::TestLight;
using record::Json;

struct LightArguments {
  std::string file, test, configuration, room;
  std::optional<double> height_m, dimmer, at_ppfd;
  std::optional<Cells> units;
  std::optional<Footprint> spacing;
  bool json = false;
};

/// A test's whole light with the evaluation that it lives in.
struct Source {
  std::shared_ptr<const evaluation::Evaluation> evaluation;
  const TestLight* light = nullptr;
  FigureContext use() const { return evaluation::figure_context(evaluation->record().test); }
};

Result<Source> source_light(const LightArguments& a) {
  const auto test = source_test(a.file, a.test, a.configuration);
  if (!test) return test.problem();
  Source source{evaluation::evaluate(test.value()), nullptr};
  source.light = source.evaluation->light();
  if (!source.light)
    return Problem{"no sweep of the test has readings", "there is no light to work with", "walk a height first"};
  return source;
}

void print_whole_light(const TestLight& light) {
  for (const std::string& sentence : evaluation::light_sentences(light, UnitSystem::Metric)) say("{}\n", sentence);
  for (const evaluation::LightEstimate& e : evaluation::light_estimates(light, UnitSystem::Metric))
    say("  {:<28}{}\n", e.name, evaluation::found_text(e.value, e.decimals, e.unit));
  for (const LeftOutHeight& left : light.left_out())
    if (!std::isnan(left.rms))
      say("  {:.1f} cm predicted from the others: off by {:.1f} % RMS, {} % in the mean\n", 100 * left.height_m,
          100 * left.rms, evaluation::plain_number(100 * left.mean, 1));
}

int run_whole_light(const LightArguments& a) {
  const auto source = source_light(a);
  if (!source) return refuse(source.problem());
  if (a.json)
    say_json(exchange::whole_light_json(*source.value().light));
  else
    print_whole_light(*source.value().light);
  return 0;
}

double height_of(const LightArguments& a, const TestLight& light) {
  const auto& sweeps = light.question().fit.sweeps;
  return a.height_m.value_or(sweeps[sweeps.size() / 2].height_m);
}

double dimmer_of(const LightArguments& a, const TestLight& light) {
  return a.dimmer.value_or(light.question().settings.front().percent);
}

Json predicted_json(const evaluation::PredictedFigures& p) {
  Json stations = Json::array();
  for (std::size_t i = 0; i < p.ppfd.size(); ++i)
    stations.push_back({{"x_m", p.layout.stations[i].x_m},
                        {"y_m", p.layout.stations[i].y_m},
                        {"ppfd", p.ppfd[i]},
                        {"expanded_k2", p.expanded[i]}});
  Json expanded = Json::object();
  for (std::size_t k = 0; k < p.figure_expanded.size(); ++k)
    if (!std::isnan(p.figure_expanded[k])) expanded[std::string(figures()[k].id)] = p.figure_expanded[k];
  return {{"predicted", true},
          {"height_m", p.height_m},
          {"dimmer_pct", p.percent},
          {"way", p.way == BetweenWay::Model ? "model" : "monotone cubic"},
          {"left_out_rms_pct", 100 * p.left_out_rms},
          {"figures", figures_json(p.figures, p.layout, p.ppfd)},
          {"expanded_k2", expanded},
          {"stations", stations}};
}

void print_figures(const SweepFigures& f, const Layout& layout, std::span<const double> ppfd,
                   const std::vector<double>& expanded) {
  const FigureSource source(layout, ppfd, f);
  for (std::size_t k = 0; k < figures().size(); ++k) {
    const Figure& figure = figures()[k];
    const double value = figure.value ? figure.value(source) : unread;
    if (std::isnan(value)) continue;
    const Told shown = shown_told(figure, value, k < expanded.size() ? expanded[k] : unread, UnitSystem::Metric);
    say("  {:<24}{:>9} {:<10}{}\n", figure.label, shown.value, shown.sure(), shown_unit(figure, UnitSystem::Metric));
  }
}

int run_between(const LightArguments& a) {
  const auto source = source_light(a);
  if (!source) return refuse(source.problem());
  const TestLight& light = *source.value().light;
  const auto predicted = light.between(height_of(a, light), dimmer_of(a, light), source.value().use());
  if (!predicted) return refuse(predicted.problem());
  const auto& p = predicted.value();
  if (a.json) {
    say_json(predicted_json(p));
    return 0;
  }
  say("Predicted, not measured: {:.1f} cm, {:.4g} %, by the {}\n", 100 * p.height_m, p.percent,
      p.way == BetweenWay::Model ? "room model and what repeats of the residuals" : "monotone cubic of ln E");
  print_figures(p.figures, p.layout, p.ppfd, p.figure_expanded);
  return 0;
}

Result<Room> room_named(const LightArguments& a, const TestLight& light) {
  const Room& bench = light.question().fit.room;
  const Footprint footprint{bench.width_m, bench.depth_m};
  if (a.room == "open-floor") return open_floor(footprint);
  if (a.room == "white-tent") return white_tent(footprint);
  const auto text = exchange::read_file(a.room);
  if (!text)
    return Problem{"'" + a.room + "' is neither open-floor, white-tent nor a file that can be read", "",
                   "name one of the two, or a room as JSON (docs/formats.md)"};
  return exchange::read_room(text.value());
}

HangingPattern pattern_of(const LightArguments& a, const TestLight& light) {
  HangingPattern pattern;
  if (a.units) pattern.columns = a.units->columns, pattern.rows = a.units->rows;
  const FixtureOutline& o = light.question().fit.outline;
  const Footprint spacing = a.spacing.value_or(Footprint{whole_width_m(o), o.depth_m});
  pattern.column_spacing_m = spacing.width_m, pattern.row_spacing_m = spacing.depth_m;
  return pattern;
}

Json pattern_json(const HangingPattern& p) {
  return {{"columns", p.columns},
          {"rows", p.rows},
          {"column_spacing_m", p.column_spacing_m},
          {"row_spacing_m", p.row_spacing_m}};
}

int run_fewest(const LightArguments& a, const TestLight& light, const Room& room) {
  const auto answer = light.fewest_for(room, *a.at_ppfd);
  if (!answer) return refuse(answer.problem());
  const auto& r = answer.value();
  if (a.json) {
    say_json(Json{{"restated", true},
                  {"count", r.count()},
                  {"pattern", pattern_json(r.pattern)},
                  {"height_m", r.height_m},
                  {"dimmer_pct", r.percent},
                  {"mean_ppfd", exchange::found_json(r.mean_ppfd)},
                  {"lowest_over_mean", r.lowest_over_mean},
                  {"power_w", r.power_w}});
    return 0;
  }
  say("{} of them, {} across and {} deep, {:.0f} × {:.0f} cm apart, hung at {:.1f} cm and dimmed to {:.0f} %: {}",
      r.count(), r.pattern.columns, r.pattern.rows, 100 * r.pattern.column_spacing_m, 100 * r.pattern.row_spacing_m,
      100 * r.height_m, r.percent, evaluation::found_text(r.mean_ppfd, 0, "µmol/m²/s"));
  say(", lowest ÷ mean {:.2f}{}\n", r.lowest_over_mean,
      r.power_w ? fmt::format(", {:.0f} W together", *r.power_w) : "");
  return 0;
}

int run_elsewhere(const LightArguments& a) {
  const auto source = source_light(a);
  if (!source) return refuse(source.problem());
  const TestLight& light = *source.value().light;
  const auto room = room_named(a, light);
  if (!room) return refuse(room.problem());
  if (a.at_ppfd) return run_fewest(a, light, room.value());
  const auto restated = light.restated(room.value(), pattern_of(a, light), height_of(a, light), dimmer_of(a, light),
                                       source.value().use());
  if (!restated) return refuse(restated.problem());
  const auto& r = restated.value();
  if (!a.json) {
    say("Restated, not measured: {:.0f} × {:.0f} cm, {} × {} at {:.1f} cm, {:.4g} %\n", 100 * r.room.width_m,
        100 * r.room.depth_m, r.pattern.columns, r.pattern.rows, 100 * r.height_m, r.percent);
    say("  Mean PPFD {}, efficacy {}\n", evaluation::found_text(r.mean_ppfd, 0, "µmol/m²/s"),
        evaluation::found_text(r.efficacy_umol_j, 2, "µmol/J"));
    print_figures(r.figures, r.layout, r.ppfd, {});
    return 0;
  }
  Json stations = Json::array();
  for (std::size_t i = 0; i < r.ppfd.size(); ++i)
    stations.push_back({{"x_m", r.layout.stations[i].x_m}, {"y_m", r.layout.stations[i].y_m}, {"ppfd", r.ppfd[i]}});
  say_json(Json{{"restated", true},
                {"height_m", r.height_m},
                {"dimmer_pct", r.percent},
                {"pattern", pattern_json(r.pattern)},
                {"mean_ppfd", exchange::found_json(r.mean_ppfd)},
                {"efficacy_umol_j", exchange::found_json(r.efficacy_umol_j)},
                {"figures", figures_json(r.figures, r.layout, r.ppfd)},
                {"stations", stations}});
  return 0;
}

CLI::App* add_light_command(CLI::App& app, const std::string& name, const std::string& words,
                            const std::shared_ptr<LightArguments>& a) {
  CLI::App* command = app.add_subcommand(name, words);
  add_text(*command, "FILE", a->file, "a lab book or a data package (.zip)")->required();
  add_text(*command, "--test", a->test, "the test's number or name");
  add_text(*command, "--configuration", a->configuration, "its name; the fixture as it comes by default");
  command->add_flag("--json", a->json, "print JSON (keys: docs/formats.md)");
  return command;
}

}  // namespace

void add_light_commands(CLI::App& app, int& status) {
  {
    auto a = std::make_shared<LightArguments>();
    add_light_command(app, "whole-light", "What a fixture gives altogether, how it hangs, and what the walls do", a)
        ->callback([a, &status] { status = run_whole_light(*a); });
  }
  {
    auto a = std::make_shared<LightArguments>();
    CLI::App* command = add_light_command(app, "between", "A sweep at a height or setting that nobody walked", a);
    add_length(*command, "--height", a->height_m, hanging_height(), "such as 40cm or 16in")->required();
    add_number(*command, "--dimmer", a->dimmer, dimmer_setting(), "setting in %; the one nearest 100 by default");
    command->callback([a, &status] { status = run_between(*a); });
  }
  {
    auto a = std::make_shared<LightArguments>();
    CLI::App* command = add_light_command(app, "elsewhere", "The same fixture in another room", a);
    add_text(*command, "--room", a->room, "open-floor, white-tent (at the bench's footprint) or a room as JSON")
        ->required();
    add_length(*command, "--height", a->height_m, hanging_height(), "such as 40cm; a measured one by default");
    add_number(*command, "--dimmer", a->dimmer, dimmer_setting(), "setting in %");
    add_cells(*command, "--units", a->units, {"number", "", 1, 100}, "several of the fixture, across x deep: 2x3");
    add_spacing(*command, "--spacing", a->spacing, {"distance between fixtures", "m", 0.01, room_side().most},
                "middle to middle: 80cm, or 80x60cm across and deep");
    add_number(*command, "--for-ppfd", a->at_ppfd, over_least(crop_ppfd("PPFD")),
               "how many the room wants for this mean PPFD");
    command->callback([a, &status] { status = run_elsewhere(*a); });
  }
}

}  // namespace sunbreak::cli
