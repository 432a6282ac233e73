#include "report/html_report.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <kainjow/mustache.hpp>

#include "core/figures/figure_table.h"
#include "core/visible.h"
#include "embedded/sunbreak_report.h"
#include "evaluation/provenance.h"
#include "evaluation/retest.h"
#include "record/configurations.h"
#include "report/audit_section.h"
#include "report/bench_section.h"
#include "report/card_section.h"
#include "report/confirmation_section.h"
#include "report/explore_panel.h"
#include "report/facts_table.h"
#include "report/fixture_section.h"
#include "report/light_section.h"
#include "report/line_up_section.h"
#include "report/picture_section.h"
#include "report/power_section.h"
#include "report/retest_section.h"
#include "report/spectrum_section.h"
#include "report/summary_section.h"
#include "report/sweep_section.h"
#include "report/targets_section.h"

namespace sunbreak::report {
namespace {

using kainjow::mustache::data;
using kainjow::mustache::mustache;
using List = kainjow::mustache::list;

/// The style sheet, its paper colors exchanged for those of a dark palette.
std::string css_in(const drawing::Palette& palette) {
  std::string css(embedded::report_css);
  if (!palette.dark) return css;
  const std::pair<std::string_view, drawing::Rgb> exchanged[] = {
      {"#1E2A2F", palette.ink},  {"#FBF9F4", palette.panel}, {"#5C686C", palette.quiet},
      {"#D8D2C4", palette.rule}, {"#E6E1D5", palette.rule},  {"#8A5A00", palette.ember}};
  for (const auto& [paper, color] : exchanged) {
    const std::string hex = fmt::format("#{:02X}{:02X}{:02X}", color.red, color.green, color.blue);
    for (std::size_t at = css.find(paper); at != std::string::npos; at = css.find(paper, at + hex.size()))
      css.replace(at, paper.size(), hex);
  }
  return css;
}

void add_set_aside(data& page, const record::TestRecord& b, const ReportOptions& options) {
  const UnitSystem units = options.units;
  List set_aside;
  for (const record::Dismissal& d : b.dismissals) {
    const auto sweep = std::find_if(b.sweeps.begin(), b.sweeps.end(), [&](auto& w) { return w.id == d.sweep_id; });
    const record::Rung* rung = sweep == b.sweeps.end() ? nullptr : b.rung(sweep->rung_id);
    const record::Stop* stop = sweep == b.sweeps.end() ? nullptr : b.stop(sweep->stop_id);
    data row;
    row.set("where", sweep == b.sweeps.end() ? std::string("the test")
                     : rung && stop
                         ? fmt::format("{} · {} %", length_text(rung->height_m, units), short_number(stop->percent, 1))
                         : std::string("a sweep set apart"));
    row.set("saw", d.saw);
    row.set("reason", d.reason);
    add_pictures(row,
                 pictures_of(b,
                             [&](const record::Picture& p) {
                               return !p.check_rule.empty() && p.check_rule == d.rule &&
                                      (!p.sweep_id || p.sweep_id == d.sweep_id);
                             }),
                 options);
    set_aside.push_back(row);
  }
  page.set("has_set_aside", !set_aside.empty());
  page.set("set_aside", data(set_aside));
}

/// The templates of the parts, by the names that templates call them by.
void add_templates(data& page) {
  for (const auto& [name, text] :
       {std::pair{"summary_block", embedded::summary_mustache}, std::pair{"explore_panel", embedded::explore_mustache},
        std::pair{"targets", embedded::targets_mustache}, std::pair{"how_to_read", embedded::how_to_read_mustache},
        std::pair{"verdict_words", embedded::verdict_mustache}, std::pair{"audit", embedded::audit_mustache},
        std::pair{"power", embedded::power_mustache}, std::pair{"light", embedded::light_mustache},
        std::pair{"spectrum", embedded::spectrum_mustache}, std::pair{"card", embedded::card_mustache},
        std::pair{"card_table", embedded::card_table_mustache}, std::pair{"sweep", embedded::sweep_mustache},
        std::pair{"standing", embedded::standing_mustache}, std::pair{"pictures_row", embedded::pictures_mustache}})
    page.set(std::string("part_") + name, std::string(text));
}

/// Puts links to all headings that can be linked to where the page has room for them.
void add_contents(std::string& html) {
  constexpr std::string_view place = "<p class=\"contents\"></p>", heading = "<h2 id=\"";
  const std::size_t at = html.find(place);
  if (at == std::string::npos) return;
  std::string links = "<p class=\"contents\">";
  for (std::size_t from = html.find(heading); from != std::string::npos; from = html.find(heading, from + 1)) {
    const std::size_t id = from + heading.size(), id_end = html.find('"', id), words = html.find('>', id_end) + 1,
                      end = html.find("</h2>", words);
    links += "<a href=\"#" + html.substr(id, id_end - id) + "\">" + html.substr(words, end - words) + "</a> ";
  }
  html.replace(at, place.size(), links + "</p>");
}

/// One light scale for all maps of a page: the screen's.
drawing::ScaleRange scale_of(const evaluation::Evaluations& evaluations) {
  double lowest = INFINITY, highest = -INFINITY;
  for (const auto& evaluation : evaluations)
    if (const auto range = evaluation->light_range())
      lowest = std::min(lowest, range->first), highest = std::max(highest, range->second);
  return drawing::round_range(lowest, highest);
}

/// What is of one configuration: its power, temperatures, whole light, settings and sweeps. Named where there are
/// several.
data configuration_section(const evaluation::Evaluation& evaluation, const evaluation::Audit* audit, std::size_t number,
                           bool named, const drawing::ScaleRange& range, FigureSink& sink,
                           const ReportOptions& options) {
  const record::TestRecord& b = evaluation.record();
  data part;
  part.set("part_suffix", number == 0 ? std::string() : fmt::format("-{}", number + 1));
  if (named) part.set("configuration_name", record::configuration_name(b, b.configuration_id));
  for (const record::Configuration& c : b.configurations)
    if (c.id == b.configuration_id && !c.notes.empty()) part.set("configuration_notes", c.notes);
  add_audit_section(part, audit, sink, options);
  add_power_section(part, b, evaluation.log(), options);
  const evaluation::TestLight* light = has(options.parts, PagePart::Light) ? evaluation.light() : nullptr;
  add_light_section(part, light, options.units);
  std::optional<evaluation::SettingsCard> card;
  if (light && !b.card_rows.empty()) card = evaluation::settings_card(b, *light, evaluation);
  add_card_section(part, b, card ? &*card : nullptr, options.units);
  add_confirmations(part, evaluation, light, options.units);
  const PrintedSweeps printed = printed_sweeps(evaluation, options);
  if (has(options.parts, PagePart::Targets)) add_targets_section(part, evaluation, printed, options);
  if (has(options.parts, PagePart::Spectrum)) add_spectrum_section(part, b, sink);
  add_sweeps(part, evaluation, printed, range, sink, options);
  add_set_aside(part, b, options);
  return part;
}

}  // namespace

HtmlReport html_report(const evaluation::Evaluations& evaluations, const ReportOptions& options) {
  const record::TestRecord& b = evaluations.front()->record();
  HtmlReport report;
  FigureSink sink(report, options);
  const UnitSystem units = options.units;
  data page;
  page.set("title", record::title_of(b));
  // The preview is no browser: it knows neither narrow nor dark screens.
  page.set("css", css_in(options.palette) + (options.figures_apart ? "" : std::string(embedded::web_css)));
  page.set("lead", fmt::format("{} on {} · measured {} by {}", stated(b.fixture.name), stated(b.bench.name),
                               stated(b.test.tested_on), stated(b.test.tested_by)));
  page.set("simulated", evaluation::provenance_words(evaluations, units));
  add_fixture_section(page, b, units);
  add_fixture_pictures(page, b, options);
  add_bench_section(page, b, units);
  add_test_pictures(page, b, options);
  add_notes_section(page, b, options);
  add_retest_section(page, *evaluations.front(), options);
  const PrintedSweeps first = printed_sweeps(*evaluations.front(), options);
  add_method_section(page, b, first.empty() ? nullptr : first.front().second, units);
  const auto grade = evaluation::weakest_grade(evaluations);
  page.set("graded", grade.has_value());
  page.set("band", fmt::format("{}–{} µmol/m²/s", short_number(b.test.target_low_ppfd, 1),
                               short_number(b.test.target_high_ppfd, 1)));
  if (grade) page.set("test_grade", std::string(name(*grade)));
  page.set("evenness_name", std::string(sunbreak::figure(b.test.evenness_lead).label));
  const drawing::ScaleRange range = scale_of(evaluations);
  List configurations;
  // Verdicts are of all sweeps together: a page of some of them has none.
  const bool with_audits = options.sweeps.empty();
  page.set("claims_audited", with_audits && std::ranges::any_of(options.audits, [](const evaluation::Audit& a) {
                               return !a.claims.empty();
                             }));
  for (std::size_t i = 0; i < evaluations.size(); ++i) {
    const auto& evaluation = evaluations[i];
    // Where single sweeps are asked for, only the configurations that they are of.
    if (!options.sweeps.empty() && printed_sweeps(*evaluation, options).empty()) continue;
    configurations.push_back(
        configuration_section(*evaluation, with_audits && i < options.audits.size() ? &options.audits[i] : nullptr, i,
                              evaluations.size() > 1, range, sink, options));
  }
  page.set("configurations", data(configurations));
  add_summary(page, *evaluations.front(), with_audits && !options.audits.empty() ? &options.audits.front() : nullptr,
              range, sink, options);
  for (const PartName& part : page_parts()) {
    std::string key = "with_" + std::string(part.id);
    std::ranges::replace(key, '-', '_');
    page.set(key, has(options.parts, part.part));
  }
  if (options.explore) add_explore_panel(page, evaluations, range, options);

  List definitions;
  for (const Figure& d : figures()) {
    data row;
    row.set("label", std::string(d.label) + (d.symbol.empty() ? "" : fmt::format(" ({})", d.symbol)));
    row.set("meaning", std::string(d.meaning));
    row.set("formula", std::string(d.formula));
    definitions.push_back(row);
  }
  page.set("definitions", data(definitions));
  const auto volts = b.test.mains_v ? short_number(*b.test.mains_v, 1) + " V" : std::string();
  page.set("disclosure", FactsTable()
                             .add("How the unit was obtained", b.fixture.obtained)
                             .add("Payment or affiliate interest", b.fixture.interest)
                             .add("Measured by", b.test.tested_by)
                             .add("Measured on", b.test.tested_on)
                             .add("Mains", b.test.mains_v && b.test.mains_hz
                                               ? volts + ", " + short_number(*b.test.mains_hz, 1) + " Hz"
                                               : volts)
                             .add("Unit serial", b.fixture.serial)
                             .add("Remarks", b.test.notes)
                             .take());
  page.set("foot",
           "Every figure can be recomputed from the data package published with this page." +
               (options.package_digest.empty() ? std::string() : " Its SHA-256 is " + options.package_digest + "."));
  add_line_up_section(page, b.test.id, sink, options);
  if (!options.line_up_link.empty()) page.set("line_up_link", options.line_up_link);
  add_templates(page);
  mustache page_template{std::string(embedded::report_mustache)};
  report.html = visible(page_template.render(page));
  if (!options.figures_apart) add_contents(report.html);
  return report;
}

}  // namespace sunbreak::report
