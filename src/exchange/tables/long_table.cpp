#include "exchange/tables/long_table.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <functional>
#include <map>
#include <set>

#include "core/bench/infer_grid.h"
#include "core/sweep/field.h"
#include "exchange/tables/column_titles.h"
#include "exchange/tables/header_words.h"

namespace sunbreak::exchange {
namespace {

std::optional<LengthUnit> unit_among(const TitleWords& words) {
  for (std::size_t i = 1; i < words.size(); ++i)
    if (const auto unit = parse_length_unit(words[i])) return unit.value();
  return {};
}

constexpr std::size_t header_rows = 10;

struct Point {
  int row;  ///< from 1
  double x, y;
};

/// How many cells its rows have.
int width_of(const Rows& cells, const LongHeader& header) {
  return static_cast<int>(header.row >= 0 ? cells[static_cast<std::size_t>(header.row)].size()
                                          : usual_width(cells, filled_rows(cells)));
}

/// The places in meters on a grid of the footprint, by the first unit under which they lie on one.
struct FittedPlaces {
  PlacedPoints placed;
  LengthUnit unit;
};

Result<FittedPlaces> fit_places(const std::vector<Point>& points, std::optional<LengthUnit> unit,
                                const TableContext& context) {
  using enum LengthUnit;
  const std::vector<LengthUnit> units =
      unit ? std::vector{*unit} : std::vector{Centimeter, Meter, Millimeter, Inch, Foot};
  std::optional<Problem> problem;
  for (const LengthUnit candidate : units) {
    std::vector<Place> places;
    for (const Point& p : points) places.push_back({to_m(p.x, candidate), to_m(p.y, candidate)});
    if (context.kind == GridKind::Spots) {
      PlacedPoints placed;
      placed.grid.kind = GridKind::Spots;
      for (const Place& p : places) placed.grid.spots.push_back({"", p.x_m, p.y_m});
      auto layout = lay_out(context.footprint, placed.grid);
      if (!layout) {
        if (!problem) problem = layout.problem();
        continue;
      }
      for (std::size_t i = 0; i < places.size(); ++i)
        for (std::size_t s = 0; s < layout.value().stations.size(); ++s)
          if (layout.value().stations[s].x_m == places[i].x_m && layout.value().stations[s].y_m == places[i].y_m)
            placed.stations.push_back(static_cast<int>(s));
      return FittedPlaces{placed, candidate};
    }
    auto placed = infer_grid(context.footprint, context.kind, places, context.margin_m);
    if (placed) return FittedPlaces{placed.value(), candidate};
    if (!problem) problem = placed.problem();
  }
  return *problem;
}

/// The points that stand alone on a line of x or of y on which the others stand in company: where a place was slipped.
/// None where more than one in ten would be.
std::vector<std::size_t> lone_points(const std::vector<Point>& points) {
  std::map<double, int> on_x, on_y;
  for (const Point& p : points) ++on_x[p.x], ++on_y[p.y];
  const auto alone = [&](const std::map<double, int>& on, double at) {
    return on.at(at) == 1 && points.size() >= 3 * on.size();
  };
  std::vector<std::size_t> lone;
  for (std::size_t i = 0; i < points.size(); ++i)
    if (alone(on_x, points[i].x) || alone(on_y, points[i].y)) lone.push_back(i);
  if (lone.size() > std::max<std::size_t>(1, points.size() / 10)) lone.clear();
  return lone;
}

/// Whether a grid is as good as filled by so many points.
bool fills(const PlacedPoints& placed) {
  const auto stations = static_cast<double>(placed.grid.columns) * placed.grid.rows;
  return static_cast<double>(placed.stations.size()) >= 0.85 * stations;
}

/// Leaves out the rows whose place stands alone where the others then fill a grid; each is told by its row.
void leave_slips_out(std::vector<Point>& points, std::optional<LengthUnit> unit, const TableContext& context,
                     const std::function<void(int, int, std::string)>& refuse) {
  if (context.kind == GridKind::Spots) return;
  const std::vector<std::size_t> lone = lone_points(points);
  if (lone.empty()) return;
  std::vector<Point> others;
  for (std::size_t i = 0; i < points.size(); ++i)
    if (!std::binary_search(lone.begin(), lone.end(), i)) others.push_back(points[i]);
  const auto with = fit_places(points, unit, context), without = fit_places(others, unit, context);
  if (!without || !fills(without.value().placed) || (with && fills(with.value().placed))) return;
  for (const std::size_t i : lone)
    refuse(points[i].row, 0,
           fmt::format("row {}: the place {:g}, {:g} lies off the grid that the other rows make; the row was not taken",
                       points[i].row, points[i].x, points[i].y));
  points = std::move(others);
}

}  // namespace

Result<LongHeader> chosen_columns(const Rows& cells, const TableOptions& options) {
  const std::array<const std::optional<std::string>*, 3> chosen{&options.x_column, &options.y_column,
                                                                &options.value_column};
  const auto number_of = [](const std::string& name) -> int {
    int number = 0;
    const auto [end, error] = std::from_chars(name.data(), name.data() + name.size(), number);
    return error == std::errc() && end == name.data() + name.size() ? number : 0;
  };
  const auto titled = [&](int row, const std::string& name) {
    const auto& titles = cells[static_cast<std::size_t>(row)];
    const auto same = [&](const std::string& title) { return lower_case(title) == lower_case(name); };
    const auto found = std::find_if(titles.begin(), titles.end(), same);
    return found == titles.end() ? -1 : static_cast<int>(found - titles.begin());
  };
  LongHeader header = find_long_header(cells).value_or(LongHeader{-1, 0, 1, 2, {}, {}});
  for (int row = 0; header.row < 0 && row < static_cast<int>(std::min(cells.size(), header_rows)); ++row)
    if (std::any_of(chosen.begin(), chosen.end(),
                    [&](const auto* name) { return *name && number_of(**name) == 0 && titled(row, **name) >= 0; }))
      header.row = row;
  const std::array<int*, 3> places{&header.x, &header.y, &header.value};
  for (std::size_t i = 0; i < chosen.size(); ++i) {
    if (!*chosen[i]) continue;
    const std::string& name = **chosen[i];
    const int number = number_of(name);
    *places[i] = number > 0 ? number - 1 : header.row >= 0 ? titled(header.row, name) : -1;
    if (*places[i] < 0 || *places[i] >= width_of(cells, header))
      return Problem{fmt::format("the table has no column '{}'", name), "what was asked for is not there",
                     "give a column's title as it stands there, or its number from 1"};
  }
  if (const int widest = std::max({header.x, header.y, header.value}); widest >= width_of(cells, header))
    return Problem{fmt::format("the table has no column {}", widest + 1), "places and light are in three columns",
                   "name all three of them"};
  if (header.x == header.y || header.x == header.value || header.y == header.value)
    return Problem{
        fmt::format("x, y and light are columns {}, {} and {}", header.x + 1, header.y + 1, header.value + 1),
        "places would be taken for light", "name three columns"};
  if (header.row >= 0) {
    const auto& titles = cells[static_cast<std::size_t>(header.row)];
    const auto words = [&](int column) { return title_words(titles[static_cast<std::size_t>(column)]); };
    header.unit = unit_among(words(header.x));
    header.other_quantity =
        names_other_quantity(words(header.value)) ? titles[static_cast<std::size_t>(header.value)] : std::string();
  }
  return header;
}

std::optional<LongHeader> find_long_header(const Rows& cells) {
  for (int row = 0; row < static_cast<int>(std::min(cells.size(), header_rows)); ++row) {
    LongHeader header{row, -1, -1, -1, {}, {}};
    for (int column = 0; column < static_cast<int>(cells[row].size()); ++column) {
      const auto words = title_words(cells[row][column]);
      if (words.empty()) continue;
      if (words[0] == "x" && header.x < 0) {
        header.x = column;
        header.unit = unit_among(words);
      } else if (words[0] == "y" && header.y < 0) {
        header.y = column;
        if (!header.unit) header.unit = unit_among(words);
      } else if (names_light(words) && header.value < 0) {
        header.value = column;
        if (names_other_quantity(words)) header.other_quantity = cells[row][column];
      }
    }
    // Places with one more column: that is what was read there, whatever it is called; never a table of light alone.
    if (header.x >= 0 && header.y >= 0 && header.value < 0)
      for (int column = 0; column < static_cast<int>(cells[row].size()); ++column) {
        const auto words = title_words(cells[row][column]);
        if (column == header.x || column == header.y || words.empty()) continue;
        if (names_other_quantity(words)) header.other_quantity = cells[row][column];
        if (names_other_quantity(words) || cells[row].size() == 3) header.value = column;
      }
    if (header.x >= 0 && header.y >= 0 && header.value >= 0) return header;
  }
  return {};
}

bool looks_long(const Rows& cells, const NumberRule& rule) {
  std::set<double> xs, ys;
  int rows = 0;
  for (const auto& row : cells) {
    if (row.empty()) continue;
    if (row.size() != 3) return false;
    const auto x = cell_number(row[0], rule), y = cell_number(row[1], rule);
    if (!x || !y) return false;
    xs.insert(*x);
    ys.insert(*y);
    ++rows;
  }
  return rows >= 4 && static_cast<int>(xs.size() * ys.size()) <= rows * 5 / 4 && xs.size() > 1 && ys.size() > 1;
}

std::optional<Problem> read_long(TableDraft& draft, const std::optional<LongHeader>& found, const NumberRule& rule,
                                 const TableContext& context, const TableOptions& options) {
  LongHeader header = found.value_or(LongHeader{-1, 0, 1, 2, {}, {}});
  if (!found && !options.names_columns() && !draft.cells.empty())
    for (const std::string& title : draft.cells[0])
      if (!cell_number(title, rule) && names_other_quantity(title_words(title))) header.other_quantity = title;
  if (!header.other_quantity.empty()) return not_ppfd(header.other_quantity);
  const auto refuse = [&](int row, int column, std::string words) {
    draft.findings.push_back({row, column, true, std::move(words)});
  };
  const std::size_t width = found ? static_cast<std::size_t>(width_of(draft.cells, *found)) : 3;
  std::vector<Point> points;
  for (int row = header.row + 1; row < static_cast<int>(draft.cells.size()); ++row) {
    const auto& cells = draft.cells[row];
    if (std::all_of(cells.begin(), cells.end(), [](const std::string& c) { return c.empty(); })) continue;
    if (cells.size() != width) {
      refuse(row + 1, 0, fmt::format("row {} has {} cells, not {}: it was not taken", row + 1, cells.size(), width));
      continue;
    }
    const auto x = cell_number(cells[header.x], rule), y = cell_number(cells[header.y], rule);
    if (!x || !y) {
      const int column = x ? header.y : header.x;
      refuse(row + 1, column + 1,
             fmt::format("row {}, column {}: '{}' is not a place; the row was not taken", row + 1, column + 1,
                         cells[column].substr(0, 40)));
      continue;
    }
    points.push_back({row + 1, *x, *y});
  }
  if (points.empty())
    return Problem{"no row of the table names a place and a value", "there is nothing to take",
                   "give x, y and value columns"};

  leave_slips_out(points, header.unit ? header.unit : options.place_unit, context, refuse);
  const auto fitted = fit_places(points, header.unit ? header.unit : options.place_unit, context);
  if (!fitted) return fitted.problem();
  const PlacedPoints& placed = fitted.value().placed;
  draft.grid = placed.grid;
  auto layout = lay_out(context.footprint, draft.grid);
  if (!layout) return layout.problem();
  draft.layout = std::move(layout.value());
  draft.raw.assign(draft.layout.stations.size(), unread);
  draft.sources.assign(draft.layout.stations.size(), {});
  draft.understood.push_back(fmt::format("one row a reading; places in {}{}", symbol(fitted.value().unit),
                                         header.unit          ? ", as the header says"
                                         : options.place_unit ? ", as chosen"
                                                              : ", by their fit to the footprint"));
  std::vector<int> first_row(draft.layout.stations.size(), 0);
  for (std::size_t i = 0; i < points.size(); ++i) {
    const int station = placed.stations[i], row = points[i].row, column = header.value + 1;
    if (first_row[station] != 0) {
      refuse(row, 0, fmt::format("rows {} and {} give the same station: neither was taken", first_row[station], row));
      draft.raw[station] = unread;
      draft.sources[station] = {};
      continue;
    }
    first_row[station] = row;
    const CellReading reading = cell_reading(draft.cells[row - 1][header.value], rule);
    if (!reading.ppfd) {
      refuse(row, column,
             fmt::format("row {}, column {}: {}; kept as a missing station", row, column, reading.refusal));
      continue;
    }
    draft.raw[station] = *reading.ppfd;
    draft.sources[station] = {row, column};
  }
  return {};
}

}  // namespace sunbreak::exchange
