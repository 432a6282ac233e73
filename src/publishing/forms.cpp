#include "publishing/forms.h"

#include <algorithm>

#include "core/quantity/lower_case.h"
#include "evaluation/settings_card.h"
#include "evaluation/test_light.h"
#include "exchange/package/data_package.h"
#include "paper/bench_papers.h"
#include "record/faults.h"
#include "report/card_section.h"
#include "report/html_report.h"
#include "workbook/workbook.h"

namespace sunbreak::publishing {
namespace {

constexpr std::size_t longest_stem = 80;

paper::PaperSize size_of(const Publication& p) { return p.paper == Paper::A4 ? paper::a4 : paper::letter; }

Result<std::string> page(const Publication& p) {
  report::ReportOptions options;
  options.units = p.units;
  options.sweeps = p.sweeps;
  options.readings_table = p.readings_table;
  options.pictures = p.pictures;
  options.earlier = p.earlier;
  options.audits = p.audits;
  return report::html_report(p.evaluations, options).html;
}

Result<std::string> package(const Publication& p) {
  if (!p.record().faults.empty()) return record::refusal(p.record().faults, "the test");
  return exchange::zip_bytes(
      exchange::make_package(*p.whole, p.evaluations, p.pictures, exchange::WithLight::Yes, p.audits));
}

Result<std::string> table(const Publication& p) { return exchange::spreadsheet_csv(p.evaluations); }

Result<std::string> workbook_of(const Publication& p) {
  return workbook::workbook_bytes(p.evaluations, {p.units, p.audits});
}

bool has_card(const record::TestRecord& r) { return !r.card_rows.empty(); }
Result<std::string> card(const Publication& p) {
  const evaluation::TestLight* light = p.evaluations.front()->light();
  if (!light) return Problem{"nothing was read", "there is no settings card without light", "walk a sweep"};
  return report::settings_card_page(p.record(), evaluation::settings_card(p.record(), *light), p.units);
}

bool has_plan(const record::TestRecord& r) { return !r.rungs.empty() && !r.stops.empty(); }
Result<std::string> station_sheet(const Publication& p) {
  return paper::station_sheet_pdf(p.record(), p.units, size_of(p));
}
Result<std::string> tape_strip(const Publication& p) { return paper::tape_strip_pdf(p.record(), p.units, size_of(p)); }

constexpr Form all_forms[] = {
    {"page", ".html", "Page", "for readers: one file, no script", nullptr, {}, page},
    {"package", ".zip", "Data package", "for checking: all is recomputed", nullptr, {}, package},
    {"workbook", ".xlsx", "Workbook", "for spreadsheets: live formulas", nullptr, {}, workbook_of},
    {"table", ".csv", "Table of stations", "for scripts: every station", nullptr, {}, table},
    {"card", "-settings-card.html", "Settings card", "for the grower: stage by stage", has_card,
     "no card yet: Settle makes one", card},
    {"stations", "-stations.pdf", "Station sheet", "for the bench: to fill in by hand", has_plan,
     "nothing is planned yet: Rig does", station_sheet},
    {"tape", "-tape.pdf", "Tape strip", "for the bench: at true scale", has_plan, "nothing is planned yet: Rig does",
     tape_strip}};

}  // namespace

std::span<const Form> forms() { return all_forms; }

const Form* form_named(std::string_view id) {
  const auto found = std::ranges::find(all_forms, id, &Form::id);
  return found == std::end(all_forms) ? nullptr : &*found;
}

std::string file_stem(const std::string& title) {
  std::string stem;
  for (const char c : lower_case(title)) {
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
