#include "exchange/spectra/spectrum_table.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/lower_case.h"
#include "core/quantity/number.h"
#include "exchange/spectra/light_unit.h"
#include "exchange/spectra/sample_list.h"
#include "exchange/tables/cell_numbers.h"
#include "exchange/tables/delimited.h"

namespace sunbreak::exchange {
namespace {

constexpr std::size_t most_told_cells = 5;
constexpr std::size_t most_columns = 200;
constexpr std::size_t most_rows_above = 100;  ///< of remarks above wavelengths that lie in a row

/// Runs of blanks made a tab each, for tables that are set with blanks.
std::string blanks_as_tabs(std::string_view text) {
  std::string tabbed;
  bool blank = false, begun = false;
  for (const char c : text) {
    if (c == ' ' || c == '\t') {
      blank = begun;
      continue;
    }
    if (blank && c != '\n' && c != '\r') tabbed += '\t';
    blank = false;
    begun = c != '\n' && c != '\r';
    tabbed += c;
  }
  return tabbed;
}

std::optional<double> plain_number(std::string_view cell) {
  const auto point = parse_number(cell, '.');
  return point ? point : parse_number(cell, ',');
}

/// Rows that hold two numbers at least, of which one may be a wavelength.
std::size_t numeric_rows(const Rows& rows) {
  return static_cast<std::size_t>(std::count_if(rows.begin(), rows.end(), [](const auto& row) {
    return std::count_if(row.begin(), row.end(), [](const std::string& cell) { return plain_number(cell); }) >= 2;
  }));
}

struct SplitTable {
  Rows rows;
  std::string separator;
};

SplitTable split(std::string_view text) {
  SplitTable best;
  std::size_t most = 0;
  const char guessed = guess_separator(text);
  const std::string tabbed = blanks_as_tabs(text);
  const auto try_one = [&](Rows rows, const char* name) {
    const std::size_t count = numeric_rows(rows);
    if (best.rows.empty() || count > most) best = {std::move(rows), name}, most = count;
  };
  try_one(split_cells(text, guessed), guessed == '\t' ? "tabs" : guessed == ';' ? "semicolons" : "commas");
  try_one(split_cells(text, ';'), "semicolons");
  try_one(split_cells(tabbed, '\t'), "blanks");
  return best;
}

/// A wavelength in a cell: a number, perhaps with its unit.
std::optional<double> wavelength(std::string_view cell, char mark) {
  std::string plain = lower_case(trimmed(cell));
  if (plain.ends_with("nm")) plain = trimmed(std::string_view(plain).substr(0, plain.size() - 2));
  return parse_number(plain, mark);
}

bool could_be(double nm) { return nm >= shortest_nm && nm <= longest_nm; }

/// A table whose wavelengths lie in one row, turned so that they stand in a column.
Rows standing(Rows rows, bool& turned) {
  for (std::size_t r = 0; r < std::min(rows.size(), most_rows_above); ++r) {
    const auto& row = rows[r];
    if (row.size() < 10) continue;
    std::size_t wavelengths = 0;
    double last = 0;
    for (const std::string& cell : row)
      if (const auto nm = wavelength(cell, '.'); nm && could_be(*nm) && *nm > last) last = *nm, ++wavelengths;
    if (wavelengths + 2 < row.size() || r + 1 >= rows.size()) continue;
    std::size_t like_it = 0;
    for (const auto& other : rows) like_it += other.size() == row.size();
    if (like_it * 3 > row.size()) continue;
    Rows columns(row.size());
    for (std::size_t below = r; below < rows.size(); ++below)
      if (rows[below].size() == row.size())
        for (std::size_t c = 0; c < row.size(); ++c) columns[c].push_back(rows[below][c]);
    turned = true;
    return columns;
  }
  return rows;
}

/// Where the samples begin, what stands over them, and which column holds wavelengths.
struct Shape {
  std::size_t first = 0, width = 0, nm_column = 0;
  std::vector<std::string> titles;
  std::string remarks;
};

bool names_wavelength(std::string_view title) {
  const std::string lower = lower_case(title);
  for (const char* name : {"wavelength", "wave length", "lambda", "λ", "nanomet", "wvl"})
    if (lower.find(name) != std::string::npos) return true;
  return lower == "nm" || lower == "wl" || lower == "[nm]" || lower == "(nm)" || lower.starts_with("wl ") ||
         lower.starts_with("wl_") || lower.starts_with("wl(");
}

std::string another_unit(std::string_view title) {
  const std::string lower = lower_case(title);
  if (!names_wavelength(title) || lower.find("nm") != std::string::npos) return {};
  for (const char* unit : {"µm", "μm", "um)", "um]", "micron", "angstrom", "ångstr", "(å)", "[å]", "(m)", "[m]"})
    if (lower.find(unit) != std::string::npos) return std::string(title);
  return {};
}

Result<Shape> shape_of(const Rows& rows) {
  std::vector<int> filled = filled_rows(rows);
  Shape shape;
  // The width that most rows with numbers have.
  Rows numbers;
  for (const int r : filled)
    if (std::count_if(rows[r].begin(), rows[r].end(), [](const std::string& cell) { return plain_number(cell); }) >= 2)
      numbers.push_back(rows[r]);
  if (numbers.size() < 2)
    return Problem{"No two rows hold a wavelength and a number", "there is no spectrum in it",
                   "give a row for each wavelength: nm, light"};
  std::vector<int> all(numbers.size());
  for (std::size_t i = 0; i < all.size(); ++i) all[i] = static_cast<int>(i);
  shape.width = usual_width(numbers, all);
  if (shape.width > most_columns)
    return Problem{fmt::format("The table has {} columns", shape.width),
                   fmt::format("at most {} are taken", most_columns), "give fewer spectra at once"};
  // The header: the last row above the samples that names wavelengths; else the last of their width without numbers.
  std::optional<std::size_t> header, named, first;
  for (const int r : filled) {
    const auto& row = rows[r];
    const auto at =
        std::find_if(row.begin(), row.end(), [](const std::string& cell) { return names_wavelength(cell); });
    const bool has_number =
        std::any_of(row.begin(), row.end(), [](const std::string& cell) { return plain_number(cell).has_value(); });
    if (at != row.end() && row.size() >= 2 && (!has_number || !could_be(plain_number(row[0]).value_or(0)))) {
      if (!named) named = r, shape.nm_column = static_cast<std::size_t>(at - row.begin()), first.reset();
      header = r;
    } else if (row.size() == shape.width && !first) {
      const auto nm = plain_number(row[std::min(shape.nm_column, row.size() - 1)]);
      if (nm && could_be(*nm))
        first = r;
      else if (nm && *nm > 0 && *nm < 10 && named)
        return Problem{fmt::format("The wavelengths begin with {:g}", *nm), "in nm light lies between 100 and 5000",
                       "give wavelengths in nm"};
      else if (!named && !nm)
        header = r;
    }
  }
  if (!first)
    return Problem{"No row begins with a wavelength between 100 and 5000 nm", "there is no spectrum in it",
                   "give wavelengths in nm in a column of their own"};
  shape.first = *first;
  // Titles may stand in two rows, a name and a unit under it.
  shape.titles.assign(shape.width, {});
  for (const int r : filled) {
    if (static_cast<std::size_t>(r) >= shape.first) break;
    const auto& row = rows[r];
    const bool title = header && static_cast<std::size_t>(r) + 1 >= *header && row.size() == shape.width &&
                       (named ? static_cast<std::size_t>(r) >= *named : true);
    if (title)
      for (std::size_t c = 0; c < shape.width; ++c)
        shape.titles[c] += (shape.titles[c].empty() || row[c].empty() ? "" : " ") + row[c];
    else
      shape.remarks += fmt::format("{} ", fmt::join(row, " "));
  }
  if (!named) {
    // Without a title the wavelengths are the first column whose numbers all could be some and mostly rise.
    for (std::size_t c = 0; c < shape.width; ++c) {
      std::size_t rising = 0, falling = 0, strange = 0;
      double last = 0;
      for (std::size_t r = shape.first; r < rows.size(); ++r) {
        if (rows[r].size() != shape.width) continue;
        const auto nm = plain_number(rows[r][c]);
        if (!nm || !could_be(*nm))
          ++strange;
        else {
          if (last > 0) *nm > last ? ++rising : ++falling;
          last = *nm;
        }
      }
      if (std::max(rising, falling) > 4 * (strange + std::min(rising, falling)) || shape.width == 2) {
        shape.nm_column = c;
        break;
      }
    }
  }
  return shape;
}

Result<std::vector<std::size_t>> wanted_columns(const Shape& shape, const std::vector<std::size_t>& light,
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
  SplitTable table = split(text);
  bool turned = false;
  const Rows rows = standing(std::move(table.rows), turned);
  const auto shape = shape_of(rows);
  if (!shape) return shape.problem();
  const Shape& s = shape.value();
  if (const std::string title = another_unit(s.titles[s.nm_column]); !title.empty())
    return Problem{fmt::format("The wavelengths are titled '{}'", title), "they are not told to be in nm",
                   "give wavelengths in nm"};

  Rows body(rows.begin() + static_cast<std::ptrdiff_t>(s.first), rows.end());
  const char mark = guess_decimal_mark(body);
  std::vector<std::size_t> light;
  SpectrumFile file;
  file.understood.push_back(fmt::format("a table separated by {}{}, decimal mark '{}'", table.separator,
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
    const NumberRule nm_rule{mark, false, {}};
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
      const auto nm = wavelength(row[s.nm_column], nm_rule.decimal_mark);
      if (!nm || !could_be(*nm)) {
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
