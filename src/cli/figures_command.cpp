#include "cli/figures_command.h"

#include <fmt/format.h>

#include <cmath>
#include <memory>

#include "cli/figures_json.h"
#include "cli/input_output.h"
#include "cli/options.h"
#include "cli/say.h"
#include "core/checks/plausibility.h"
#include "core/figures/figure_table.h"
#include "core/optics/room.h"
#include "core/quantity/display.h"
#include "core/sweep/reduction.h"
#include "exchange/files/read_file.h"
#include "exchange/tables/split_sweeps.h"
#include "exchange/tables/sweep_table.h"
#include "record/json.h"
#include "record/kinds.h"

namespace sunbreak::cli {
namespace {

struct FiguresArguments {
  std::string file, grid = "cells", first_row, place_unit, form, separator, decimal_mark, sweep;
  std::optional<std::string> x_column, y_column, value_column;
  std::optional<Footprint> footprint;
  std::optional<double> margin_m, watts, target_low, target_high;
  std::optional<Cells> reduce;
  double photoperiod_h = 12;
  bool json = false;
};

void print_words(const SweepFigures& f, const Layout& layout, std::span<const double> ppfd) {
  const FigureSource source(layout, ppfd, f);
  say("{} of {} stations read, {:.4g} m² measured{}\n", f.stations - f.missing, f.stations, f.area_m2,
      f.missing ? fmt::format("; figures hold for {:.1f} % of it", 100 * f.read_share) : "");
  for (const Figure& figure : figures()) {
    const double value = figure.value ? figure.value(source) : unread;
    if (std::isnan(value)) continue;
    say("{:<24}{:>10}  {:<12}{}\n", figure.label, shown_value(figure, value, UnitSystem::Metric),
        shown_unit(figure, UnitSystem::Metric), figure.where ? figure.where(source, UnitSystem::Metric) : "");
  }
}

std::string named(const exchange::SweepPart& part) {
  std::string words;
  if (part.height_m) words = length_text(*part.height_m, UnitSystem::Metric);
  if (part.percent) words += fmt::format("{}{:g} %", words.empty() ? "" : ", ", *part.percent);
  return words;
}

/// Of a table that holds several sweeps leaves the one that is asked for, by its number or its height and setting.
std::optional<Problem> choose_sweep(const FiguresArguments& a, std::string& bytes) {
  constexpr std::size_t most_named = 6;
  std::vector<exchange::SweepPart> parts = exchange::split_sweeps(bytes, LengthUnit::Centimeter);
  if (parts.empty()) return {};
  if (parts.size() > 1 || !a.sweep.empty()) {
    std::string names;
    for (std::size_t i = 0; i < parts.size(); ++i) {
      if (a.sweep == std::to_string(i + 1) || a.sweep == named(parts[i])) {
        bytes = std::move(parts[i].text);
        return {};
      }
      if (i < most_named) names += fmt::format("{}{} ({})", i == 0 ? "" : ", ", i + 1, named(parts[i]));
    }
    if (parts.size() > most_named) names += fmt::format(" and {} more", parts.size() - most_named);
    return Problem{a.sweep.empty() ? fmt::format("{} holds {} sweeps", a.file, parts.size())
                                   : fmt::format("{} holds no sweep '{}'", a.file, a.sweep),
                   "figures are of one", "name it with --sweep, by its number: " + names};
  }
  bytes = std::move(parts.front().text);
  return {};
}

/// Where a table has light both as it was read and corrected, figures are of the latter.
void choose_corrected(const std::string& bytes, exchange::TableOptions& options) {
  if (options.names_columns()) return;
  const std::string head = bytes.substr(0, bytes.find('\n'));
  std::string titled;
  bool raw = false;
  for (std::size_t from = 0; from <= head.size();) {
    const std::size_t to = std::min(head.find_first_of(",;\t\r", from), head.size());
    std::string title = head.substr(from, to - from);
    std::erase(title, '"');
    raw = raw || title == "raw";
    if (title.starts_with("ppfd")) titled = title;
    from = to + 1;
  }
  if (raw && !titled.empty()) options.value_column = titled;
}

int run_figures(const FiguresArguments& a) {
  const auto fail = [](int status, const Problem& problem) {
    warn("{}\n", problem.sentence());
    return status;
  };
  exchange::TableContext context;
  exchange::TableOptions options;
  context.footprint = *a.footprint;
  context.margin_m = a.margin_m;
  context.kind = parse_grid_kind(a.grid).value();
  if (!a.place_unit.empty()) {
    const auto unit = parse_length_unit(a.place_unit);
    if (!unit) return fail(usage_error, unit.problem());
    options.place_unit = unit.value();
  }
  if (!a.first_row.empty()) options.first_row_is_far = a.first_row == "far";
  if (!a.form.empty()) options.form = a.form == "long" ? exchange::TableForm::Long : exchange::TableForm::Matrix;
  if (!a.separator.empty()) options.separator = a.separator == "tab" ? '\t' : a.separator == "semicolon" ? ';' : ',';
  if (!a.decimal_mark.empty()) options.decimal_mark = a.decimal_mark == "comma" ? ',' : '.';
  options.x_column = a.x_column, options.y_column = a.y_column, options.value_column = a.value_column;
  if (a.target_low.has_value() != a.target_high.has_value() || (a.target_low && *a.target_low >= *a.target_high))
    return fail(usage_error, {"a target needs a low and a higher high end", "", "give --target-low and --target-high"});

  auto read = exchange::read_file(a.file);
  if (!read) return fail(input_error, read.problem());
  std::string bytes = std::move(read.value());
  if (auto problem = choose_sweep(a, bytes)) return fail(usage_error, *problem);
  choose_corrected(bytes, options);
  auto draft = exchange::read_sweep_table(bytes, context, options);
  if (!draft) {
    Problem problem = draft.problem();
    problem.seen = a.file + ": " + problem.seen;
    return fail(input_error, problem);
  }
  const exchange::TableDraft& d = draft.value();
  if (d.form == exchange::TableForm::Matrix && context.kind == GridKind::Inset && !context.margin_m)
    return fail(usage_error, {"an inset grid needs the distance of its outer stations from the walls",
                              "the measured area is not known without it", "give --margin, such as --margin 5cm"});
  for (const exchange::Finding& finding : d.findings) warn("note: {}\n", finding.words);

  for (std::size_t i = 0; i < d.raw.size(); ++i) {
    const std::string place = fmt::format("row {}, column {}", d.sources[i].row, d.sources[i].column);
    if (!std::isnan(d.raw[i]) && !(d.raw[i] >= least_ppfd && d.raw[i] <= most_ppfd))
      return fail(input_error, {fmt::format("{}: {}: {} µmol/m²/s is {}", a.file, place, short_number(d.raw[i], 3),
                                            d.raw[i] < least_ppfd ? "less light than none"
                                                                  : "more light than there is under a lamp"),
                                "no figure was worked out", "take the dark offset off first, or correct that cell"});
    if (d.raw[i] < 0)
      warn("note: {}: {} is less than no light; it counts as the lowest as it stands\n", place,
           short_number(d.raw[i], 3));
  }

  FigureContext figure_context{a.watts, a.photoperiod_h, std::nullopt, {}};
  if (a.target_low) figure_context.target = Band{*a.target_low, *a.target_high};
  Layout layout = d.layout;
  std::vector<double> ppfd = d.raw;
  if (a.reduce) {
    auto reduced = reduce(layout, ppfd, a.reduce->columns, a.reduce->rows);
    if (!reduced) return fail(usage_error, reduced.problem());
    layout = std::move(reduced.value().layout);
    ppfd = std::move(reduced.value().ppfd);
  }
  const auto f = sweep_figures(layout, ppfd, figure_context);
  if (!f)
    return fail(input_error, {a.file + ": no station was read", "there is nothing to work figures out from",
                              a.reduce ? "reduce to fewer cells" : "check the column of values"});
  SweepStatement stated;
  stated.power_w = a.watts;
  stated.most_return = most_return({1, 1, 1, {0.9, 0.9, 0.9, 0.9, 0.9, 0.25}});  // whatever walls it was read between
  for (const Finding& finding : plausibility_checks(layout, ppfd, stated))
    if (finding.severity == Severity::Impossible)
      return fail(input_error, {a.file + ": " + finding.saw, finding.effect, finding.remedy});
  if (a.json)
    say_json(figures_json(*f, layout, ppfd));
  else
    print_words(*f, layout, ppfd);
  return 0;
}

}  // namespace

void add_figures_command(CLI::App& app, int& status) {
  auto a = std::make_shared<FiguresArguments>();
  CLI::App* command = app.add_subcommand("figures", "Work out the figures of one sweep from a table of PPFD readings");
  add_text(*command, "FILE", a->file, "CSV or TSV: x, y, value rows, or a table that lies as the stations do")
      ->required();
  add_size(*command, "--footprint", a->footprint, recorded<record::Bench>("width_m", "side of a bench"),
           "width x depth with unit, such as 120x120cm or 4x4ft")
      ->required();
  add_text(*command, "--grid", a->grid, "cells, nodes, inset or spots")
      ->check(CLI::IsMember({"cells", "nodes", "inset", "spots"}))
      ->capture_default_str();
  add_length(*command, "--margin", a->margin_m, recorded<record::Test>("margin_x_m", "margin"),
             "inset: distance of the outer stations from the walls, such as 5cm");
  add_text(*command, "--first-row", a->first_row,
           "which row of stations a table's first line is (default: by its row labels, or else far)")
      ->check(CLI::IsMember({"far", "near"}));
  add_text(*command, "--place-unit", a->place_unit, "unit of x and y where the header names none: m, cm, mm, in, ft");
  add_text(*command, "--form", a->form,
           "long: a row a reading; matrix: the table lies as the stations do (default: worked out)")
      ->check(CLI::IsMember({"long", "matrix"}));
  add_text(*command, "--separator", a->separator, "what stands between cells (default: worked out)")
      ->check(CLI::IsMember({"comma", "semicolon", "tab"}));
  add_text(*command, "--decimal", a->decimal_mark, "the decimal mark (default: worked out)")
      ->check(CLI::IsMember({"point", "comma"}));
  add_text(*command, "--x-column", a->x_column, "long: the column of x, by title or number from 1");
  add_text(*command, "--y-column", a->y_column, "long: the column of y");
  add_text(*command, "--value-column", a->value_column, "long: the column of PPFD");
  add_text(*command, "--sweep", a->sweep, "of a table with several sweeps: which, by its number from 1");
  add_number(*command, "--watts", a->watts, wall_watts(), "power at the wall plug [W]");
  add_number(*command, "--photoperiod", a->photoperiod_h, photoperiod(), "hours of light a day; 12 by default");
  add_number(*command, "--target-low", a->target_low, crop_ppfd("low end of a target"),
             "low end of the target's PPFD band");
  add_number(*command, "--target-high", a->target_high, crop_ppfd("high end of a target"),
             "high end of the target's PPFD band");
  add_cells(*command, "--reduce", a->reduce, {"number", "", 1, 100},
            "average the readings into a coarser grid's cells first, such as 8x8, to compare evenness");
  command->add_flag("--json", a->json, "print JSON (keys: docs/formats.md)");
  command->callback([a, &status] { status = run_figures(*a); });
}

}  // namespace sunbreak::cli
