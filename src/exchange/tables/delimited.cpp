#include "exchange/tables/delimited.h"

#include <csv.h>

#include <algorithm>
#include <map>
#include <memory>
#include <stdexcept>

#include "core/quantity/number.h"

namespace sunbreak::exchange {

namespace {

template <typename OnCell>
Rows parse(std::string_view text, char separator, unsigned char blank_lines, OnCell on_cell_text) {
  struct Sink {
    OnCell on_cell_text;
    Rows rows;
    std::vector<std::string> row;
  } sink{on_cell_text, {}, {}};
  csv_parser parser;
  if (csv_init(&parser, static_cast<unsigned char>(blank_lines | CSV_EMPTY_IS_NULL)) != 0) throw std::bad_alloc();
  const std::unique_ptr<csv_parser, void (*)(csv_parser*)> owner(&parser, csv_free);
  csv_set_delim(&parser, static_cast<unsigned char>(separator));
  csv_set_space_func(&parser, [](unsigned char c) { return c == ' ' ? 1 : 0; });
  const auto on_cell = [](void* cell, std::size_t size, void* data) {
    auto* s = static_cast<Sink*>(data);
    s->row.emplace_back(
        s->on_cell_text(cell ? std::string_view(static_cast<const char*>(cell), size) : std::string_view()));
  };
  const auto on_row = [](int, void* data) {
    auto* s = static_cast<Sink*>(data);
    s->rows.push_back(std::move(s->row));
    s->row.clear();
  };
  csv_parse(&parser, text.data(), text.size(), on_cell, on_row, &sink);
  csv_fini(&parser, on_cell, on_row, &sink);
  return std::move(sink.rows);
}

/// CRLF and CR as LF, so that row numbers are those of the file.
std::string unified_line_ends(std::string_view text) {
  std::string unified;
  unified.reserve(text.size());
  for (std::size_t i = 0; i < text.size(); ++i) {
    unified += text[i] == '\r' ? '\n' : text[i];
    if (text[i] == '\r' && i + 1 < text.size() && text[i + 1] == '\n') ++i;
  }
  return unified;
}

}  // namespace

Rows split_cells(std::string_view text, char separator) {
  return parse(unified_line_ends(text), separator, CSV_REPALL_NL, [](std::string_view cell) { return trimmed(cell); });
}

Rows split_verbatim(std::string_view text) {
  return parse(text, ',', 0, [](std::string_view cell) { return cell; });
}

std::vector<int> filled_rows(const Rows& cells) {
  std::vector<int> rows;
  for (int row = 0; row < static_cast<int>(cells.size()); ++row)
    if (std::any_of(cells[row].begin(), cells[row].end(), [](const std::string& cell) { return !cell.empty(); }))
      rows.push_back(row);
  return rows;
}

std::size_t usual_width(const Rows& cells, const std::vector<int>& rows) {
  std::map<std::size_t, int> counts;
  for (const int row : rows) ++counts[cells[row].size()];
  const auto commonest =
      std::max_element(counts.begin(), counts.end(), [](auto& a, auto& b) { return a.second < b.second; });
  return commonest == counts.end() ? 0 : commonest->first;
}

char guess_separator(std::string_view text) {
  char best = ',';
  double best_score = 0;
  for (const char candidate : {'\t', ';', ','}) {
    std::map<std::size_t, std::size_t> widths;
    std::size_t rows = 0;
    for (const auto& row : split_cells(text.substr(0, 1 << 16), candidate)) {
      if (row.size() > 1) ++widths[row.size()];
      rows += !row.empty();
    }
    const auto commonest =
        std::max_element(widths.begin(), widths.end(), [](auto& a, auto& b) { return a.second < b.second; });
    if (commonest == widths.end()) continue;
    const double score = static_cast<double>(commonest->second) / static_cast<double>(rows);
    // A comma may be a decimal mark: it must cut clearly better than a tab or semicolon to be the separator.
    if (score > best_score + (candidate == ',' && best_score > 0.5 ? 0.5 : 0)) {
      best = candidate;
      best_score = score;
    }
  }
  return best;
}

}  // namespace sunbreak::exchange
