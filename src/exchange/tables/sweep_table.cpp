#include "exchange/tables/sweep_table.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "exchange/tables/cell_numbers.h"
#include "exchange/tables/long_table.h"
#include "exchange/tables/matrix_table.h"
#include "exchange/tables/text_decoding.h"

namespace sunbreak::exchange {
namespace {

std::string separator_name(char separator) {
  return separator == '\t' ? "tab" : separator == ';' ? "semicolon" : "comma";
}

void note_unlike_plan(TableDraft& draft, const TableContext& context) {
  if (!context.planned || context.planned->kind == GridKind::Spots || draft.grid.kind == GridKind::Spots) return;
  const Grid& plan = *context.planned;
  if (plan.columns != draft.grid.columns || plan.rows != draft.grid.rows)
    draft.findings.push_back(
        {0, 0, false,
         fmt::format("the table is {} × {} stations, the plan {} × {}: the sweep takes the table's grid",
                     draft.grid.columns, draft.grid.rows, plan.columns, plan.rows)});
}

void note_uneven_cells(TableDraft& draft, UnitSystem units) {
  if (draft.grid.kind == GridKind::Spots || draft.layout.columns < 2 || draft.layout.rows < 2) return;
  const double dx = draft.layout.xs_m[1] - draft.layout.xs_m[0], dy = draft.layout.ys_m[1] - draft.layout.ys_m[0];
  if (std::max(dx, dy) / std::min(dx, dy) > 1.05)
    draft.findings.push_back(
        {0, 0, false,
         fmt::format("stations are {} apart across and {} in depth: a row or column may be missing from the table",
                     length_text(dx, units), length_text(dy, units))});
}

}  // namespace

std::optional<Finding> cut_short(std::string_view text, std::size_t rows) {
  if (text.empty() || text.ends_with('\n') || text.ends_with('\r')) return {};
  return Finding{static_cast<int>(rows), 0, false,
                 "the file ends in the middle of a line: compare its last value with the original"};
}

int TableDraft::readings() const {
  return static_cast<int>(std::count_if(raw.begin(), raw.end(), [](double v) { return !std::isnan(v); }));
}

Result<TableDraft> read_sweep_table(std::string_view bytes, const TableContext& context, const TableOptions& options) {
  const auto text = decode_text(bytes);
  if (!text) return text.problem();
  TableDraft draft;
  draft.encoding = text.value().encoding;
  draft.separator = options.separator.value_or(guess_separator(text.value().utf8));
  draft.cells = split_cells(text.value().utf8, draft.separator);
  if (std::all_of(draft.cells.begin(), draft.cells.end(),
                  [](auto& row) { return row.size() <= 1 && (row.empty() || row[0].empty()); }))
    return Problem{"the file is empty", "there is nothing to take", "choose the file that holds the readings"};
  draft.decimal_mark = options.decimal_mark.value_or(guess_decimal_mark(draft.cells));
  NumberRule rule = number_rule(draft.cells, draft.decimal_mark, options.decimal_mark.has_value());
  rule.lux = context.lux;
  auto long_header = find_long_header(draft.cells);
  if (options.names_columns() && options.form == TableForm::Matrix)
    return Problem{"columns were named for a table that lies as the stations do", "only rows of x, y, value have them",
                   "leave the form or the columns out"};
  if (options.names_columns()) {
    const auto chosen = chosen_columns(draft.cells, options);
    if (!chosen) return chosen.problem();
    long_header = chosen.value();
  }
  draft.form =
      options.form.value_or(long_header || looks_long(draft.cells, rule) ? TableForm::Long : TableForm::Matrix);

  draft.understood.push_back(fmt::format("{} text, cells separated by {}, decimal {}", draft.encoding,
                                         separator_name(draft.separator),
                                         draft.decimal_mark == '.' ? "point" : "comma"));
  const auto problem = draft.form == TableForm::Long ? read_long(draft, long_header, rule, context, options)
                                                     : read_matrix(draft, rule, context, options);
  if (problem) return *problem;
  if (rule.doubtful_thousands)
    draft.findings.push_back(
        {0, 0, true,
         fmt::format("cells such as '{}' may mean thousands or decimals: they were not taken; choose the "
                     "decimal mark to say which",
                     rule.doubtful_example)});
  if (const auto cut = cut_short(text.value().utf8, draft.cells.size())) draft.findings.push_back(*cut);
  note_unlike_plan(draft, context);
  note_uneven_cells(draft, context.units);
  if (draft.readings() == 0)
    return Problem{"no cell of the table is a PPFD reading", "there is nothing to take",
                   "check the separator and the decimal mark, or choose another file"};
  draft.understood.push_back(fmt::format("{} readings on {} × {} stations, {} missing", draft.readings(),
                                         draft.grid.columns, draft.grid.rows,
                                         draft.layout.stations.size() - draft.readings()));
  return draft;
}

}  // namespace sunbreak::exchange
