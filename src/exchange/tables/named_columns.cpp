#include "exchange/tables/named_columns.h"

#include <fmt/format.h>

#include <algorithm>

#include "exchange/tables/delimited.h"
#include "exchange/tables/text_decoding.h"

namespace sunbreak::exchange {

std::optional<double> NamedTable::number(const Row& row, std::size_t column, double low, double high) {
  const std::string& cell = row.cells[column];
  const auto value = cell_number(cell, rule);
  if (value && *value >= low && *value <= high) return value;
  findings.push_back({row.number, static_cast<int>(column) + 1, true,
                      cell.empty() ? fmt::format("no {}: the row was not taken", header[column].substr(0, 40))
                                   : fmt::format("'{}' is no number from {:g} to {:g}: the row was not taken",
                                                 cell.substr(0, 40), low, high)});
  return std::nullopt;
}

Result<NamedTable> named_table(std::string_view bytes,
                               const std::function<bool(const std::vector<std::string>&)>& is_header,
                               const std::string& wanted) {
  const auto text = decode_text(bytes);
  if (!text) return text.problem();
  const Rows rows = split_cells(text.value().utf8, guess_separator(text.value().utf8));
  const auto head = std::find_if(rows.begin(), rows.end(), is_header);
  if (head == rows.end()) return Problem{"No row names the columns that are needed", "nothing was taken", wanted};
  NamedTable table;
  table.header = *head;
  for (auto row = head + 1; row != rows.end(); ++row) {
    const int at = static_cast<int>(row - rows.begin()) + 1;
    if (std::all_of(row->begin(), row->end(), [](const std::string& cell) { return cell.empty(); })) continue;
    if (row->size() != head->size())
      table.findings.push_back(
          {at, 0, true, fmt::format("{} cells where the header has {}: not taken", row->size(), head->size())});
    else
      table.rows.push_back({at, *row});
  }
  Rows body;
  for (const NamedTable::Row& row : table.rows) body.push_back(row.cells);
  // Whole numbers of one column say nothing of fractions in another: doubt is a column's own, and numbers that may be
  // thousands or fractions are left out of each that has nothing else.
  table.rule = {guess_decimal_mark(body), false, {}};
  for (std::size_t c = 0; c < table.header.size(); ++c) {
    Rows column;
    for (const auto& row : body) column.push_back({row[c]});
    const NumberRule own = number_rule(column, table.rule.decimal_mark, false);
    if (own.doubtful_thousands && table.rule.decimal_mark == ',') table.rule = own;
  }
  if (const auto cut = cut_short(text.value().utf8, rows.size())) table.findings.push_back(*cut);
  return table;
}

}  // namespace sunbreak::exchange
