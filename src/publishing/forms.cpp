#include "publishing/forms.h"

#include <fmt/format.h>

#include <algorithm>

#include "core/quantity/lower_case.h"
#include "core/visible.h"
#include "evaluation/crop_targets.h"
#include "evaluation/settings_card.h"
#include "evaluation/test_light.h"
#include "exchange/files/digest.h"
#include "exchange/package/data_package.h"
#include "paper/bench_papers.h"
#include "paper/card_sheet.h"
#include "paper/stills.h"
#include "paper/typeset/page_pdf.h"
#include "record/faults.h"
#include "report/card_section.h"
#include "report/html_report.h"
#include "workbook/workbook.h"

namespace sunbreak::publishing {
namespace {

constexpr std::size_t longest_stem = 80;

/// A form of one file.
Result<Parts> one(const char* ending, Result<std::string> content) {
  if (!content) return content.problem();
  return Parts{{ending, std::move(content.value())}};
}

paper::PaperSize size_of(const Publication& p) { return p.paper == Paper::A4 ? paper::a4 : paper::letter; }

report::ReportOptions page_options(const Publication& p) {
  report::ReportOptions options;
  // Asked for first: another form may be waiting for the audits meanwhile.
  options.standing = p.standing();
  options.units = p.units;
  options.sweeps = p.sweeps;
  options.parts = p.parts;
  options.targets = p.targets;
  options.line_up_link = p.line_up_link;
  options.pictures = p.pictures;
  options.earlier = p.earlier;
  options.audits = p.audits();
  if (const auto& package = p.package()) options.package_digest = exchange::sha256_digits(package.value());
  return options;
}

Result<Parts> page(const Publication& p) {
  return one(".html", report::html_report(p.evaluations, page_options(p)).html);
}

Result<Parts> explore(const Publication& p) {
  report::ReportOptions options = page_options(p);
  options.explore = true;
  return one("-explore.html", report::html_report(p.evaluations, options).html);
}

Result<Parts> page_on_paper(const Publication& p) {
  report::ReportOptions options = page_options(p);
  options.figures_apart = true;
  const report::HtmlReport made = report::html_report(p.evaluations, options);
  return one(".pdf", paper::page_pdf(made.html, made.figures, record::title_of(p.record()), p.record().test.tested_on,
                                     size_of(p)));
}

Result<Parts> package(const Publication& p) { return one(".zip", p.package()); }

Result<Parts> table(const Publication& p) { return one(".csv", exchange::spreadsheet_csv(p.evaluations)); }

Result<Parts> workbook_of(const Publication& p) {
  return one(".xlsx", workbook::workbook_bytes(p.evaluations, {p.units, p.audits()}));
}

bool has_card(const record::TestRecord& r) { return !r.card_rows.empty(); }
Result<Parts> card(const Publication& p) {
  const evaluation::TestLight* light = p.evaluations.front()->light();
  if (!light) return Problem{"nothing was read", "there is no settings card without light", "walk a sweep"};
  const evaluation::SettingsCard made = evaluation::settings_card(p.record(), *light, *p.evaluations.front());
  auto pdf = paper::settings_card_pdf(p.record(), made, p.units, size_of(p));
  if (!pdf) return pdf.problem();
  return Parts{{"-settings-card.html", report::settings_card_page(p.record(), made, p.units)},
               {"-settings-card.pdf", std::move(pdf.value())}};
}

bool has_plan(const record::TestRecord& r) { return !r.rungs.empty() && !r.stops.empty(); }
Result<Parts> station_sheet(const Publication& p) {
  return one("-stations.pdf", paper::station_sheet_pdf(p.record(), p.units, size_of(p)));
}
Result<Parts> tape_strip(const Publication& p) {
  return one("-tape.pdf", paper::tape_strip_pdf(p.record(), p.units, size_of(p)));
}

/// All shapes, of the fixture as it comes, in a folder with what each shows in words.
Result<Parts> stills_of(const Publication& p) {
  constexpr std::pair<paper::StillShape, const char*> shapes[] = {
      {paper::StillShape::Wide, "wide"}, {paper::StillShape::Tall, "tall"}, {paper::StillShape::Square, "square"}};
  Parts parts;
  std::string alts;
  std::optional<Problem> problem;
  const auto take = [&](const char* shape, Result<std::vector<paper::Still>> made) {
    if (!made) return void(problem = made.problem());
    for (paper::Still& still : made.value()) {
      const std::string file = fmt::format("{}-{}.png", shape, still.name);
      alts += file + ": " + still.alt + "\n";
      parts.push_back({"-stills/" + file, std::move(still.png)});
    }
  };
  const evaluation::Evaluation& first = *p.evaluations.front();
  for (const auto& [shape, name] : shapes) take(name, paper::sweep_stills(first, shape, p.units));
  // Only now what audits and whole light are needed for.
  const evaluation::Audit* audit = p.audits().empty() ? nullptr : &p.audits().front();
  const auto all = p.targets.empty() ? evaluation::shipped_targets() : p.targets;
  const auto targets = evaluation::targets_of_set(all, evaluation::target_list_of(p.record(), all));
  const evaluation::TestLight* light = has_card(p.record()) ? first.light() : nullptr;
  const auto card = light ? std::optional(evaluation::settings_card(p.record(), *light, first)) : std::nullopt;
  for (const auto& [shape, name] : shapes)
    take(name, paper::told_stills(first, audit, targets, card ? &*card : nullptr, shape, p.units));
  if (problem) return *problem;
  parts.push_back({"-stills/alt-texts.txt", std::move(alts)});
  return parts;
}

constexpr Form all_forms[] = {
    {"page", "Page", "for readers: one file, no script", nullptr, {}, false, page},
    {"pdf", "Page as PDF", "for printing and filing", nullptr, {}, false, page_on_paper},
    {"explore", "Page to explore", "for readers who try: with a script", nullptr, {}, false, explore},
    {"package", "Data package", "for checking: all is recomputed", nullptr, {}, false, package},
    {"workbook", "Workbook", "for spreadsheets: live formulas", nullptr, {}, false, workbook_of},
    {"table", "Table of stations", "for scripts: every station", nullptr, {}, true, table},
    {"card", "Settings card", "for the grower: stage by stage", has_card, "no card yet: Settle makes one", false, card},
    {"stations", "Station sheet", "for the bench: to fill in by hand", has_plan, "nothing is planned yet: Rig does",
     true, station_sheet},
    {"tape", "Tape strip", "for the bench: at true scale", has_plan, "nothing is planned yet: Rig does", true,
     tape_strip},
    {"stills", "Stills", "for video and posts: three shapes", nullptr, {}, true, stills_of}};

}  // namespace

const Result<std::string>& Publication::package() const {
  return *package_->get([this]() -> Result<std::string> {
    if (!record().faults.empty()) return record::refusal(record().faults, "the test");
    if (units == UnitSystem::Metric)
      return exchange::zip_bytes(
          exchange::make_package(*whole, evaluations, pictures, exchange::WithLight::Yes, audits()));
    const auto metric = evaluation::evaluate_all(*whole, UnitSystem::Metric);
    return exchange::zip_bytes(
        exchange::make_package(*whole, metric, pictures, exchange::WithLight::Yes,
                               audit ? audit(metric, UnitSystem::Metric) : std::vector<evaluation::Audit>()));
  });
}

std::span<const Form> forms() { return all_forms; }

const Form* form_named(std::string_view id) {
  const auto found = std::ranges::find(all_forms, id, &Form::id);
  return found == std::end(all_forms) ? nullptr : &*found;
}

std::string file_stem(const std::string& title) {
  std::string stem;
  for (const char c : lower_case(visible(title))) {
    const bool letter = (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || (c & 0x80) != 0;
    if (letter)
      stem += c;
    else if (!stem.empty() && stem.back() != '-')
      stem += '-';
  }
  if (stem.size() > longest_stem) {
    std::size_t end = longest_stem;
    while (end > 0 && (static_cast<unsigned char>(stem[end]) & 0xC0) == 0x80) --end;
    stem.resize(end);
  }
  while (!stem.empty() && stem.back() == '-') stem.pop_back();
  return stem.empty() ? "test" : stem;
}

}  // namespace sunbreak::publishing
