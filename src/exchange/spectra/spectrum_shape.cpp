#include "exchange/spectra/spectrum_shape.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "core/quantity/lower_case.h"
#include "core/quantity/number.h"

namespace sunbreak::exchange {
namespace {

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

struct SplitRows {
  Rows rows;
  std::string separator;
};

SplitRows split(std::string_view text) {
  SplitRows best;
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

bool could_be(double nm) { return nm >= shortest_nm && nm <= longest_nm; }

/// A table whose wavelengths lie in one row, turned so that they stand in a column.
Rows standing(Rows rows, bool& turned) {
  for (std::size_t r = 0; r < std::min(rows.size(), most_rows_above); ++r) {
    const auto& row = rows[r];
    if (row.size() < 10) continue;
    std::size_t wavelengths = 0;
    double last = 0;
    for (const std::string& cell : row)
      if (const auto nm = wavelength_in(cell, '.'); nm && *nm > last) last = *nm, ++wavelengths;
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

/// The rows that title the columns, and the first row of samples.
struct HeaderRow {
  std::optional<int> begin;  ///< first and last row of titles
  int end = -1;
  bool named = false;  ///< they name the wavelengths
  std::size_t nm_column = 0;
  std::optional<std::size_t> first;
  std::optional<double> small;  ///< what a named column begins with, where that is no nm
};

/// Rows that name wavelengths and are followed by half of all samples at least; else the row without a number above the
/// samples. "Peak wavelength; 450" is a remark.
HeaderRow header_of(const Rows& rows, const std::vector<int>& filled, std::size_t width, std::size_t samples) {
  const auto number_at = [&](int r, std::size_t column) {
    return column < rows[r].size() ? plain_number(rows[r][column]) : std::nullopt;
  };
  const auto is_sample = [&](int r, std::size_t column) {
    const auto nm = number_at(r, column);
    return rows[r].size() == width && nm && could_be(*nm);
  };
  HeaderRow h;
  std::size_t passed = 0;
  for (std::size_t i = 0; i < filled.size(); ++i) {
    const int r = filled[i];
    const auto& row = rows[r];
    const auto at =
        std::find_if(row.begin(), row.end(), [](const std::string& cell) { return names_wavelength(cell); });
    const auto column = static_cast<std::size_t>(at - row.begin());
    const auto numbers = std::count_if(row.begin(), row.end(), [](const std::string& c) { return plain_number(c); });
    passed += numbers >= 2;
    if (at != row.end() && row.size() >= 2 && 2 * passed <= samples &&
        (numbers == 0 || (i + 1 < filled.size() && is_sample(filled[i + 1], column)))) {
      // A unit under a name goes on with the titles.
      if (!h.named || r != h.end + 1) h.begin = r, h.nm_column = column;
      h.named = true;
      h.end = r;
      h.first.reset();
    } else if (row.size() == width && !h.first) {
      const auto nm = number_at(r, h.nm_column);
      if (is_sample(r, h.nm_column))
        h.first = static_cast<std::size_t>(r);
      else if (h.named && nm && *nm > 0 && *nm < 10)
        return h.small = nm, h;
      else if (h.named && numbers == 0 && r == h.end + 1)
        h.end = r;
      else if (!h.named && numbers == 0)
        h.begin = h.end = r;
    }
  }
  return h;
}

/// Without a title: the first column whose numbers all could be wavelengths and mostly rise, or mostly fall.
std::size_t column_of_wavelengths(const Rows& rows, const SpectrumShape& shape) {
  for (std::size_t c = 0; c < shape.width; ++c) {
    std::size_t rising = 0, falling = 0, strange = 0;
    double last = 0;
    for (std::size_t r = shape.first; r < rows.size(); ++r) {
      if (rows[r].size() != shape.width) continue;
      const auto nm = plain_number(rows[r][c]);
      if (!nm || !could_be(*nm)) {
        ++strange;
        continue;
      }
      if (last > 0) *nm > last ? ++rising : ++falling;
      last = *nm;
    }
    if (std::max(rising, falling) > 4 * (strange + std::min(rising, falling)) || shape.width == 2) return c;
  }
  return 0;
}

}  // namespace

std::optional<double> wavelength_in(std::string_view cell, char mark) {
  std::string plain = lower_case(trimmed(cell));
  if (plain.ends_with("nm")) plain = trimmed(std::string_view(plain).substr(0, plain.size() - 2));
  const auto nm = parse_number(plain, mark);
  return nm && could_be(*nm) ? nm : std::nullopt;
}

Result<SpectrumShape> spectrum_shape(std::string_view text) {
  SplitRows table = split(text);
  SpectrumShape shape;
  shape.separator = std::move(table.separator);
  shape.rows = standing(std::move(table.rows), shape.turned);
  const Rows& rows = shape.rows;
  const std::vector<int> filled = filled_rows(rows);
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
  const HeaderRow found = header_of(rows, filled, shape.width, numbers.size());
  shape.nm_column = found.nm_column;
  if (!found.first)
    return Problem{found.small ? fmt::format("The wavelengths begin with {:g}", *found.small)
                               : std::string("No row begins with a wavelength between 100 and 5000 nm"),
                   "in nm light lies between 100 and 5000", "give wavelengths in nm in a column of their own"};
  shape.first = *found.first;
  // Titles may stand in two rows, a name and a unit under it.
  shape.titles.assign(shape.width, {});
  for (const int r : filled) {
    if (static_cast<std::size_t>(r) >= shape.first) break;
    const auto& row = rows[r];
    const bool title = found.begin && row.size() == shape.width && r >= *found.begin && r <= found.end;
    if (title)
      for (std::size_t c = 0; c < shape.width; ++c)
        shape.titles[c] += (shape.titles[c].empty() || row[c].empty() ? "" : " ") + row[c];
    else
      shape.remarks += fmt::format("{} ", fmt::join(row, " "));
  }
  if (!found.named) shape.nm_column = column_of_wavelengths(rows, shape);
  if (const std::string title = another_unit(shape.titles[shape.nm_column]); !title.empty())
    return Problem{fmt::format("The wavelengths are titled '{}'", title), "they are not told to be in nm",
                   "give wavelengths in nm"};
  return shape;
}

}  // namespace sunbreak::exchange
