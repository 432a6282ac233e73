#include "exchange/tables/matrix_table.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/sweep/field.h"
#include "exchange/tables/column_titles.h"

namespace sunbreak::exchange {
namespace {

/// A title or remark: one cell with words in it, the rest empty.
bool is_remark(const std::vector<std::string>& row, const NumberRule& rule, std::size_t width) {
  if (width < 2) return false;
  const auto filled = std::count_if(row.begin(), row.end(), [](const std::string& cell) { return !cell.empty(); });
  const auto first = std::find_if(row.begin(), row.end(), [](const std::string& cell) { return !cell.empty(); });
  return filled == 1 && !cell_number(*first, rule);
}

/// Labels of rows or columns: all words, or numbers in even steps. Says which way the numbers go.
struct Labels {
  bool are_labels = false;
  int direction = 0;    ///< +1 rising, −1 falling, 0 words
  bool counts = false;  ///< 0, 1, 2 … or 1, 2, 3 …: an order, not places
};

Labels examine_labels(const std::vector<std::string>& cells, const NumberRule& rule) {
  std::vector<double> numbers;
  for (const std::string& cell : cells)
    if (const auto number = cell_number(cell, rule)) numbers.push_back(*number);
  if (numbers.empty()) return {true, 0, false};
  if (numbers.size() != cells.size() || numbers.size() < 2) return {};
  const double step = numbers[1] - numbers[0];
  for (std::size_t i = 1; i < numbers.size(); ++i)
    if (step == 0 || std::abs(numbers[i] - numbers[i - 1] - step) > 0.25 * std::abs(step)) return {};
  return {true, step > 0 ? 1 : -1, step == 1 && (numbers[0] == 0 || numbers[0] == 1)};
}

Problem places_for_light(const std::string& seen) {
  return {
      seen, "places would be taken for light",
      "give a row a reading with x, y and ppfd as titles; or, if every number is a reading, choose the matrix form"};
}

constexpr std::size_t fewest_even = 4;

/// Whether numbers go up or down in steps that are equal to the last digit, as distances do and light does not.
bool exactly_even(const std::vector<std::optional<double>>& numbers) {
  if (numbers.size() < fewest_even || std::find(numbers.begin(), numbers.end(), std::nullopt) != numbers.end())
    return false;
  const double step = *numbers[1] - *numbers[0];
  for (std::size_t i = 1; i < numbers.size(); ++i)
    if (step == 0 || std::abs(*numbers[i] - *numbers[i - 1] - step) > 1e-9 * std::abs(*numbers[i])) return false;
  return true;
}

/// Why a table without titles may hold places among its numbers; nothing where all of it can only be light.
std::optional<Problem> may_hold_places(const Rows& cells, const std::vector<int>& rows, std::size_t width,
                                       const NumberRule& rule) {
  const auto full = [&](int row) { return cells[row].size() == width; };
  if (width == 3)
    for (const std::size_t column : {0, 1}) {
      std::set<std::string> seen;
      for (const int row : rows)
        if (cells[row].size() > column && !seen.insert(cells[row][column]).second)
          return places_for_light(
              "the table has three columns, and values repeat in the first two as places in rows of x, y, value do");
    }
  if (width < 2 || !std::all_of(rows.begin(), rows.end(), full)) return {};
  std::vector<std::optional<double>> across, down;
  for (const std::string& cell : cells[rows.front()]) across.push_back(cell_number(cell, rule));
  for (const int row : rows) down.push_back(cell_number(cells[row].front(), rule));
  const auto even_elsewhere = [&](std::size_t row, std::size_t column) {
    std::vector<std::optional<double>> numbers;
    if (row > 0)
      for (const std::string& cell : cells[rows[row]]) numbers.push_back(cell_number(cell, rule));
    else
      for (const int r : rows) numbers.push_back(cell_number(cells[r][column], rule));
    return exactly_even(numbers);
  };
  // Light that is the same plane everywhere goes in even steps in every row.
  if (exactly_even(down) && !even_elsewhere(0, width - 1))
    return places_for_light(fmt::format("the first column goes in even steps from {} to {}",
                                        cells[rows.front()].front(), cells[rows.back()].front()));
  if (exactly_even(across) && rows.size() > 1 && !even_elsewhere(rows.size() - 1, 0))
    return places_for_light(fmt::format("the first row goes in even steps from {} to {}", cells[rows.front()].front(),
                                        cells[rows.front()].back()));
  return {};
}

bool rises_or_falls(const std::vector<std::string>& cells, const NumberRule& rule) {
  std::vector<double> numbers;
  for (const std::string& cell : cells)
    if (const auto number = cell_number(cell, rule)) numbers.push_back(*number);
  return numbers.size() == cells.size() && numbers.size() >= 3 &&
         (std::adjacent_find(numbers.begin(), numbers.end(), std::greater_equal<>()) == numbers.end() ||
          std::adjacent_find(numbers.begin(), numbers.end(), std::less_equal<>()) == numbers.end());
}

}  // namespace

std::optional<Problem> read_matrix(TableDraft& draft, const NumberRule& rule, const TableContext& context,
                                   const TableOptions& options) {
  std::vector<int> rows = filled_rows(draft.cells);
  std::string unlike_ppfd;
  const std::size_t full_width = usual_width(draft.cells, rows);
  std::erase_if(rows, [&](int row) {
    if (!is_remark(draft.cells[row], rule, full_width)) return false;
    for (const std::string& cell : draft.cells[row])
      if (unlike_ppfd.empty() && remark_names_other_quantity(title_words(cell))) unlike_ppfd = cell;
    draft.findings.push_back({row + 1, 0, false, fmt::format("row {} is a remark and was left out", row + 1)});
    return true;
  });
  if (!unlike_ppfd.empty()) return not_ppfd(unlike_ppfd);
  if (rows.empty())
    return Problem{"no row of the table holds readings", "there is nothing to take", "choose another file"};

  // A last column that is empty throughout comes from separators at line ends.
  std::size_t width = usual_width(draft.cells, rows);
  while (width > 1 && std::all_of(rows.begin(), rows.end(), [&](int row) {
           return draft.cells[row].size() < width || draft.cells[row][width - 1].empty();
         }))
    --width;
  for (const int row : rows)
    while (draft.cells[row].size() > width && draft.cells[row].back().empty()) draft.cells[row].pop_back();

  if (!options.form)
    if (const auto doubt = may_hold_places(draft.cells, rows, width, rule)) return doubt;

  std::size_t first_column = 0;
  bool first_row_is_far = options.first_row_is_far.value_or(true);
  const auto& top = draft.cells[rows.front()];
  const bool corner_is_words = !cell_number(top.front(), rule);
  if (corner_is_words && rows.size() > 1 && width > 1 && top.size() == width) {
    const Labels across = examine_labels({top.begin() + 1, top.end()}, rule);
    std::vector<std::string> side;
    for (std::size_t i = 1; i < rows.size(); ++i) side.push_back(draft.cells[rows[i]].front());
    const Labels down = examine_labels(side, rule);
    if (across.are_labels && across.direction == 0)
      for (std::size_t i = 1; i < width; ++i) {
        const TitleWords words = title_words(top[i]);
        if (names_other_quantity(words)) return not_ppfd(top[i]);
        if (!options.form && names_place(words))
          return places_for_light(fmt::format("column {} is '{}'", i + 1, top[i]));
      }
    if (!options.form && !across.are_labels && rises_or_falls({top.begin() + 1, top.end()}, rule) &&
        rises_or_falls(side, rule))
      return places_for_light("the first row and column go in one direction throughout, but in uneven steps");
    if (across.are_labels && down.are_labels) {
      first_column = 1;
      rows.erase(rows.begin());
      if (across.direction < 0)
        return Problem{"the column labels count downwards", "left and right may be swapped",
                       "turn the table round or remove the labels"};
      draft.understood.push_back("the first row and column hold labels and were left out");
      if (!options.first_row_is_far && down.direction > 0 && !down.counts) {
        first_row_is_far = false;
        draft.understood.push_back("the row labels rise, as distances from the door do");
      }
    } else if (across.are_labels && across.direction == 0) {
      if (!options.form && names_place(title_words(top.front())))
        return places_for_light(fmt::format("column 1 is '{}', and its numbers go in no even steps", top.front()));
      rows.erase(rows.begin());
      draft.understood.push_back("the first row holds column names and was left out");
    }
  }
  const int columns = static_cast<int>(width - first_column), count = static_cast<int>(rows.size());
  if (columns < 1 || static_cast<long long>(columns) * count > most_stations)
    return Problem{fmt::format("the table has {} × {} cells", columns, count), "that is no sweep",
                   "choose another file"};

  draft.grid = {context.kind, columns, count, context.margin_m.value_or(0), context.margin_m.value_or(0), {}};
  if (context.kind == GridKind::Spots) {
    if (columns != 3 || count != 3)
      return Problem{fmt::format("a spot check as a table is 3 × 3, this one {} × {}", columns, count),
                     "its places are not known", "give x, y and value in each row"};
    draft.grid.spots = nine_spots(context.footprint, context.margin_m.value_or(0));
  }
  auto layout = lay_out(context.footprint, draft.grid);
  if (!layout) return layout.problem();
  draft.layout = std::move(layout.value());
  draft.raw.assign(draft.layout.stations.size(), unread);
  draft.sources.assign(draft.layout.stations.size(), {});
  draft.understood.push_back(
      fmt::format("a table of stations; its first row is the {} row", first_row_is_far ? "far" : "door-side"));

  for (int line = 0; line < count; ++line) {
    const auto& cells = draft.cells[rows[line]];
    const int file_row = rows[line] + 1, station_row = first_row_is_far ? count - 1 - line : line;
    if (cells.size() != width) {
      draft.findings.push_back(
          {file_row, 0, true,
           fmt::format("row {} has {} cells, the others {}: its stations were kept as missing, since no one "
                       "knows which cell is lost",
                       file_row, cells.size(), width)});
      continue;
    }
    for (int column = 0; column < columns; ++column) {
      const int file_column = static_cast<int>(first_column) + column + 1,
                station = draft.layout.index(column, station_row);
      const CellReading reading = cell_reading(cells[file_column - 1], rule);
      if (!reading.ppfd) {
        draft.findings.push_back(
            {file_row, file_column, true,
             fmt::format("row {}, column {}: {}; kept as a missing station", file_row, file_column, reading.refusal)});
        continue;
      }
      draft.raw[station] = *reading.ppfd;
      draft.sources[station] = {file_row, file_column};
    }
  }
  return {};
}

}  // namespace sunbreak::exchange
