#include <fmt/format.h>

#include <algorithm>
#include <memory>

#include "book/target_shelf.h"
#include "cli/figures_command.h"
#include "cli/figures_json.h"
#include "cli/input_output.h"
#include "cli/options.h"
#include "cli/record_json.h"
#include "cli/say.h"
#include "cli/source_test.h"
#include "core/figures/figure_table.h"
#include "core/quantity/length.h"
#include "core/sweep/cut.h"
#include "core/targets/target_fit.h"
#include "core/uncertainty/budget_words.h"
#include "evaluation/heat_by_state.h"
#include "evaluation/measured_spectra.h"
#include "evaluation/part_read.h"
#include "exchange/meters/spectrum_json.h"
#include "record/configurations.h"
#include "record/json.h"

namespace sunbreak::cli {
namespace {

using record::Json;

struct ReadArguments {
  std::string file, test;
  std::optional<Line> cut;
  bool json = false;
};

Json uncertainty_json(const Budget& budget) {
  Json j = Json::object();
  for (const Figure& figure : figures()) {
    const std::string_view id = figure.id;
    const double expanded = budget.expanded(id);
    if (std::isnan(expanded)) continue;
    const auto k = static_cast<std::size_t>(figure_index(id));
    Json parts = Json::object();
    for (const Contribution& c : budget.contributions)
      if (c.standard[k] > 0) parts[c.id] = c.standard[k];
    const Contribution* largest = budget.largest(id);
    j[id] = {{"expanded_k2", expanded},
             {"standard", budget.standard[k]},
             {"bias", budget.bias[k]},
             {"largest", largest ? Json(largest->id) : Json()},
             {"contributions", parts}};
  }
  return j;
}

/// What the figures are estimated to be over the whole measured area, where a part of it was not read.
Json whole_json(const Budget& budget) {
  Json j = Json::object();
  for (const Figure& figure : figures())
    if (const auto whole = budget.whole(figure.id))
      j[figure.id] = {{"value", whole->value}, {"expanded_k2", whole->expanded}};
  return j;
}

Json evidence_json(const Evidence& evidence) {
  Json conditions = Json::array();
  for (const Condition& c : evidence.conditions)
    conditions.push_back({{"id", c.id}, {"met", c.met}, {"saw", c.saw}, {"way", c.way}});
  return {{"grade", name(evidence.grade)}, {"conditions", conditions}};
}

Json cut_json(const Cut& c) {
  Json points = Json::array();
  for (const CutPoint& p : c.points) points.push_back(Json::array({p.along_m, p.place.x_m, p.place.y_m, p.ppfd}));
  return {{"length_m", c.length_m},
          {"mean_ppfd", c.mean_ppfd},
          {"lowest_ppfd", c.lowest.ppfd},
          {"highest_ppfd", c.highest.ppfd},
          {"points_along_x_y_ppfd", points}};
}

Json targets_json(const evaluation::Evaluation& evaluation, record::Id sweep_id,
                  const std::vector<record::CropTarget>& targets) {
  std::vector<Band> bands;
  for (const record::CropTarget& t : targets) bands.push_back(evaluation::band_of(t, t.photoperiod_h));
  const std::vector<TargetFit> fits = evaluation.target_fits(sweep_id, bands);
  Json j = Json::array();
  for (std::size_t i = 0; i < fits.size(); ++i) {
    Json one{{"set", targets[i].set_name},
             {"name", targets[i].name},
             {"band_ppfd", Json::array({bands[i].low, bands[i].high})},
             {"photoperiod_h", targets[i].photoperiod_h},
             {"edge_mean_ppfd", fits[i].light.edge},
             {"passes", fits[i].passes}};
    one.update(coverage_json(fits[i].coverage));
    j.push_back(one);
  }
  return j;
}

void print_sweep(const evaluation::Evaluation& evaluation, const record::Sweep& sweep) {
  const SweepFigures& worked_out = *evaluation.figures(sweep.id);
  const evaluation::SweepView& view = *evaluation.view(sweep.id);
  const Budget& budget = *evaluation.budget(sweep.id);
  const Evidence& evidence = *evaluation.evidence(sweep.id);
  say("{:.1f} cm, {:.4g} %: {} of {} stations read\n", 100 * evaluation.record().rung(sweep.rung_id)->height_m,
      evaluation.record().stop(sweep.stop_id)->percent, worked_out.stations - worked_out.missing, worked_out.stations);
  const FigureSource source(view.layout, view.ppfd, worked_out);
  for (const Figure& f : figures()) {
    const double value = f.value ? f.value(source) : unread;
    if (std::isnan(value)) continue;
    const Contribution* largest = budget.largest(f.id);
    const Told shown = shown_told(f, value, budget.expanded(f.id), UnitSystem::Metric);
    say("  {:<24}{:>9} {:<10}{:<12}{}\n", f.label, shown.value, shown.sure(), shown_unit(f, UnitSystem::Metric),
        largest ? fmt::format("largest part: {}", largest->label) : "");
  }
  if (const std::string part = evaluation::part_read_notice(evaluation, sweep.id, &budget, UnitSystem::Metric);
      !part.empty())
    say("  {}\n", part);
  if (const std::string assumed = assumed_words(budget); !assumed.empty())
    say("  ± assumes, where nothing is stated or measured: {}\n", assumed);
  say("  Evidence: {} grade\n", name(evidence.grade));
  for (const Condition& c : evidence.conditions)
    if (!c.met) say("    missing: {}; {}\n", c.saw, c.way);
}

/// The spectra of a state, each with what it says.
Json spectra_json(const record::TestRecord& state) {
  Json all = Json::array();
  for (const evaluation::SpectrumRead& one : evaluation::measured_spectra(state)) {
    const auto row = std::ranges::find(state.spectra, one.id, &record::MeasuredSpectrum::id);
    all.push_back({{"name", row->name},
                   {"configuration", record::configuration_name(state, state.configuration_id)},
                   {"dimmer_pct", row->percent},
                   {"height_m", row->height_m},
                   {"figures", exchange::spectrum_json(one.figures)}});
  }
  return all;
}

void print_heat(const record::TestRecord& test) {
  for (const std::string& words : evaluation::heat_verdicts(test, UnitSystem::Metric)) say("  {}\n", words);
}

Json sweep_json(const evaluation::Evaluation& evaluation, const record::Sweep& sweep, const std::string& configuration,
                const std::vector<record::CropTarget>& targets, const std::optional<Line>& line) {
  const evaluation::SweepView& view = *evaluation.view(sweep.id);
  Json j{{"configuration", configuration},
         {"height_m", evaluation.record().rung(sweep.rung_id)->height_m},
         {"dimmer_pct", evaluation.record().stop(sweep.stop_id)->percent},
         {"control", sweep.control},
         {"figures", figures_json(*evaluation.figures(sweep.id), view.layout, view.ppfd)},
         {"uncertainty", uncertainty_json(*evaluation.budget(sweep.id))},
         {"evidence", evidence_json(*evaluation.evidence(sweep.id))},
         {"targets", targets_json(evaluation, sweep.id, targets)}};
  if (evaluation.figures(sweep.id)->missing > 0) j["estimated_whole"] = whole_json(*evaluation.budget(sweep.id));
  if (line) j["cut"] = cut_json(cut(Field(view.layout, view.ppfd), line->from, line->to));
  return j;
}

int run_read(const ReadArguments& a) {
  const auto source = whole_test(a.file, a.test);
  if (!source) return refuse(source.problem());
  const record::TestRecord& whole = source.value();
  const std::string title = record::title_of(whole);
  const evaluation::Evaluations evaluations = evaluation::evaluate_all(whole);
  const std::vector<record::CropTarget> targets = source_targets(a.file);
  Json sweeps = Json::array(), temperatures = Json::array(), spectra = Json::array();
  const std::optional<Grade> grade = evaluation::weakest_grade(evaluations);
  for (const auto& evaluation : evaluations) {
    const record::TestRecord& state = evaluation->record();
    const std::string name = record::configuration_name(state, state.configuration_id);
    if (!a.json && evaluations.size() > 1) say("Configuration: {}\n", name);
    for (const record::Sweep& sweep : state.sweeps) {
      if (!evaluation->figures(sweep.id)) continue;
      if (a.json)
        sweeps.push_back(sweep_json(*evaluation, sweep, name, targets, a.cut));
      else
        print_sweep(*evaluation, sweep);
    }
    if (a.json)
      for (auto& one : spectra_json(state)) spectra.push_back(std::move(one));
    temperatures.push_back(heat_json(state));
    temperatures.back()["configuration"] = name;
    if (!a.json) print_heat(state);
  }
  const std::string grade_name = grade ? std::string(sunbreak::name(*grade)) : "none";
  std::optional<evaluation::Retest> retest;
  if (const auto earlier = source_earlier(a.file, whole))
    retest = evaluation::retest_of(*evaluations.front(), *earlier);
  if (a.json) {
    say_json(Json{{"test", title},
                  {"grade", grade_name},
                  {"altered", whole.test.altered.empty() ? Json() : Json(whole.test.altered)},
                  {"sweeps", sweeps},
                  {"fixture", sheet_json(whole)},
                  {"arrangement", arrangement_json(whole)},
                  {"temperatures", temperatures},
                  {"spectra", spectra},
                  {"retest", retest ? retest_json(*retest) : Json()},
                  {"pictures", pictures_json(whole)},
                  {"notes", notes_json(whole)}});
    return 0;
  }
  if (retest)
    for (const std::string& words : evaluation::retest_sentences(*retest, UnitSystem::Metric)) say("{}\n", words);
  say("{}: {} grade\n", title, grade_name);
  return 0;
}

}  // namespace

void add_read_command(CLI::App& app, int& status) {
  auto a = std::make_shared<ReadArguments>();
  CLI::App* command = app.add_subcommand(
      "read", "Figures of every sweep of a test with their uncertainty, the evidence grade, and how targets are met");
  add_text(*command, "FILE", a->file, "a lab book or a data package (.zip)")->required();
  add_text(*command, "--test", a->test, "the test's number or name");
  add_line(*command, "--cut", a->cut, "with --json: the profile along x1,y1,x2,y2 [cm from the front left]");
  command->add_flag("--json", a->json, "print JSON (keys: docs/formats.md)");
  command->callback([a, &status] { status = run_read(*a); });
}

}  // namespace sunbreak::cli
