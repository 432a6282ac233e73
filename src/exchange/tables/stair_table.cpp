#include "exchange/tables/stair_table.h"

#include <fmt/format.h>

#include <algorithm>
#include <optional>

#include "core/limits/light_limits.h"
#include "exchange/tables/cell_numbers.h"
#include "exchange/tables/column_titles.h"
#include "exchange/tables/delimited.h"
#include "exchange/tables/header_words.h"
#include "exchange/tables/text_decoding.h"

namespace sunbreak::exchange {
namespace {

struct StairColumns {
  std::size_t count = 0;
  std::optional<std::size_t> dial, watts, power_factor;
  std::vector<std::size_t> light, not_ppfd;
};

StairColumns stair_columns_in(const std::vector<std::string>& header) {
  StairColumns c;
  c.count = header.size();
  for (std::size_t i = 0; i < header.size(); ++i) {
    const std::string& h = header[i];
    const auto starts = [&](const char* with) { return header_starts(h, with); };
    if (!c.dial && (starts("dial") || starts("dimmer") || starts("setting") || starts("percent") || starts("stop")))
      c.dial = i;
    else if (starts("ppfd") || starts("light"))
      (names_other_quantity(title_words(h)) ? c.not_ppfd : c.light).push_back(i);
    else if (!c.power_factor && (header_names(h, "pf") || header_names(h, "power factor")))
      c.power_factor = i;
    else if (!c.watts && (starts("watt") || starts("power") || header_names(h, "w")))
      c.watts = i;
  }
  return c;
}

}  // namespace

Result<StairDraft> read_stair_table(std::string_view bytes) {
  const auto text = decode_text(bytes);
  if (!text) return text.problem();
  const Rows rows = split_cells(text.value().utf8, guess_separator(text.value().utf8));
  const auto head = std::find_if(rows.begin(), rows.end(), [](const auto& row) { return stair_columns_in(row).dial; });
  if (head == rows.end())
    return Problem{"no row names a column of the dial", "nothing was taken",
                   "give the table a header row such as: dial_pct, watts, ppfd"};
  const StairColumns columns = stair_columns_in(*head);
  const Rows body(head + 1, rows.end());
  const NumberRule rule = number_rule(body, guess_decimal_mark(body), false);
  StairDraft draft;
  for (const std::size_t column : columns.not_ppfd)
    draft.findings.push_back({static_cast<int>(head - rows.begin()) + 1, static_cast<int>(column) + 1, true,
                              fmt::format("'{}' is not PPFD: the column was not taken", (*head)[column])});
  if (const auto cut = cut_short(text.value().utf8, rows.size())) draft.findings.push_back(*cut);
  for (auto row = body.begin(); row != body.end(); ++row) {
    if (row->empty()) continue;
    const int at = static_cast<int>(head - rows.begin() + 1 + (row - body.begin()) + 1);
    if (row->size() != columns.count) {
      draft.findings.push_back(
          {at, 0, true, fmt::format("{} cells where the header has {}: not taken", row->size(), columns.count)});
      continue;
    }
    const auto number = [&](std::size_t column, double low, double high) -> std::optional<double> {
      std::string cell = (*row)[column];
      if (cell.ends_with('%')) cell.pop_back();
      if (cell.empty()) return {};
      const auto value = cell_number(cell, rule);
      if (value && *value >= low && *value <= high) return value;
      draft.findings.push_back({at, static_cast<int>(column) + 1, true,
                                fmt::format("'{}' is no number in range: not taken", cell.substr(0, 40))});
      return {};
    };
    const auto dial = number(*columns.dial, 0, 200);
    if (!dial) continue;
    StairStep step;
    step.dial_pct = *dial;
    step.time_s = at;  // the order in which they were read is all the table says of time
    if (columns.watts) step.power_w = number(*columns.watts, 0, most_power_w);
    if (columns.power_factor) step.power_factor = number(*columns.power_factor, 0, 1.5);
    for (std::size_t i = 0; i < columns.light.size(); ++i)
      if (const auto light = number(columns.light[i], -50, most_ppfd))
        step.light.push_back({static_cast<int>(i), *light, {}});
    draft.steps.push_back(std::move(step));
  }
  if (draft.steps.empty())
    return Problem{"no row of the stair could be taken",
                   draft.findings.empty() ? "it has no rows under its header" : draft.findings.front().words,
                   "give each row the dial from 0 to 100 % (a boost up to 200 %)"};
  return draft;
}

}  // namespace sunbreak::exchange
