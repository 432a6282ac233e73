#include "exchange/spectra/spectrum_table.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/number.h"
#include "exchange/spectra/light_unit.h"
#include "exchange/spectra/sample_list.h"
#include "exchange/spectra/spectrum_shape.h"
#include "exchange/tables/cell_numbers.h"
#include "exchange/tables/delimited.h"

namespace sunbreak::exchange {
namespace {

constexpr std::size_t most_told_cells = 5;

Result<std::vector<std::size_t>> wanted_columns(const SpectrumShape& shape, const std::vector<std::size_t>& light,
                                                const SpectrumOptions& options) {
  if (!options.column) return light;
  std::string offered;
  for (const std::size_t c : light)
    offered += fmt::format("{}{} '{}'", offered.empty() ? "" : ", ", c + 1, shape.titles[c]);
  for (const std::size_t c : light)
    if (shape.titles[c] == *options.column) return std::vector{c};
  const auto number = parse_number(*options.column);
  for (const std::size_t c : light)
    if (number && *number == static_cast<double>(c + 1)) return std::vector{c};
  return Problem{fmt::format("There is no column of light '{}'", options.column->substr(0, 40)),
                 fmt::format("columns of light are {}", offered), "choose one of these, by title or by number"};
}

}  // namespace

Result<SpectrumFile> read_spectrum_table(std::string_view text, const SpectrumOptions& options) {
  const auto shape = spectrum_shape(text);
  if (!shape) return shape.problem();
  const SpectrumShape& s = shape.value();
  const Rows& rows = s.rows;
  const bool turned = s.turned;
  Rows body(rows.begin() + static_cast<std::ptrdiff_t>(s.first), rows.end());
  const char mark = guess_decimal_mark(body);
  std::vector<std::size_t> light;
  SpectrumFile file;
  file.understood.push_back(fmt::format("a table separated by {}{}, decimal mark '{}'", s.separator,
                                        turned ? " whose wavelengths lie in a row" : "", mark));
  file.understood.push_back(fmt::format(
      "wavelengths in column {}{}, from row {}", s.nm_column + 1,
      s.titles[s.nm_column].empty() ? std::string() : fmt::format(" '{}'", s.titles[s.nm_column].substr(0, 60)),
      s.first + 1));
  for (std::size_t c = 0; c < s.width; ++c) {
    if (c == s.nm_column) continue;
    if (const std::string other = no_light_in(s.titles[c]); !other.empty()) {
      file.understood.push_back(
          fmt::format("column {} '{}' is {}: not taken", c + 1, s.titles[c].substr(0, 60), other));
      continue;
    }
    const auto numbers = std::count_if(
        body.begin(), body.end(), [&](const auto& row) { return row.size() == s.width && parse_number(row[c], mark); });
    if (numbers >= 2) light.push_back(c);
  }
  if (light.empty())
    return Problem{"No column beside the wavelengths holds light", "there is no spectrum in it",
                   "give a column of power or photons for each spectrum"};
  const auto wanted = wanted_columns(s, light, options);
  if (!wanted) return wanted.problem();

  std::optional<Problem> last_problem;
  for (const std::size_t c : wanted.value()) {
    SpectrumDraft draft;
    draft.title = s.titles[c];
    draft.column = static_cast<int>(c) + 1;
    Rows values;
    for (const auto& row : body)
      if (row.size() == s.width) values.push_back({row[c]});
    const NumberRule rule = number_rule(values, mark, false);
    std::vector<FileSample> samples;
    std::size_t left_out = 0;
    const auto leave_out = [&](std::size_t r, std::size_t column, std::string words) {
      if (++left_out <= most_told_cells)
        draft.findings.push_back({static_cast<int>(r) + 1, static_cast<int>(column) + 1, true, std::move(words)});
    };
    for (std::size_t r = s.first; r < rows.size(); ++r) {
      const auto& row = rows[r];
      if (std::all_of(row.begin(), row.end(), [](const std::string& cell) { return cell.empty(); })) continue;
      if (row.size() != s.width) {
        leave_out(r, 0, fmt::format("{} cells where others have {}: not taken", row.size(), s.width));
        continue;
      }
      const auto nm = wavelength_in(row[s.nm_column], mark);
      if (!nm) {
        leave_out(r, s.nm_column,
                  fmt::format("'{}' is no wavelength in nm: not taken", row[s.nm_column].substr(0, 40)));
        continue;
      }
      const auto value = cell_number(row[c], rule);
      if (!value || std::fabs(*value) > 1e12) {
        leave_out(r, c, fmt::format("'{}' is no number: {:g} nm was left out", row[c].substr(0, 40), *nm));
        continue;
      }
      samples.push_back({*nm, *value, static_cast<int>(r) + 1});
    }
    if (left_out > most_told_cells)
      draft.findings.push_back({0, 0, true, fmt::format("{} more rows were not taken", left_out - most_told_cells)});
    if (rule.doubtful_thousands && samples.size() < 2) {
      last_problem = Problem{fmt::format("'{}' may be a fraction or thousands", rule.doubtful_example),
                             "its light is not sure", "write values with another number of decimals"};
      continue;
    }
    if (turned)
      for (Finding& finding : draft.findings) std::swap(finding.row, finding.column);
    if (const auto problem = take_samples(std::move(samples), draft)) {
      last_problem = *problem;
      continue;
    }
    const auto own = light_unit_in(s.titles[c]);
    const auto unit = own ? own : light_unit_in(s.remarks + s.titles[s.nm_column]);
    if (options.scale && unit && unit->scale != *options.scale)
      draft.findings.push_back({0, draft.column, false,
                                fmt::format("the header speaks of {}; taken as {}, as you chose",
                                            unit->scale == SpectralScale::Photons ? "photons" : "power",
                                            *options.scale == SpectralScale::Photons ? "photons" : "power")});
    if (!options.scale && !unit) file.scale_needed = true;
    draft.spectrum.scale = options.scale ? *options.scale : unit ? unit->scale : SpectralScale::Power;
    if (unit && unit->to_absolute && unit->scale == draft.spectrum.scale) {
      draft.spectrum.absolute = true;
      for (double& value : draft.spectrum.values) value *= *unit->to_absolute;
    }
    if (const auto cut = cut_short(text, rows.size()); cut && !turned) draft.findings.push_back(*cut);
    file.spectra.push_back(std::move(draft));
  }
  if (file.spectra.empty()) return *last_problem;
  for (const SpectrumDraft& d : file.spectra)
    file.understood.push_back(fmt::format(
        "column {}{}: {} samples from {:g} to {:g} nm, {}", d.column,
        d.title.empty() ? std::string() : fmt::format(" '{}'", d.title.substr(0, 60)), d.spectrum.values.size(),
        d.spectrum.wavelengths_nm.front(), d.spectrum.wavelengths_nm.back(),
        !options.scale && file.scale_needed && !light_unit_in(d.title) ? std::string("of photons or power: not said")
        : d.spectrum.scale == SpectralScale::Photons
            ? std::string(d.spectrum.absolute ? "photons in µmol/m²/s/nm" : "relative photons")
            : std::string(d.spectrum.absolute ? "power in W/m²/nm" : "relative power")));
  return file;
}

}  // namespace sunbreak::exchange
