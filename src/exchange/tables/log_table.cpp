#include "exchange/tables/log_table.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <chrono>
#include <cmath>
#include <optional>

#include "exchange/tables/cell_numbers.h"
#include "exchange/tables/column_titles.h"
#include "exchange/tables/delimited.h"
#include "exchange/tables/header_words.h"
#include "exchange/tables/text_decoding.h"

namespace sunbreak::exchange {
namespace {

constexpr int header_within = 10;
constexpr std::size_t findings_kept = 200;
constexpr double day_s = 86400;

/// A quantity a logger may write: how headers name it, the units they may add, and what is plausible.
struct Quantity {
  double record::LogSample::*member;
  const char* words;
  std::vector<const char*> names;
  std::vector<std::pair<const char*, double>> units;  ///< to the unit kept
  double lowest, highest;
};

const std::vector<Quantity>& quantities() {
  static const std::vector<Quantity> all{
      {&record::LogSample::light_raw,
       "light [µmol/m²/s]",
       {"ppfd", "light", "par", "umol/m2/s", "µmol/m²/s"},
       {},
       -50,
       20000},
      {&record::LogSample::power_factor,
       "power factor",
       {"power factor", "powerfactor", "pf", "cos phi", "cosphi"},
       {},
       -1.5,
       1.5},
      {&record::LogSample::apparent_va,
       "volt-amperes [VA]",
       {"apparent", "va", "volt-amperes", "voltamperes"},
       {{"kva", 1000}},
       0,
       1e5},
      {&record::LogSample::power_w,
       "watts [W]",
       {"watts", "watt", "power", "active", "w"},
       {{"kw", 1000}, {"mw", 0.001}},
       -10,
       1e5},
      {&record::LogSample::voltage_v, "volts [V]", {"volts", "volt", "voltage", "v"}, {{"mv", 0.001}}, 0, 1000},
      {&record::LogSample::current_a,
       "amperes [A]",
       {"amperes", "ampere", "amps", "amp", "current", "a"},
       {{"ma", 0.001}},
       0,
       1000},
      {&record::LogSample::frequency_hz, "hertz [Hz]", {"hertz", "frequency", "freq", "hz"}, {}, 0, 1000}};
  return all;
}

enum class TimeForm { Seconds, Clock, Dated };

struct Columns {
  int row = 0;
  std::size_t count = 0, time = 0;
  std::optional<std::size_t> day;  ///< a date in a column of its own
  double a_unit_s = 1;
  std::string time_words;
  struct Value {
    std::size_t at;
    const Quantity* quantity;
    double factor;
  };
  std::vector<Value> values;
  std::vector<std::size_t> not_ppfd;  ///< light in another quantity
};

std::optional<Columns> columns_in(const std::vector<std::string>& header) {
  Columns c;
  c.count = header.size();
  bool timed = false;
  for (std::size_t i = 0; i < header.size(); ++i) {
    const std::string& h = header[i];
    const bool is_time = header_names(h, "time") || header_names(h, "elapsed") || header_names(h, "timestamp") ||
                         header_names(h, "clock") || header_names(h, "t");
    if (!timed && is_time) {
      timed = true;
      c.time = i;
      const bool minutes = header_names(h, "min") || header_names(h, "minutes"),
                 hours = header_names(h, "h") || header_names(h, "hours"), thousandths = header_names(h, "ms");
      c.a_unit_s = minutes ? 60 : hours ? 3600 : thousandths ? 0.001 : 1;
      c.time_words = minutes ? "minutes" : hours ? "hours" : thousandths ? "milliseconds" : "seconds";
      continue;
    }
    if (header_names(h, "date") || header_names(h, "day")) {
      c.day = i;
      continue;
    }
    for (const Quantity& q : quantities()) {
      const auto unit = std::find_if(q.units.begin(), q.units.end(), [&](auto& u) { return header_names(h, u.first); });
      const bool named = unit != q.units.end() ||
                         std::any_of(q.names.begin(), q.names.end(), [&](auto n) { return header_names(h, n); });
      const bool taken = std::any_of(c.values.begin(), c.values.end(), [&](auto& v) { return v.quantity == &q; });
      if (!named || taken) continue;
      if (q.member == &record::LogSample::light_raw && names_other_quantity(title_words(h))) {
        c.not_ppfd.push_back(i);
        break;
      }
      c.values.push_back({i, &q, unit == q.units.end() ? 1 : unit->second});
      break;
    }
  }
  if (!timed && c.day) timed = true, c.time = *c.day, c.day.reset();
  return timed && !c.values.empty() ? std::optional(c) : std::nullopt;
}

/// Whole numbers with marks between them, such as 09:30:00 or 2026-03-14; the last may have a fraction.
std::optional<std::vector<double>> parts_of(std::string_view text, char mark) {
  std::vector<double> parts;
  for (std::size_t at = 0; at <= text.size();) {
    const auto end = std::min(text.find(mark, at), text.size());
    std::string part(text.substr(at, end - at));
    std::replace(part.begin(), part.end(), ',', '.');
    double value = 0;
    const auto [stop, error] = std::from_chars(part.data(), part.data() + part.size(), value);
    if (error != std::errc{} || stop != part.data() + part.size() || value < 0) return {};
    parts.push_back(value);
    at = end + 1;
  }
  return parts;
}

/// h:mm or h:mm:ss [s].
std::optional<double> clock_s(std::string_view text) {
  const auto p = parts_of(text, ':');
  if (!p || p->size() < 2 || p->size() > 3 || (*p)[1] >= 60 || (p->size() == 3 && (*p)[2] >= 60)) return {};
  return (*p)[0] * 3600 + (*p)[1] * 60 + (p->size() == 3 ? (*p)[2] : 0);
}

/// 2026-03-14 or 14.03.2026, in days since 1970. A date with slashes could be read two ways and is none.
std::optional<double> days(std::string_view text) {
  auto p = parts_of(text, '-');
  if (!p || p->size() != 3) {
    p = parts_of(text, '.');
    if (!p || p->size() != 3) return {};
    std::swap((*p)[0], (*p)[2]);
  }
  const std::chrono::year_month_day date{std::chrono::year(static_cast<int>((*p)[0])),
                                         std::chrono::month(static_cast<unsigned>((*p)[1])),
                                         std::chrono::day(static_cast<unsigned>((*p)[2]))};
  if (!date.ok() || (*p)[0] < 1970 || (*p)[0] > 2200) return {};
  return static_cast<double>(std::chrono::sys_days(date).time_since_epoch().count());
}

/// Date and time in one cell.
std::optional<double> dated_s(std::string text) {
  while (!text.empty() && (text.back() == 'Z' || text.back() == 'z')) text.pop_back();
  const auto cut = text.find_first_of("T ");
  if (cut == text.npos) return {};
  const auto day = days(std::string_view(text).substr(0, cut));
  const auto clock = clock_s(std::string_view(text).substr(cut + 1));
  if (!day || !clock) return {};
  return *day * day_s + *clock;
}

/// Reads the time of one row after the other; the first row decides the form.
class TimeReader {
 public:
  TimeReader(const Columns& columns, const NumberRule& rule) : columns_(columns), rule_(rule) {}

  std::optional<double> read(const std::vector<std::string>& row) {
    const std::string& cell = row[columns_.time];
    std::optional<double> time;
    if (columns_.day) {
      const auto day = days(row[*columns_.day]);
      const auto clock = clock_s(cell);
      if (day && clock) time = *day * day_s + *clock;
      form_ = TimeForm::Dated;
    } else if (form_ == TimeForm::Dated || (!known_ && dated_s(cell))) {
      time = dated_s(cell);
      form_ = TimeForm::Dated;
    } else if (form_ == TimeForm::Clock || (!known_ && clock_s(cell))) {
      form_ = TimeForm::Clock;
      time = clock_s(cell);
      // A clock that goes back by half a day or more has passed midnight.
      if (time && *time + midnights_ * day_s < last_s_ - day_s / 2) ++midnights_;
      if (time) *time += midnights_ * day_s;
    } else if (const auto number = cell_number(cell, rule_)) {
      time = *number * columns_.a_unit_s;
    }
    if (time) known_ = true, last_s_ = *time;
    return time;
  }
  TimeForm form() const { return form_; }

 private:
  const Columns& columns_;
  const NumberRule& rule_;
  TimeForm form_ = TimeForm::Seconds;
  bool known_ = false;
  double last_s_ = -INFINITY;
  int midnights_ = 0;
};

}  // namespace

Result<LogDraft> read_log_table(std::string_view bytes) {
  const auto text = decode_text(bytes);
  if (!text) return text.problem();
  LogDraft draft;
  draft.encoding = text.value().encoding;
  const char separator = guess_separator(text.value().utf8);
  const Rows rows = split_cells(text.value().utf8, separator);
  std::optional<Columns> columns;
  for (std::size_t r = 0; r < rows.size() && r < header_within && !columns; ++r)
    if ((columns = columns_in(rows[r]))) columns->row = static_cast<int>(r);
  if (!columns)
    return Problem{"no row among the first ten names a time and a quantity",
                   "nothing was taken, since a log needs both",
                   "give the table a header row such as: time_s, ppfd, watts"};
  Rows body(rows.begin() + columns->row + 1, rows.end());
  Rows numbers;
  for (const auto& row : body) {
    auto& kept = numbers.emplace_back();
    for (const auto& v : columns->values)
      if (v.at < row.size()) kept.push_back(row[v.at]);
  }
  const NumberRule rule = number_rule(numbers, guess_decimal_mark(numbers), false);
  TimeReader times(*columns, rule);
  const auto found = [&](std::size_t row, std::size_t column, bool refused, std::string words) {
    if (draft.findings.size() < findings_kept)
      draft.findings.push_back(
          {static_cast<int>(row) + columns->row + 2, static_cast<int>(column), refused, std::move(words)});
  };
  for (const std::size_t column : columns->not_ppfd)
    draft.findings.push_back({columns->row + 1, static_cast<int>(column) + 1, true,
                              fmt::format("column {} is '{}', which is not PPFD: it was not taken", column + 1,
                                          rows[static_cast<std::size_t>(columns->row)][column])});
  if (const auto cut = cut_short(text.value().utf8, rows.size())) draft.findings.push_back(*cut);
  int refused = 0;
  for (std::size_t r = 0; r < body.size(); ++r) {
    const auto& row = body[r];
    if (row.empty()) continue;
    if (row.size() != columns->count) {
      found(r, 0, true,
            fmt::format("{} cells where the header has {}: the row was not taken", row.size(), columns->count));
      ++refused;
      continue;
    }
    const auto time = times.read(row);
    if (!time) {
      found(r, columns->time + 1, true,
            fmt::format("'{}' is no time: the row was not taken", row[columns->time].substr(0, 40)));
      ++refused;
      continue;
    }
    if (!draft.samples.empty() && *time <= draft.samples.back().time_s) {
      found(r, columns->time + 1, true, "its time is not later than that of the row before: the row was not taken");
      ++refused;
      continue;
    }
    record::LogSample sample;
    sample.time_s = *time;
    bool any = false;
    for (const auto& v : columns->values) {
      if (row[v.at].empty()) continue;
      const auto number = cell_number(row[v.at], rule);
      const double value = number ? *number * v.factor : record::LogSample::missing;
      if (!number || value < v.quantity->lowest || value > v.quantity->highest) {
        found(r, v.at + 1, true, fmt::format("'{}' was not taken as {}", row[v.at].substr(0, 40), v.quantity->words));
        continue;
      }
      sample.*(v.quantity->member) = value;
      any = true;
    }
    if (any) draft.samples.push_back(sample);
  }
  if (draft.samples.empty())
    return Problem{
        "no row of the log could be taken",
        draft.findings.empty() ? "it has no rows under its header" : "the first says: " + draft.findings.front().words,
        "check that the header names the columns, and how times and numbers are written"};
  draft.dated = times.form() == TimeForm::Dated;
  draft.understood.push_back(draft.dated                       ? "times with their date"
                             : times.form() == TimeForm::Clock ? "times as h:mm:ss"
                                                               : "times in " + columns->time_words + " from the start");
  for (const auto& v : columns->values)
    draft.understood.push_back(fmt::format("column {}: {}{}", v.at + 1, v.quantity->words,
                                           v.factor == 1 ? "" : fmt::format(", times {:g}", v.factor)));
  draft.understood.push_back(fmt::format("{} samples over {:.1f} h, {} rows not taken", draft.samples.size(),
                                         (draft.samples.back().time_s - draft.samples.front().time_s) / 3600, refused));
  return draft;
}

}  // namespace sunbreak::exchange
