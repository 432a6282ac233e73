#include "report/spectrum_section.h"

#include <fmt/format.h>

#include <algorithm>

#include "core/spectrum/spectral_mix.h"
#include "drawing/spectrum_plot.h"
#include "evaluation/measured_spectra.h"
#include "evaluation/spectrum_words.h"

namespace sunbreak::report {
namespace {

using kainjow::mustache::data;
using List = kainjow::mustache::list;

constexpr double spectrum_width = 720, spectrum_height = 320;
constexpr std::size_t most_spectra = 6;  ///< side by side

}  // namespace

void add_spectrum_section(data& page, const record::TestRecord& record, FigureSink& sink) {
  std::vector<evaluation::SpectrumRead> spectra = evaluation::measured_spectra(record);
  page.set("has_spectra", !spectra.empty());
  if (spectra.empty()) return;
  List names, rows, notes;
  if (spectra.size() > most_spectra) {
    notes.push_back(fmt::format("{} more spectra are in the data package.", spectra.size() - most_spectra));
    spectra.erase(spectra.begin() + most_spectra, spectra.end());
  }
  std::vector<drawing::SpectrumLine> lines;
  std::vector<std::vector<evaluation::SpectrumRow>> told;
  for (const evaluation::SpectrumRead& one : spectra) {
    const auto row = std::ranges::find(record.spectra, one.id, &record::MeasuredSpectrum::id);
    const std::string name = evaluation::spectrum_name(*row);
    data head;
    head.set("name", name);
    names.push_back(head);
    told.push_back(evaluation::spectrum_rows(one.figures));
    for (const std::string& note : one.figures.notes) notes.push_back(spectra.size() > 1 ? name + ": " + note : note);
    if (auto light = normalized(one.curve, Normalization::Peak)) lines.push_back({name, std::move(light.value())});
  }
  // A figure that only some of them have stands with a dash in the others.
  std::vector<evaluation::SpectrumRow> all;
  for (const auto& rows_of_one : told)
    for (const evaluation::SpectrumRow& row : rows_of_one)
      if (std::ranges::find(all, row.id, &evaluation::SpectrumRow::id) == all.end()) all.push_back(row);
  for (const evaluation::SpectrumRow& row : all) {
    List cells;
    for (const auto& rows_of_one : told) {
      const auto found = std::ranges::find(rows_of_one, row.id, &evaluation::SpectrumRow::id);
      cells.push_back(found == rows_of_one.end() ? std::string("–") : found->value);
    }
    data line;
    line.set("label", row.label);
    line.set("definition", row.definition);
    line.set("cells", data(cells));
    rows.push_back(line);
  }
  page.set("spectra", data(names));
  page.set("spectrum_rows", data(rows));
  page.set("spectrum_notes", data(notes));
  std::string label = "Spectra, photons per nm:";
  for (const drawing::SpectrumLine& line : lines) label += " " + line.name + ";";
  page.set(
      "spectrum_plot",
      sink.put(
          {spectrum_width, spectrum_height, label, [lines](drawing::Canvas& canvas) {
             drawing::draw_spectra(canvas, {0, 0, spectrum_width, spectrum_height}, lines, drawing::highest_is_one);
           }}));
}

}  // namespace sunbreak::report
