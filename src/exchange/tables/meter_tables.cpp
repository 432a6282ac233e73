#include "exchange/tables/meter_tables.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <chrono>
#include <optional>

#include "core/limits/light_limits.h"
#include "core/quantity/length.h"
#include "core/quantity/lower_case.h"
#include "core/quantity/lux.h"
#include "core/quantity/number.h"
#include "exchange/tables/column_titles.h"
#include "exchange/tables/header_words.h"
#include "exchange/tables/named_columns.h"

namespace sunbreak::exchange {
namespace {

constexpr double least_light = 1e-6;

using Header = std::vector<std::string>;

bool has_word(const std::string& title, std::initializer_list<const char*> names) {
  const TitleWords words = title_words(title);
  return std::any_of(names.begin(), names.end(),
                     [&](const char* name) { return std::find(words.begin(), words.end(), name) != words.end(); });
}

template <typename Matches>
std::optional<std::size_t> column_where(const Header& header, Matches matches) {
  for (std::size_t i = 0; i < header.size(); ++i)
    if (matches(header[i])) return i;
  return std::nullopt;
}

bool is_lux(const std::string& title) { return has_word(title, {"lux", "lx", "klux", "klx", "illuminance"}); }

bool is_ppfd(const std::string& title) {
  return !is_lux(title) &&
         (names_light(title_words(title)) || has_word(title, {"ppfd", "umol", "mol", "par", "pfd"})) &&
         !names_other_quantity(title_words(title));
}

Problem none_taken(const NamedTable& table) {
  return {"No row could be taken", table.findings.empty() ? "there are none under the header" : table.findings[0].words,
          "give numbers above zero in each row"};
}

/// Days since 1970 of an ISO date, or of the date that a moment begins with.
std::optional<double> day_of(std::string_view text) {
  int year = 0;
  unsigned month = 0, day = 0;
  const auto part = [&](std::size_t at, std::size_t size, auto& into) {
    if (text.size() < at + size) return false;
    const auto [end, error] = std::from_chars(text.data() + at, text.data() + at + size, into);
    return error == std::errc() && end == text.data() + at + size;
  };
  if (text.size() < 10 || text[4] != '-' || text[7] != '-' || !part(0, 4, year) || !part(5, 2, month) ||
      !part(8, 2, day))
    return std::nullopt;
  if (text.size() > 10 && text[10] != 'T' && text[10] != ' ') return std::nullopt;
  const std::chrono::year_month_day date{std::chrono::year(year), std::chrono::month(month), std::chrono::day(day)};
  if (!date.ok()) return std::nullopt;
  double fraction = 0;
  unsigned hour = 0, minute = 0;
  if (text.size() >= 16 && part(11, 2, hour) && part(14, 2, minute) && hour < 24 && minute < 60)
    fraction = (hour + minute / 60.0) / 24;
  return static_cast<double>(std::chrono::sys_days(date).time_since_epoch().count()) + fraction;
}

/// A station such as B3: column B, row 3.
std::optional<Place> station_place(const std::string& cell) {
  if (cell.size() < 2 || cell.size() > 4) return std::nullopt;
  const std::string lower = lower_case(cell);
  if (lower[0] < 'a' || lower[0] > 'z') return std::nullopt;
  int row = 0;
  const auto [end, error] = std::from_chars(lower.data() + 1, lower.data() + lower.size(), row);
  if (error != std::errc() || end != lower.data() + lower.size() || row < 1) return std::nullopt;
  return Place{static_cast<double>(lower[0] - 'a'), static_cast<double>(row)};
}

/// Meters in one of a title's unit.
double meters_in(const std::string& title) {
  if (has_word(title, {"cm"})) return 0.01;
  if (has_word(title, {"mm"})) return 0.001;
  if (has_word(title, {"in", "inch", "inches"})) return 0.0254;
  if (has_word(title, {"ft", "feet"})) return 0.3048;
  return 1;
}

/// Columns of light and of places in a table of two sensors.
struct PairColumns {
  std::size_t first = 0, second = 0;
  std::optional<std::size_t> x, y, station;
};

std::optional<PairColumns> pair_columns_in(const Header& header) {
  PairColumns c;
  std::vector<std::size_t> light;
  std::optional<std::size_t> trusted;
  for (std::size_t i = 0; i < header.size(); ++i) {
    const std::string& title = header[i];
    if (title.empty() || parse_number(title)) return std::nullopt;
    const bool place_x = has_word(title, {"x", "column", "col"}), place_y = has_word(title, {"y", "row"});
    if (place_x && !c.x)
      c.x = i;
    else if (place_y && !c.y)
      c.y = i;
    else if (has_word(title, {"station", "spot", "place", "point"}))
      c.station = i;
    else if (has_word(title, {"level", "height", "dial", "setting", "time", "date", "note", "notes", "no", "nr", "id"}))
      continue;
    else {
      if (!trusted && has_word(title, {"reference", "ref", "trusted", "first", "good"})) trusted = i;
      light.push_back(i);
    }
  }
  if (light.size() != 2) return std::nullopt;
  c.first = trusted.value_or(light[0]);
  c.second = c.first == light[0] ? light[1] : light[0];
  return c;
}

}  // namespace

Result<LuxPairsDraft> read_lux_pairs(std::string_view bytes) {
  const auto lux_column = [](const Header& h) { return column_where(h, is_lux); };
  const auto ppfd_column = [](const Header& h) { return column_where(h, is_ppfd); };
  auto read = named_table(
      bytes, [&](const Header& h) { return lux_column(h) && ppfd_column(h); },
      "give the table a header row such as: lux, ppfd");
  if (!read) return read.problem();
  NamedTable& table = read.value();
  const std::size_t lux_at = *lux_column(table.header), ppfd_at = *ppfd_column(table.header);
  const double to_lux = has_word(table.header[lux_at], {"klux", "klx"}) ? 1000 : 1;
  LuxPairsDraft draft;
  for (const NamedTable::Row& row : table.rows) {
    const auto lux = table.number(row, lux_at, least_light, most_lux / to_lux);
    const auto ppfd = lux ? table.number(row, ppfd_at, least_light, most_ppfd) : std::nullopt;
    if (ppfd) draft.pairs.push_back({*lux * to_lux, *ppfd});
  }
  if (draft.pairs.empty()) return none_taken(table);
  draft.findings = std::move(table.findings);
  return draft;
}

Result<SensorPairsDraft> read_sensor_pairs(std::string_view bytes) {
  auto read = named_table(
      bytes, [](const Header& h) { return pair_columns_in(h).has_value(); },
      "give the table a header row that names two columns of light, such as: x_m, y_m, trusted, other");
  if (!read) return read.problem();
  NamedTable& table = read.value();
  const PairColumns columns = *pair_columns_in(table.header);
  SensorPairsDraft draft;
  draft.first = table.header[columns.first];
  draft.second = table.header[columns.second];
  for (const std::size_t c : {columns.first, columns.second})
    if (is_lux(table.header[c]))
      return Problem{fmt::format("Column '{}' is in lux", table.header[c]), "the two columns are not the same quantity",
                     "for a lux meter beside a quantum sensor use lux-factor"};
  for (const NamedTable::Row& row : table.rows) {
    const auto first = table.number(row, columns.first, least_light, most_ppfd);
    const auto second = first ? table.number(row, columns.second, least_light, most_ppfd) : std::nullopt;
    if (!second) continue;
    SensorPair pair{*first, *second, {}};
    if (columns.x && columns.y) {
      const auto x = table.number(row, *columns.x, -1e6, 1e6);
      const auto y = x ? table.number(row, *columns.y, -1e6, 1e6) : std::nullopt;
      if (!y) continue;
      pair.place = Place{*x * meters_in(table.header[*columns.x]), *y * meters_in(table.header[*columns.y])};
    } else if (columns.station) {
      pair.place = station_place(row.cells[*columns.station]);
    }
    draft.pairs.push_back(pair);
  }
  if (draft.pairs.empty()) return none_taken(table);
  draft.findings = std::move(table.findings);
  return draft;
}

Result<CheckReadingsDraft> read_check_readings(std::string_view bytes) {
  const auto is_day = [](const std::string& title) { return has_word(title, {"date", "day", "time", "taken"}); };
  const auto is_watts = [](const std::string& title) { return has_word(title, {"w", "watt", "watts", "power"}); };
  const auto is_text = [](const std::string& title) {
    return has_word(title, {"lamp", "meter", "sensor", "note", "notes", "by", "tester"});
  };
  const auto light_columns = [&](const Header& h) {
    std::vector<std::size_t> columns;
    for (std::size_t i = 0; i < h.size(); ++i)
      if (!is_day(h[i]) && !is_watts(h[i]) && !is_text(h[i]) &&
          (is_ppfd(h[i]) ||
           has_word(h[i], {"center", "centre", "middle", "left", "right", "near", "far", "front", "back", "station",
                           "second", "third", "a", "b", "c"}) ||
           header_starts(h[i], "station") || header_starts(h[i], "ppfd") || header_starts(h[i], "light")))
        columns.push_back(i);
    return columns;
  };
  auto read = named_table(
      bytes, [&](const Header& h) { return column_where(h, is_day) && !light_columns(h).empty(); },
      "give the table a header row such as: date, lamp, meter, center, left, right, watts");
  if (!read) return read.problem();
  NamedTable& table = read.value();
  const std::size_t day_at = *column_where(table.header, is_day);
  const auto lamp_at = column_where(table.header, [](const std::string& t) { return has_word(t, {"lamp"}); });
  const auto meter_at = column_where(table.header, [](const std::string& t) {
    return has_word(t, {"meter", "sensor"});
  });
  const auto watts_at = column_where(table.header, is_watts);
  const std::vector<std::size_t> light_at = light_columns(table.header);
  for (std::size_t i = 0; i < table.header.size(); ++i) {
    const std::string& title = table.header[i];
    if (!is_day(title) && !is_watts(title) && !is_text(title) && std::ranges::find(light_at, i) == light_at.end())
      table.findings.push_back(
          {0, static_cast<int>(i) + 1, true,
           fmt::format("column '{}' names no light, lamp or meter: not taken", title.substr(0, 40))});
  }
  CheckReadingsDraft draft;
  for (const NamedTable::Row& row : table.rows) {
    CheckReading reading;
    const std::string& day = row.cells[day_at];
    auto when = day_of(day);
    if (!when) when = cell_number(day, table.rule);
    if (!when || std::abs(*when) > 1e7) {
      table.findings.push_back(
          {row.number, static_cast<int>(day_at) + 1, true,
           fmt::format("'{}' is no day such as 2026-03-14: the row was not taken", day.substr(0, 40))});
      continue;
    }
    reading.day = *when;
    reading.lamp = lamp_at ? row.cells[*lamp_at] : "";
    reading.meter = meter_at ? row.cells[*meter_at] : "";
    bool whole = true;
    for (const std::size_t c : light_at) {
      const auto light = whole ? table.number(row, c, least_light, most_ppfd) : std::nullopt;
      whole = whole && light;
      if (light) reading.light.push_back(*light);
    }
    if (!whole) continue;
    if (watts_at && !row.cells[*watts_at].empty()) {
      const auto watts = table.number(row, *watts_at, least_light, most_power_w);
      if (!watts) continue;
      reading.watts = watts;
    }
    draft.readings.push_back(std::move(reading));
    draft.days.push_back(day);
  }
  if (draft.readings.empty()) return none_taken(table);
  draft.findings = std::move(table.findings);
  return draft;
}

}  // namespace sunbreak::exchange
