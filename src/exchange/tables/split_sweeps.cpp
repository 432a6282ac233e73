#include "exchange/tables/split_sweeps.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "exchange/tables/cell_numbers.h"
#include "exchange/tables/column_titles.h"
#include "exchange/tables/delimited.h"
#include "exchange/tables/long_table.h"
#include "exchange/tables/text_decoding.h"

namespace sunbreak::exchange {
namespace {

bool one_of(const std::string& word, std::initializer_list<const char*> names) {
  return std::find(names.begin(), names.end(), word) != names.end();
}

std::string line_of(const std::vector<std::string>& cells, char separator) {
  std::string line;
  for (std::size_t i = 0; i < cells.size(); ++i) {
    if (i > 0) line += separator;
    line += '"';
    for (const char c : cells[i]) line += c == '"' ? std::string("\"\"") : std::string(1, c);
    line += '"';
  }
  return line + "\n";
}

}  // namespace

std::string SweepPart::name() const {
  std::string name;
  if (height_m) name += fmt::format("height {:.6g} m", *height_m);
  if (percent) name += fmt::format("{}dimmer {:g} %", name.empty() ? "" : ", ", *percent);
  return name + ".csv";
}

std::vector<SweepPart> split_sweeps(std::string_view bytes, LengthUnit bare_unit) {
  const auto text = decode_text(bytes);
  if (!text) return {};
  const char separator = guess_separator(text.value().utf8);
  const Rows rows = split_cells(text.value().utf8, separator);
  const auto header = find_long_header(rows);
  if (!header) return {};
  const auto& titles = rows[static_cast<std::size_t>(header->row)];
  std::optional<std::size_t> height, dimmer;
  LengthUnit unit = bare_unit;
  for (std::size_t i = 0; i < titles.size(); ++i) {
    const TitleWords words = title_words(titles[i]);
    if (words.empty()) continue;
    if (!height && one_of(words.front(), {"height", "hang", "hanging", "rung", "h"})) {
      height = i;
      for (std::size_t w = 1; w < words.size(); ++w)
        if (const auto named = parse_length_unit(words[w])) unit = named.value();
    } else if (!dimmer && one_of(words.front(), {"dimmer", "dim", "dimming", "dial", "setting", "stop", "percent"})) {
      dimmer = i;
    }
  }
  if (!height && !dimmer) return {};
  const NumberRule rule{guess_decimal_mark(rows), false, {}};
  const auto number = [&](const std::vector<std::string>& row, const std::optional<std::size_t>& column) {
    return column && *column < row.size() ? cell_number(row[*column], rule) : std::nullopt;
  };
  std::vector<SweepPart> parts;
  std::map<std::pair<std::optional<double>, std::optional<double>>, std::size_t> known;
  const std::string head = line_of(titles, separator);
  for (std::size_t r = static_cast<std::size_t>(header->row) + 1; r < rows.size(); ++r) {
    if (std::all_of(rows[r].begin(), rows[r].end(), [](const std::string& cell) { return cell.empty(); })) continue;
    const auto at = number(rows[r], height), percent = number(rows[r], dimmer);
    const auto [place, fresh] = known.try_emplace({at, percent}, parts.size());
    if (fresh) parts.push_back({at ? std::optional(to_m(*at, unit)) : std::nullopt, percent, head});
    parts[place->second].text += line_of(rows[r], separator);
  }
  return parts;
}

}  // namespace sunbreak::exchange
