#include <fmt/format.h>

#include <cmath>

#include "book/temporary_book.h"
#include "core/figures/figure_table.h"
#include "doors/doors.h"
#include "evaluation/evaluation.h"
#include "exchange/package/verification.h"
#include "exchange/tables/delimited.h"
#include "record/faults.h"
#include "record/kinds.h"
#include "report/html_report.h"

namespace sunbreak::doors {
namespace {

using namespace record;

template <typename T>
const T& any_of(const std::vector<T>& list, Random& random) {
  return list[random() % list.size()];
}

std::string csv_of(const exchange::Rows& rows) {
  std::string csv;
  for (const auto& row : rows) {
    for (std::size_t i = 0; i < row.size(); ++i) {
      std::string cell = "\"";
      for (const char c : row[i]) cell += c == '"' ? std::string("\"\"") : std::string(1, c);
      csv += (i > 0 ? "," : "") + cell + "\"";
    }
    csv += "\r\n";
  }
  return csv;
}

/// Does with a record what the application does: figures, grade, now and then a page and an import.
void use(const TestRecord& record, Random& random) {
  const auto evaluations = evaluation::evaluate_all(record);
  for (const auto& evaluation : evaluations)
    for (const auto& [id, view] : evaluation->views()) {
      const SweepFigures* f = evaluation->figures(id);
      if (f) figure_values(FigureSource(view->layout, view->ppfd, *f));
      evaluation->findings(id);
    }
  if (random() % 40 == 0) report::html_report(evaluations, {});
  if (random() % 40 == 0) {
    book::TemporaryBook book;
    book::add_test(*book, record, "bring in");
  }
}

Case judged(const std::string& family, const std::string& what, bool must_refuse, bool must_take,
            const std::string& place, const exchange::Archive& archive, Random& random) {
  if (also_try) also_try({".zip", exchange::zip_bytes(archive)});
  const auto read = exchange::read_package(archive);
  if (!read) {
    const std::string words = read.problem().sentence();
    // What can be by itself may still contradict another table: then the place of either is one to mend.
    const bool named =
        words.find(must_refuse ? place : ", row ") != std::string::npos || words.find(".csv has ") != std::string::npos;
    return {family, what + " -> " + words,
            must_take ? Outcome::RefusedSound
            : named   ? Outcome::RefusedWithPlace
                      : Outcome::RefusedWithoutPlace};
  }
  exchange::alterations(archive, read.value());
  use(read.value(), random);
  return {family, what, must_refuse ? Outcome::TookImpossible : Outcome::Taken};
}

/// A number in one cell of one table.
Case numeric_cell(const exchange::Archive& sound, Random& random) {
  std::vector<std::pair<const Kind*, const Column*>> columns;
  for (const Kind& kind : kinds())
    for (const Column& c : kind.columns)
      if (kind.facts.published && (c.type == Type::Number || c.type == Type::Integer) && c.refers_to.empty())
        columns.emplace_back(&kind, &c);
  const auto& [kind, column] = any_of(columns, random);
  const bool whole = column->type == Type::Integer;
  const double span = column->most - column->least;
  struct Try {
    std::string text;
    bool impossible;
  };
  const auto number = [&](double v) { return whole ? fmt::format("{:.0f}", v) : fmt::format("{}", v); };
  const std::vector<Try> tries = {{number(column->least - std::max(1.0, 0.01 * span)), true},
                                  {number(column->most + std::max(1.0, 0.01 * span)), true},
                                  {"-1e308", true},
                                  {"1e308", true},
                                  {"nan", true},
                                  {"inf", true},
                                  {"-1e9", true},
                                  {"four", true},
                                  {"99999999999999999999", true},
                                  {number(column->least + 0.4 * span), false},
                                  {number(column->most), false},
                                  {number(column->least), false}};
  const Try& t = any_of(tries, random);
  exchange::Archive archive = sound;
  std::string& csv = archive.at(std::string(kind->name()) + ".csv");
  exchange::Rows rows = exchange::split_verbatim(csv);
  const auto at = static_cast<std::size_t>(std::find(rows[0].begin(), rows[0].end(), column->name) - rows[0].begin());
  const std::size_t row = 1 + random() % (rows.size() - 1);
  const std::string family = t.impossible ? "a number that cannot be" : "a number that can be";
  const std::string what = fmt::format("{}.{} = {}", kind->name(), column->name, t.text);
  rows[row][at] = t.text;
  csv = csv_of(rows);
  // What one column allows another may still forbid (a station its grid has not): only the impossible is sure.
  return judged(family, what, t.impossible, false, std::string(kind->name()), archive, random);
}

Case relation(Random& random) {
  TestRecord broken = whole_test();
  struct Break {
    const char* what;
    const char* table;
    void (*make)(TestRecord&, Random&);
  };
  static const std::vector<Break> breaks = {
      {"two readings of one id", "reading", [](TestRecord& t, Random& r) { t.readings[1 + r() % 20].id = 1; }},
      {"two placements of one station", "placement", [](TestRecord& t, Random&) { t.placements[1].station = 0; }},
      {"a placement of another sweep's reading", "placement",
       [](TestRecord& t, Random& r) { t.placements[r() % 16].reading_id = Id(20 + r() % 30); }},
      {"a placement of no reading", "placement", [](TestRecord& t, Random&) { t.placements[2].reading_id = 999; }},
      {"a sweep without its rung", "sweep", [](TestRecord& t, Random& r) { t.rungs.erase(t.rungs.begin() + r() % 2); }},
      {"a sweep without its stop", "sweep", [](TestRecord& t, Random& r) { t.stops.erase(t.stops.begin() + r() % 2); }},
      {"two sweeps at one height and setting", "sweep", [](TestRecord& t, Random&) { t.sweeps[1].stop_id = 1; }},
      {"a station beyond its grid", "placement",
       [](TestRecord& t, Random& r) { t.placements[15].station = int(16 + r() % 999); }},
      {"a side reading beyond its grid", "side_reading",
       [](TestRecord& t, Random&) { t.side_readings[0].station = 16; }},
      {"a side reading of no sweep", "side_reading", [](TestRecord& t, Random&) { t.side_readings[0].sweep_id = 77; }},
      {"an unknown kind of grid", "sweep", [](TestRecord& t, Random&) { t.sweeps[0].grid_kind = "hexagons"; }},
      {"spots that are none", "sweep", [](TestRecord& t, Random&) { t.sweeps[0].spots = "{}"; }},
      {"an unknown wall", "bench", [](TestRecord& t, Random&) { t.bench.wall_left = "velvet"; }},
      {"a stair reading of no setting", "stair_reading",
       [](TestRecord& t, Random&) { t.stair_readings[0].stair_stop_id = 9; }},
      {"a sensor that is not there", "test", [](TestRecord& t, Random&) { t.test.sensor_id = 40; }},
      {"a band upside down", "test", [](TestRecord& t, Random&) { t.test.target_low_ppfd = 5000; }},
      {"a moment that is none", "reading", [](TestRecord& t, Random&) { t.readings[3].taken_at = "yesterday"; }},
      {"a date that is none", "test", [](TestRecord& t, Random&) { t.test.tested_on = "12/05/2026"; }},
      {"light below the dark", "reading", [](TestRecord& t, Random&) { t.readings[4].raw = -60; }},
      {"a claim of no fixture", "claim", [](TestRecord& t, Random&) { t.claims[0].fixture_id = 12; }}};
  const Break& b = any_of(breaks, random);
  b.make(broken, random);
  // As another program would write it: a package of this one refuses to.
  exchange::Archive archive = exchange::make_package(whole_test());
  for (const TableRows& rows : tables_of(static_cast<const TestRecord&>(broken))) {
    const Kind& kind = rows.kind();
    exchange::Rows cells = exchange::split_verbatim(archive.at(std::string(kind.name()) + ".csv"));
    exchange::Rows out{cells[0]};
    for (std::size_t i = 0; i < rows.size(); ++i) {
      std::vector<std::string> row;
      for (const std::string& name : cells[0]) {
        if (name == "id") {
          row.push_back(std::to_string(kind.id(const_cast<void*>(rows.at(i)))));
          continue;
        }
        const Column& c = *kind.column(name);
        const Value v = c.get(rows.at(i));
        if (const auto* w = std::get_if<std::int64_t>(&v))
          row.push_back(c.type == Type::Boolean ? (*w ? "true" : "false") : std::to_string(*w));
        else if (const auto* d = std::get_if<double>(&v))
          row.push_back(fmt::format("{}", *d));
        else if (const auto* text = std::get_if<std::string_view>(&v))
          row.emplace_back(*text);
        else
          row.emplace_back();
      }
      out.push_back(std::move(row));
    }
    archive[std::string(kind.name()) + ".csv"] = csv_of(out);
  }
  return judged("a relation that does not hold", b.what, true, false, b.table, archive, random);
}

Case columns_and_rows(const exchange::Archive& sound, Random& random) {
  std::vector<std::string> names;
  for (const auto& [name, content] : sound)
    if (name.ends_with(".csv")) names.push_back(name);
  const std::string name = any_of(names, random);
  const bool stated = name == "stations.csv" || name == "figures.csv";  // worked out again, whatever they say
  exchange::Archive archive = sound;
  exchange::Rows rows = exchange::split_verbatim(archive.at(name));
  const std::size_t columns = rows[0].size(), a = random() % columns, b = random() % columns;
  const std::size_t row = 1 + random() % (rows.size() - 1);
  const auto table = name.substr(0, name.size() - 4);
  switch (random() % 7) {
    case 0: {  // swapped with their names: found by name, nothing changes
      for (auto& r : rows) std::swap(r[a], r[b]);
      archive[name] = csv_of(rows);
      return judged("columns in another order", name, false, true, table, archive, random);
    }
    case 1:
      rows[0][a] += "_";
      archive[name] = csv_of(rows);
      return judged("a column renamed", name + "." + rows[0][a], !stated, stated, table, archive, random);
    case 2:
      for (auto& r : rows) r.push_back(r[a]);
      archive[name] = csv_of(rows);
      return judged("a column doubled", name + "." + rows[0][a], !stated, stated, table, archive, random);
    case 3:
      for (auto& r : rows) r.erase(r.begin() + static_cast<std::ptrdiff_t>(a));
      archive[name] = csv_of(rows);
      return judged("a column dropped", name, !stated, stated, table, archive, random);
    case 4:
      rows.push_back(rows[row]);
      archive[name] = csv_of(rows);
      return judged("a row doubled", name, !stated, stated, table == "log_sample" ? "log" : table, archive, random);
    case 5:
      rows[row].pop_back();
      archive[name] = csv_of(rows);
      return judged("a row cut short", name, !stated, stated, table, archive, random);
    default:
      // A row may be missed by others, or by nothing but a count: what is taken is still sound.
      rows.erase(rows.begin() + static_cast<std::ptrdiff_t>(row));
      archive[name] = csv_of(rows);
      return judged("a row dropped", name, false, false, "", archive, random);
  }
}

}  // namespace

Case try_package(const exchange::Archive& sound, Random& random) {
  switch (random() % 10) {
    case 0:
    case 1:
      return relation(random);
    case 2:
    case 3:
    case 4:
      return columns_and_rows(sound, random);
    default:
      return numeric_cell(sound, random);
  }
}

Case package_case(Random& random) {
  static const exchange::Archive sound = exchange::make_package(whole_test());
  return try_package(sound, random);
}

}  // namespace sunbreak::doors
