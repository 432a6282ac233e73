#include "record/faults.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>
#include <set>
#include <unordered_map>
#include <unordered_set>

#include "core/figures/serving_rule.h"
#include "core/sweep/correction.h"
#include "record/claim_kinds.h"
#include "record/fact_sheet.h"
#include "record/kinds.h"
#include "record/picture_files.h"
#include "record/plan_grid.h"
#include "record/spectrum_samples.h"
#include "record/utc.h"

namespace sunbreak::record {
namespace {

constexpr std::size_t longest_shown = 40, first_named = 3, most_lamp_stations = 9;

std::string shown(const Value& value) {
  struct Show {
    std::string operator()(std::monostate) const { return ""; }
    std::string operator()(std::int64_t v) const { return std::to_string(v); }
    std::string operator()(double v) const { return fmt::format("{}", v); }
    std::string operator()(std::string_view v) const { return std::string(v.substr(0, longest_shown)); }
  };
  return std::visit(Show{}, value);
}

bool is_date(std::string_view text) {
  int year = 0, month = 0, day = 0;
  const auto number = [&](std::size_t at, std::size_t count, int& into) {
    const char* end = text.data() + at + count;
    return std::from_chars(text.data() + at, end, into).ptr == end;
  };
  if (text.size() != 10 || text[4] != '-' || text[7] != '-' || !number(0, 4, year) || !number(5, 2, month) ||
      !number(8, 2, day))
    return false;
  constexpr int days[] = {31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31};
  const bool leap = (year % 4 == 0 && year % 100 != 0) || year % 400 == 0;
  return year >= 1900 && year < 2100 && month >= 1 && month <= 12 && day >= 1 &&
         day <= days[month - 1] + (leap && month == 2 ? 1 : 0);
}

/// Collects faults of one test's record.
class Search {
 public:
  Search(const TestRecord& record, std::size_t most, const DamagedRows& damaged = {})
      : record_(record), tables_(tables_of(record)), most_(most), damaged_(damaged) {}

  std::vector<Fault> run() {
    values();
    references();
    sweeps();
    stations();
    plan();
    sheet();
    claims();
    pictures();
    if (!damaged_.empty()) damages();
    return std::move(faults_);
  }

  /// Rows that are part of no sweep and whose values would enter what is worked out beside sweeps, by table.
  const std::map<std::string, std::set<std::size_t>>& loose_rows() const { return loose_rows_; }

 private:
  /// However many faults are told, each sweep that one of them would enter is named by one.
  void add(std::string_view table, std::size_t row, std::string_view column, const std::string& value,
           const std::string& expected, Id sweep_id, bool of_all = false, bool enters_figures = true) {
    const bool names_more = (of_all && !names_all_) || (sweep_id != 0 && named_.insert(sweep_id).second);
    names_all_ = names_all_ || of_all;
    if (sweep_id == 0 && !of_all && enters_figures) loose_rows_[std::string(table)].insert(row - 1);
    if (faults_.size() < most_ || names_more)
      faults_.push_back({std::string(table), row, std::string(column), value, expected, sweep_id, of_all});
  }

  /// The sweep a row's values enter, and whether they enter all sweeps.
  std::pair<Id, bool> reach(const Kind& kind, const void* row) const {
    const std::string_view name = kind.name();
    if (name == "sweep") return {kind.id(const_cast<void*>(row)), false};
    if (name == "bench" || name == "test" || name == "meter" || name == "rung" || name == "stop") return {0, true};
    if (const Column* column = kind.column("sweep_id"))
      if (const Value value = column->get(row); std::holds_alternative<Id>(value)) return {std::get<Id>(value), false};
    return {0, false};
  }

  /// Dates and remarks enter no figure.
  static bool enters_figures(const Column& c) { return c.type != Type::Text || !c.words.empty(); }

  /// Rows that are not as they were written, but for those that tell so by a value that cannot be.
  void damages() {
    std::set<std::pair<std::string_view, std::size_t>> told;
    for (const Fault& fault : faults_) told.emplace(fault.table, fault.row);
    for (const TableRows& rows : tables_) {
      const Kind& kind = rows.kind();
      for (std::size_t i = 0; i < rows.size(); ++i) {
        if (!damaged_.contains({kind.name(), kind.id(const_cast<void*>(rows.at(i)))})) continue;
        if (told.contains({kind.name(), i + 1})) continue;
        const auto [sweep, all] = reach(kind, rows.at(i));
        add(kind.name(), i + 1, "", "", "", sweep, all || rows.single());
      }
    }
  }

  void values() {
    for (const TableRows& rows : tables_) {
      const Kind& kind = rows.kind();
      for (std::size_t i = 0; i < rows.size(); ++i)
        for (const Column& column : kind.columns) {
          if (column.type == Type::Bytes) continue;
          const Value value = column.get(rows.at(i));
          const auto expected = value_fault(column, value);
          if (!expected) continue;
          const auto [sweep, all] = reach(kind, rows.at(i));
          if (enters_figures(column))
            add(kind.name(), i + 1, column.name, shown(value), *expected, sweep, all);
          else
            add(kind.name(), i + 1, column.name, shown(value), *expected, 0, false, false);
        }
    }
  }

  void references() {
    std::map<std::string_view, std::unordered_set<Id>> ids;
    for (const TableRows& rows : tables_) {
      const Kind& kind = rows.kind();
      auto& own = ids[kind.name()];
      own.reserve(rows.size());
      for (std::size_t i = 0; i < rows.size(); ++i) {
        const Id id = kind.id(const_cast<void*>(rows.at(i)));
        if (own.insert(id).second) continue;
        const auto [sweep, all] = reach(kind, rows.at(i));
        add(kind.name(), i + 1, "id", std::to_string(id), "an id that stands once in its table", sweep, all);
      }
    }
    for (const TableRows& rows : tables_) {
      const Kind& kind = rows.kind();
      for (const Column& column : kind.columns) {
        if (column.refers_to.empty()) continue;
        const auto known = ids.find(column.refers_to);
        for (std::size_t i = 0; known != ids.end() && i < rows.size(); ++i) {
          const Value value = column.get(rows.at(i));
          if (!std::holds_alternative<Id>(value) || known->second.contains(std::get<Id>(value))) continue;
          const auto [sweep, all] = reach(kind, rows.at(i));
          add(kind.name(), i + 1, column.name, shown(value), "the id of a " + column.refers_to + " of this test", sweep,
              all);
        }
      }
    }
  }

  /// Sweeps have a rung and a stop of their own, and a grid that can be laid out.
  void sweeps() {
    std::set<std::pair<Id, Id>> taken;
    std::unordered_set<Id> read;
    if (walked_by_lux(record_))
      for (const Placement& p : record_.placements)
        if (p.reading_id) read.insert(p.sweep_id);
    for (std::size_t i = 0; i < record_.sweeps.size(); ++i) {
      const Sweep& s = record_.sweeps[i];
      if (!taken.emplace(s.rung_id, s.stop_id).second)
        add("sweep", i + 1, "stop_id", std::to_string(s.stop_id), "one sweep a height and setting", s.id);
      const Rung* rung = record_.rung(s.rung_id);
      const Stop* stop = record_.stop(s.stop_id);
      if (rung && stop && rung->configuration_id != stop->configuration_id)
        add("sweep", i + 1, "stop_id", std::to_string(s.stop_id), "a setting of its height's configuration", s.id);
      check_grid("sweep", i + 1, s, s.id, false);
      if (walked_by_lux(record_) && !s.lux_k && read.contains(s.id))
        add("sweep", i + 1, "lux_k", "", "what makes PPFD of its lux, since its meter is a lux meter", s.id);
      stations_of_[s.id] = grid_size(s);
      corrections_[s.id] = correction_of(s);
    }
  }

  template <typename Plan>
  std::size_t grid_size(const Plan& plan) const {
    const Grid grid = grid_of(plan);
    return grid.kind == GridKind::Spots
               ? grid.spots.size()
               : static_cast<std::size_t>(std::max(grid.columns, 0)) * static_cast<std::size_t>(std::max(grid.rows, 0));
  }

  template <typename Plan>
  void check_grid(const char* table, std::size_t row, const Plan& plan, Id sweep_id, bool of_all) {
    if (!plan.spots.empty() && !spots_are_sound(plan.spots))
      return add(table, row, "spots", plan.spots.substr(0, longest_shown), "a JSON list of {name, x_m, y_m}", sweep_id,
                 of_all);
    // What a bench, columns or words are out of is told by their own column.
    if (std::any_of(faults_.begin(), faults_.end(),
                    [&](const Fault& f) { return f.table == "bench" || (f.table == table && f.row == row); }))
      return;
    if (const auto layout = lay_out(footprint_of(record_.bench), grid_of(plan)); !layout)
      add(table, row, "grid_kind", plan.grid_kind,
          "a grid that can be laid out on the bench (" + layout.problem().seen + ")", sweep_id, of_all);
  }

  void stations() {
    std::unordered_map<Id, const Reading*> readings;
    readings.reserve(record_.readings.size());
    for (const Reading& r : record_.readings) readings.emplace(r.id, &r);
    const auto on_grid = [&](const char* table, std::size_t row, Id sweep_id, int station) {
      const auto count = stations_of_.find(sweep_id);
      if (count != stations_of_.end() && static_cast<std::size_t>(station) >= count->second)
        add(table, row, "station", std::to_string(station),
            count->second == 0 ? "no station, since its grid has none"
                               : fmt::format("0 to {}, as its grid has", count->second - 1),
            sweep_id);
    };
    const Column& raw_column = *kind_of<Reading>().column("raw");
    const auto light = [&](const char* table, std::size_t row, Id sweep_id, double raw) {
      const auto correction = corrections_.find(sweep_id);
      if (correction == corrections_.end() || value_fault(raw_column, raw))
        return;  // what no column holds is told there
      if (const auto fault = light_fault(raw, correction->second))
        add(table, row, "raw", fault->value, fault->expected, sweep_id);
    };
    std::unordered_set<std::uint64_t> placed;
    placed.reserve(record_.placements.size());
    for (std::size_t i = 0; i < record_.placements.size(); ++i) {
      const Placement& p = record_.placements[i];
      if (!placed.insert(static_cast<std::uint64_t>(p.sweep_id) << 32 | static_cast<std::uint32_t>(p.station)).second)
        add("placement", i + 1, "station", std::to_string(p.station), "one placement a station", p.sweep_id);
      on_grid("placement", i + 1, p.sweep_id, p.station);
      if (!p.reading_id) continue;
      const auto found = readings.find(*p.reading_id);
      if (found == readings.end()) continue;  // told among the references
      if (found->second->sweep_id != p.sweep_id || found->second->station != p.station)
        add("placement", i + 1, "reading_id", std::to_string(*p.reading_id), "a reading of its own sweep and station",
            p.sweep_id);
      light("reading", static_cast<std::size_t>(found->second - record_.readings.data()) + 1, p.sweep_id,
            found->second->raw);
    }
    for (std::size_t i = 0; i < record_.side_readings.size(); ++i) {
      const SideReading& s = record_.side_readings[i];
      on_grid("side_reading", i + 1, s.sweep_id, s.station);
      light("side_reading", i + 1, s.sweep_id, s.raw);
    }
    const std::size_t planned = grid_size(record_.test);
    for (std::size_t i = 0; i < record_.stair_readings.size(); ++i)
      if (const int station = record_.stair_readings[i].station; static_cast<std::size_t>(station) >= planned)
        add("stair_reading", i + 1, "station", std::to_string(station), "a station of the plan's grid", 0);
  }

  void plan() {
    const Test& t = record_.test;
    check_grid("test", 1, t, 0, false);
    if (t.target_low_ppfd > t.target_high_ppfd)
      add("test", 1, "target_low_ppfd", fmt::format("{}", t.target_low_ppfd), "at most the band's high end", 0, true);
    for (std::size_t i = 0; i < record_.spectra.size(); ++i)
      if (const auto spectrum = spectrum_of(record_.spectra[i]); !spectrum)
        add("spectrum", i + 1, "light", record_.spectra[i].light.substr(0, longest_shown),
            "a number for each wavelength, and wavelengths that rise (" + spectrum.problem().seen + ")", 0);
    for (std::size_t i = 0; i < record_.lux_factors.size(); ++i) {
      const FittedLuxFactor& f = record_.lux_factors[i];
      if (!f.wavelengths_nm.empty() && !light_of(f))
        add("lux_factor", i + 1, "photons", f.photons.substr(0, longest_shown), "photons for each wavelength", 0);
      if (f.lowest_lux > f.highest_lux)
        add("lux_factor", i + 1, "lowest_lux", fmt::format("{}", f.lowest_lux), "at most the highest level", 0);
    }
    for (std::size_t i = 0; i < record_.check_readings.size(); ++i) {
      const CheckLampReading& r = record_.check_readings[i];
      const auto light = numbers_of(r.light);
      if (!light || light->empty() || light->size() > most_lamp_stations ||
          !std::ranges::all_of(*light, [](double v) { return v > 0 && v <= most_ppfd; }))
        add("check_reading", i + 1, "light", r.light.substr(0, longest_shown),
            "one to nine numbers over 0, with a blank between", 0);
    }
    for (std::size_t i = 0; i < record_.meters.size(); ++i) {
      const Meter& m = record_.meters[i];
      if (!m.response_nm.empty() && !response_of(m))
        add("meter", i + 1, "response", m.response.substr(0, longest_shown), "its response at each wavelength", 0,
            false, false);
      if (!m.reference_light_nm.empty() && !reference_light_of(m))
        add("meter", i + 1, "reference_light", m.reference_light.substr(0, longest_shown), "photons at each wavelength",
            0, false, false);
    }
    for (std::size_t i = 0; i < record_.settlings.size(); ++i)
      if (const std::string& rule = record_.settlings[i].rule; !parse_serving_rule(rule))
        add("settling", i + 1, "rule", rule.substr(0, longest_shown),
            "edge, every, share:90, mean, corners:600 or center:800", 0);
    for (std::size_t i = 0; i < record_.card_rows.size(); ++i)
      if (const CardRow& row = record_.card_rows[i]; row.low_ppfd > row.high_ppfd)
        add("card_row", i + 1, "low_ppfd", fmt::format("{}", row.low_ppfd), "at most the band's high end", 0);
  }

  /// Facts hold what their name allows, one a name and source.
  void sheet() {
    std::set<std::pair<std::string_view, std::string_view>> told;
    for (std::size_t i = 0; i < record_.box_facts.size(); ++i) {
      const BoxFact& fact = record_.box_facts[i];
      if (const auto expected = fact_fault(fact))
        add("box_fact", i + 1, fact_kind(fact.name) ? "value" : "name",
            !fact_kind(fact.name) ? fact.name.substr(0, longest_shown)
            : fact.value          ? fmt::format("{}", *fact.value)
                                  : fact.words.substr(0, longest_shown),
            *expected, 0);
      else if (!told.emplace(fact.name, fact.source).second)
        add("box_fact", i + 1, "name", fact.name, "one fact a name and source", 0);
    }
  }

  /// Claims hold what their kind allows.
  void claims() {
    for (std::size_t i = 0; i < record_.claims.size(); ++i)
      if (const auto expected = claim_fault(record_.claims[i]))
        add("claim", i + 1, "kind", claim_words(record_.claims[i], UnitSystem::Metric).substr(0, longest_shown),
            *expected, 0);
  }

  /// A file is found by its digest.
  void pictures() {
    const auto check = [&](const char* table, const auto& rows) {
      for (std::size_t i = 0; i < rows.size(); ++i)
        if (!is_digest(rows[i].digest))
          add(table, i + 1, "digest", rows[i].digest.substr(0, longest_shown), "64 hexadecimal digits", 0);
    };
    check("fixture_picture", record_.fixture_pictures);
    check("picture", record_.pictures);
  }

  const TestRecord& record_;
  const std::vector<TableRows> tables_;
  std::size_t most_;
  const DamagedRows damaged_;
  std::vector<Fault> faults_;
  std::set<Id> named_;
  bool names_all_ = false;
  std::map<std::string, std::set<std::size_t>> loose_rows_;
  std::unordered_map<Id, std::size_t> stations_of_;
  std::unordered_map<Id, Correction> corrections_;
};

}  // namespace

std::string Fault::words() const {
  if (column.empty())
    return fmt::format("{}{} is not as it was written: the file has changed by itself or by another program", table,
                       row > 0 ? fmt::format(", row {},", row) : "");
  return fmt::format("{}{}, column {}: '{}'; expected {}", table, row > 0 ? fmt::format(", row {}", row) : "", column,
                     value, expected);
}

std::string allowed_words(const Column& c) {
  std::string words;
  if (!c.words.empty()) {
    for (const std::string& word : c.words) words += (words.empty() ? "" : ", ") + word;
    return words;
  }
  if (c.time == Column::Date) return "a date such as 2026-03-14";
  if (c.time == Column::Moment) return "a moment in UTC such as 2026-03-14T09:30:00.000Z";
  if (c.type != Type::Number && c.type != Type::Integer) return words;
  const bool bounded = std::isfinite(c.least) || std::isfinite(c.most);
  words = bounded                   ? fmt::format("{} to {}", c.least, c.most)
          : c.type == Type::Integer ? "a whole number"
                                    : "a finite number";
  if (!c.unit.empty()) words += " " + c.unit;
  return words;
}

std::optional<std::string> value_fault(const Column& c, const Value& value) {
  const auto outside = [&](double v) { return !(std::isfinite(v) && v >= c.least && v <= c.most); };
  bool bad = false;
  if (const auto* whole = std::get_if<std::int64_t>(&value))
    bad = c.type == Type::Integer || c.type == Type::Number ? outside(static_cast<double>(*whole)) : false;
  else if (const auto* number = std::get_if<double>(&value))
    bad = outside(*number);
  else if (const auto* text = std::get_if<std::string_view>(&value); text && !text->empty()) {
    if (!c.words.empty())
      bad = std::find(c.words.begin(), c.words.end(), *text) == c.words.end();
    else if (c.time == Column::Date)
      bad = !is_date(*text);
    else if (c.time == Column::Moment) {
      const double moment = seconds_of(std::string(*text));
      bad = !(moment >= first_moment_s && moment < last_moment_s);
    }
  }
  return bad ? std::optional(allowed_words(c)) : std::nullopt;
}

std::optional<Fault> row_fault(const Kind& kind, const void* row) {
  for (const Column& column : kind.columns) {
    if (column.type == Type::Bytes) continue;
    const Value value = column.get(row);
    if (const auto expected = value_fault(column, value))
      return Fault{std::string(kind.name()), 0, column.name, shown(value), *expected};
  }
  return {};
}

std::vector<Fault> faults_of(const TestRecord& record, std::size_t most) { return Search(record, most).run(); }

namespace {

/// Test, fixture and bench name nothing of these kinds that is not there.
void forget_lost(TestRecord& record, const std::set<std::string, std::less<>>& kinds) {
  std::map<std::string, std::set<Id>, std::less<>> there;
  for (TableRows& rows : tables_of(record))
    if (kinds.contains(rows.kind().name()))
      for (std::size_t i = 0; i < rows.size(); ++i)
        there[std::string(rows.kind().name())].insert(rows.kind().id(rows.at(i)));
  for (TableRows& rows : tables_of(record)) {
    if (!rows.single()) continue;
    for (const Column& column : rows.kind().columns) {
      if (!kinds.contains(column.refers_to)) continue;
      const Value id = column.get(rows.at(0));
      if (const auto* named = std::get_if<std::int64_t>(&id); named && !there[column.refers_to].contains(*named))
        column.set(rows.at(0), Value{});
    }
  }
}

}  // namespace

void set_apart(TestRecord& record, const DamagedRows& damaged) {
  record.faults.clear();
  std::set<std::string, std::less<>> lost;
  // What refers to a row that was left out goes with it.
  for (bool left_out = true; left_out;) {
    left_out = false;
    Search search(record, faults_told, damaged);
    auto faults = search.run();
    if (record.faults.empty()) record.faults = std::move(faults);
    for (TableRows& rows : tables_of(record)) {
      const auto loose = search.loose_rows().find(std::string(rows.kind().name()));
      if (rows.single() || loose == search.loose_rows().end()) continue;
      left_out = true;
      lost.emplace(rows.kind().name());
      for (auto row = loose->second.rbegin(); row != loose->second.rend(); ++row) rows.erase(*row);
    }
    forget_lost(record, lost);
  }
}

Problem refusal(const std::vector<Fault>& faults, const std::string& what) {
  std::string seen = what + " holds what cannot be: ";
  for (std::size_t i = 0; i < std::min(faults.size(), first_named); ++i)
    seen += (i > 0 ? "; " : "") + faults[i].words();
  if (faults.size() > first_named) seen += fmt::format("; and {} more", faults.size() - first_named);
  return {seen, "nothing was taken from it", "ask for the file again, or mend that place"};
}

std::optional<Fault> light_fault(double raw, const Correction& correction) {
  const double ppfd = corrected_ppfd(raw, correction);
  if (ppfd >= least_ppfd && ppfd <= most_ppfd) return {};
  return Fault{"reading", 0, "raw", fmt::format("{}", raw),
               fmt::format("light of {} to {} umol/m2/s once corrected, not {:.6g}", least_ppfd, most_ppfd, ppfd)};
}

ImpossibleRow::ImpossibleRow(const Fault& fault)
    : sentence_(fmt::format("'{}' cannot be in {} of a {}; expected {}", fault.value, fault.column, fault.table,
                            fault.expected)) {}

}  // namespace sunbreak::record
