#include "book/package/data_package.h"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>
#include <stdexcept>

#include "book/import/delimited.h"
#include "book/judgement.h"
#include "book/package/cell_values.h"
#include "book/package/csv_writer.h"
#include "book/package/log_samples.h"
#include "core/figures/definitions.h"
#include "core/quantity/number.h"

namespace sunbreak::book {
namespace {

using nlohmann::ordered_json;

ordered_json field(const char* name, const char* type, const char* meaning) {
  return {{"name", name}, {"type", type}, {"description", meaning}};
}

ordered_json resource(const std::string& name, ordered_json fields, bool has_id) {
  ordered_json schema{{"fields", std::move(fields)}, {"missingValues", {""}}};
  if (has_id) schema["primaryKey"] = "id";
  return {{"name", name},
          {"path", name + ".csv"},
          {"profile", "tabular-data-resource"},
          {"format", "csv"},
          {"mediatype", "text/csv"},
          {"encoding", "utf-8"},
          {"schema", std::move(schema)}};
}

/// A column as the descriptor tells it.
struct FieldText {
  const char *name, *type, *meaning;
};

void add_resource(ordered_json& resources, const char* name, const std::vector<FieldText>& columns) {
  ordered_json fields = ordered_json::array();
  for (const FieldText& c : columns) fields.push_back(field(c.name, c.type, c.meaning));
  resources.push_back(resource(name, std::move(fields), true));
}

template <typename Record>
void add_table(Archive& archive, ordered_json& resources, const std::vector<Record>& records) {
  std::vector<FieldText> columns{{"id", "integer", "number of the row, unique in its table"}};
  for_each_column<Record>([&]<typename R, typename V>(const Column<R, V>& c) {
    if constexpr (!std::is_same_v<V, Bytes>) columns.push_back({c.name, field_type(V()), c.meaning});
  });
  add_resource(resources, Table<Record>::name, columns);
  std::string& csv = archive[std::string(Table<Record>::name) + ".csv"];
  for (const FieldText& column : columns) append_name(csv, column.name, ",", "");
  csv += "\r\n";
  for (const Record& record : records) {
    csv += std::to_string(record.id);
    for_each_column<Record>([&]<typename R, typename V>(const Column<R, V>& c) {
      if constexpr (!std::is_same_v<V, Bytes>) append_cell(csv, record.*(c.member));
    });
    csv += "\r\n";
  }
}

template <typename Record>
constexpr int first_format_of() {
  const auto is_one_of = []<typename... Others>(std::type_identity<Others>...) {
    return (std::is_same_v<Record, Others> || ...);
  };
  if (is_one_of(std::type_identity<LogPart>{}, std::type_identity<LampEvent>{}, std::type_identity<StairStop>{},
                std::type_identity<StairReading>{}, std::type_identity<TargetSetting>{},
                std::type_identity<Temperature>{}))
    return 3;
  return is_one_of(std::type_identity<SideReading>{}, std::type_identity<Dismissal>{}) ? 2 : 1;
}

/// Columns that packages of earlier formats lack.
bool came_later(std::string_view table, std::string_view column) {
  static constexpr std::pair<std::string_view, std::string_view> later[] = {{"fixture", "units"},
                                                                            {"fixture", "unit_spacing_m"},
                                                                            {"fixture", "unit_tilt_deg"},
                                                                            {"fixture", "emitter_spacing_m"},
                                                                            {"fixture", "emitters_across"},
                                                                            {"fixture", "emitters_deep"},
                                                                            {"fixture", "beam_angle_deg"},
                                                                            {"test", "tape_from"},
                                                                            {"test", "canopy_height_m"},
                                                                            {"test", "walk_order"},
                                                                            {"test", "opening_probe"},
                                                                            {"test", "reference_every"},
                                                                            {"test", "samples_a_reading"},
                                                                            {"test", "seconds_a_reading"},
                                                                            {"test", "warm_up_min"},
                                                                            {"test", "checked_level"},
                                                                            {"test", "checked_center"},
                                                                            {"test", "checked_height"},
                                                                            {"test", "checked_fans"},
                                                                            {"reading", "samples"},
                                                                            {"reading", "spread"},
                                                                            {"test", "circuit_a"},
                                                                            {"test", "tariff_per_kwh"},
                                                                            {"test", "tariff_currency"},
                                                                            {"test", "target_by_daily_light"},
                                                                            {"test", "height_uncertainty_m"},
                                                                            {"test", "position_uncertainty_m"},
                                                                            {"test", "edge_uncertainty_m"},
                                                                            {"test", "spectral_uncertainty_pct"},
                                                                            {"test", "cosine_uncertainty_pct"},
                                                                            {"wall_reading", "test_id"},
                                                                            {"wall_reading", "light_raw"}};
  return std::find(std::begin(later), std::end(later), std::pair(table, column)) != std::end(later);
}

/// A table of the package, to be read cell by cell; throws std::runtime_error with the place of the first thing that is
/// not as it should be.
class TableReader {
 public:
  TableReader(const std::string& table, const std::string& csv, int format)
      : table_(table), rows_(split_verbatim(csv)), format_(format) {
    if (rows_.empty()) throw std::runtime_error(fmt::format("{}.csv is empty", table_));
  }

  /// Goes on to the next row that holds something; false after the last.
  bool next() {
    while (++row_ < rows_.size() && rows_[row_].empty()) {
    }
    if (row_ >= rows_.size()) return false;
    if (rows_[row_].size() != rows_[0].size())
      throw std::runtime_error(
          fmt::format("{}.csv, row {}: {} cells, not {}", table_, row_ + 1, rows_[row_].size(), rows_[0].size()));
    return true;
  }

  /// The row's cell of a column; none where the column came with a later format than the package's.
  const std::string* cell(const char* column) const {
    for (std::size_t i = 0; i < rows_[0].size(); ++i)
      if (rows_[0][i] == column) return &rows_[row_][i];
    if (format_ < package_format && came_later(table_, column)) return nullptr;
    throw std::runtime_error(fmt::format("{}.csv has no column '{}'", table_, column));
  }

  [[noreturn]] void refuse(const char* column, const std::string& cell) const {
    throw std::runtime_error(
        fmt::format("{}.csv, row {}, column {}: '{}' cannot be read", table_, row_ + 1, column, cell.substr(0, 40)));
  }

 private:
  std::string table_;
  Rows rows_;
  int format_;
  std::size_t row_ = 0;
};

/// Reads a table back. Tables and columns that came with a later format than the package's keep what they are by
/// default.
template <typename Record>
std::vector<Record> take_table(const Archive& archive, int format) {
  const auto member = archive.find(std::string(Table<Record>::name) + ".csv");
  if (member == archive.end() && format < first_format_of<Record>()) return {};
  if (member == archive.end()) throw std::runtime_error(fmt::format("{}.csv is not in it", Table<Record>::name));
  std::vector<Record> records;
  TableReader reader(Table<Record>::name, member->second, format);
  while (reader.next()) {
    Record& record = records.emplace_back();
    const auto take = [&](const char* column, auto& value) {
      const std::string* cell = reader.cell(column);
      if (cell && !from_cell(*cell, value)) reader.refuse(column, *cell);
    };
    take("id", record.id);
    for_each_column<Record>([&]<typename R, typename V>(const Column<R, V>& c) {
      if constexpr (!std::is_same_v<V, Bytes>) take(c.name, record.*(c.member));
    });
  }
  return records;
}

template <typename Record>
Record take_one(const Archive& archive, int format) {
  auto records = take_table<Record>(archive, format);
  if (records.size() != 1)
    throw std::runtime_error(fmt::format("{}.csv has {} rows, not one", Table<Record>::name, records.size()));
  return records.front();
}

const char* state_name(const StationState& state) {
  return state.kind == StationState::Read ? "read" : state.kind == StationState::Missing ? "missing" : "untouched";
}

std::string station_rows(const TestBundle& bundle, bool for_spreadsheet) {
  std::string csv =
      for_spreadsheet
          ? "height_cm,dimmer_pct,row_from_door,column_from_left,x_cm,y_cm,raw,ppfd_umol_m2_s,state,station_name\r\n"
          : "sweep_id,height_m,dimmer_pct,station,x_m,y_m,raw,ppfd_umol_m2_s,state\r\n";
  for (const Sweep& sweep : bundle.sweeps) {
    const auto view = view_sweep(bundle, sweep);
    if (!view) continue;
    const double height_m = bundle.rung(sweep.rung_id)->height_m, percent = bundle.stop(sweep.stop_id)->percent;
    for (std::size_t i = 0; i < view.value().states.size(); ++i) {
      const Station& s = view.value().layout.stations[i];
      const StationState& state = view.value().states[i];
      const std::string raw = state.kind == StationState::Read ? number_cell(state.raw) : "",
                        ppfd = number_cell(view.value().ppfd[i]);
      if (for_spreadsheet)
        csv +=
            fmt::format("{:.6g},{:.6g},{},{},{:.6g},{:.6g},{},{},{},{}\r\n", height_m * 100, percent, s.row + 1,
                        s.column + 1, s.x_m * 100, s.y_m * 100, raw, ppfd, state_name(state), spreadsheet_cell(s.name));
      else
        csv += fmt::format("{},{},{},{},{},{},{},{},{}\r\n", sweep.id, number_cell(height_m), number_cell(percent), i,
                           number_cell(s.x_m), number_cell(s.y_m), raw, ppfd, state_name(state));
    }
  }
  return csv;
}

std::string figure_rows(const TestBundle& bundle) {
  std::string csv = "sweep_id,figure,value,expanded_k2,unit,formula\r\n";
  const SweepViews views = views_of(bundle);
  for (const Sweep& sweep : bundle.sweeps) {
    const auto view = views.find(sweep.id);
    if (view == views.end()) continue;
    const auto f = sweep_figures(view->second.layout, view->second.ppfd, figure_context(bundle, sweep, {}));
    if (!f) continue;
    const Budget budget = uncertainty_budget(budget_question(bundle, sweep, view->second, views));
    const auto row = [&](const char* id, double value) {
      const FigureDefinition& d = figure_definition(id);
      const double expanded = budget.expanded(id);
      csv += fmt::format("{},{},{},{},{},{}\r\n", sweep.id, id, number_cell(value),
                         std::isfinite(expanded) ? number_cell(expanded) : "",
                         quoted_cell(d.unit == "%" ? "1" : d.unit), quoted_cell(d.formula));
    };
    row("mean_ppfd", f->mean_ppfd);
    row("lowest_ppfd", f->lowest.ppfd);
    row("highest_ppfd", f->highest.ppfd);
    row("median_ppfd", f->median_ppfd);
    row("p5_ppfd", f->p5_ppfd);
    row("p95_ppfd", f->p95_ppfd);
    row("sd_ppfd", f->sd_ppfd);
    row("cv", f->cv);
    row("ppf_umol_s", f->ppf_umol_s);
    if (f->power_w) row("power_w", *f->power_w);
    if (f->efficacy) {
      row("canopy_efficacy_umol_j", f->efficacy->canopy_efficacy_umol_j);
      row("ppfd_per_watt", f->efficacy->ppfd_per_watt);
      row("power_density_w_m2", f->efficacy->power_density_w_m2);
    }
    row("lowest_over_mean", f->evenness.lowest_over_mean);
    row("lowest_over_highest", f->evenness.lowest_over_highest);
    row("highest_over_lowest", f->evenness.highest_over_lowest);
    row("p5_over_mean", f->evenness.p5_over_mean);
    row("dli_mean_mol_m2_d", f->dli_mean_mol_m2_d);
    if (f->coverage) row("coverage", f->coverage->in_band_share);
  }
  return csv;
}

}  // namespace

Archive make_package(const TestBundle& original) {
  const TestBundle b = with_plain_ids(original);
  Archive archive;
  ordered_json resources = ordered_json::array();
  add_table<Fixture>(archive, resources, {b.fixture});
  add_table<Claim>(archive, resources, b.claims);
  add_table<Bench>(archive, resources, {b.bench});
  add_table<Meter>(archive, resources, b.meters);
  add_table<Test>(archive, resources, {b.test});
  add_table<Rung>(archive, resources, b.rungs);
  add_table<Stop>(archive, resources, b.stops);
  add_table<Sweep>(archive, resources, b.sweeps);
  add_table<Reading>(archive, resources, b.readings);
  add_table<Placement>(archive, resources, b.placements);
  add_table<WallReading>(archive, resources, b.wall_readings);
  add_table<SideReading>(archive, resources, b.side_readings);
  add_table<Dismissal>(archive, resources, b.dismissals);
  add_table<LogPart>(archive, resources, b.log_parts);
  add_table<LampEvent>(archive, resources, b.lamp_events);
  add_table<StairStop>(archive, resources, b.stair_stops);
  add_table<StairReading>(archive, resources, b.stair_readings);
  add_table<TargetSetting>(archive, resources, b.target_settings);
  add_table<Temperature>(archive, resources, b.temperatures);
  archive["log_sample.csv"] = log_samples_csv(b.log_parts);
  resources.push_back(resource(
      "log_sample",
      {field("log_part_id", "integer", "the part of the log"), field("time_s", "number", "when [s since 1970, UTC]"),
       field("light_raw", "number", "light at the reference station [umol/m2/s before correction]"),
       field("power_w", "number", "real power [W]"), field("voltage_v", "number", "voltage [V]"),
       field("current_a", "number", "current [A]"), field("apparent_va", "number", "apparent power [VA]"),
       field("power_factor", "number", "power factor"), field("frequency_hz", "number", "frequency [Hz]")},
      false));
  archive["stations.csv"] = station_rows(b, false);
  resources.push_back(resource(
      "stations",
      {field("sweep_id", "integer", "the sweep"), field("height_m", "number", "hanging height [m]"),
       field("dimmer_pct", "number", "dimmer setting [%]"), field("station", "integer", "station index"),
       field("x_m", "number", "place from the left wall [m]"), field("y_m", "number", "place from the door [m]"),
       field("raw", "number", "the reading that counts, as read"),
       field("ppfd_umol_m2_s", "number", "corrected PPFD [umol/m2/s]"),
       field("state", "string", "read, missing or untouched")},
      false));
  archive["figures.csv"] = figure_rows(b);
  resources.push_back(resource(
      "figures",
      {field("sweep_id", "integer", "the sweep"), field("figure", "string", "name of the figure"),
       field("value", "number", "its value; ratios and shares as fractions of 1"),
       field("expanded_k2", "number", "expanded uncertainty (k = 2) in the same unit; empty where it has none"),
       field("unit", "string", "unit of the value"), field("formula", "string", "how it was worked out")},
      false));
  const ordered_json descriptor{
      {"profile", "tabular-data-package"},
      {"name", "sunbreak-test"},
      {"title", b.test.name},
      {"description", "PPFD readings of one fixture on one bench, complete enough to recompute every figure."},
      {"sunbreak_format", package_format},
      {"resources", resources}};
  archive["datapackage.json"] = descriptor.dump(2, ' ', false, ordered_json::error_handler_t::replace) + "\n";
  return archive;
}

Result<TestBundle> read_package(const Archive& archive) {
  const auto refused = [](const std::string& why) {
    return Problem{"the data package cannot be read: " + why, "nothing was taken from it",
                   "ask for the file again, or mend that place"};
  };
  const auto member = archive.find("datapackage.json");
  if (member == archive.end()) return refused("it has no datapackage.json");
  const auto descriptor = nlohmann::json::parse(member->second, nullptr, false);
  if (!descriptor.is_object() || !descriptor.contains("sunbreak_format") ||
      !descriptor["sunbreak_format"].is_number_integer())
    return refused("its datapackage.json does not describe a light test");
  const auto format = descriptor["sunbreak_format"].get<std::int64_t>();
  if (format > package_format) return refused("it was written by a newer Sunbreak");
  if (format < 1) return refused("its sunbreak_format is no version there ever was");
  try {
    const int version = static_cast<int>(format);
    TestBundle b;
    b.fixture = take_one<Fixture>(archive, version);
    b.claims = take_table<Claim>(archive, version);
    b.bench = take_one<Bench>(archive, version);
    b.meters = take_table<Meter>(archive, version);
    b.test = take_one<Test>(archive, version);
    b.rungs = take_table<Rung>(archive, version);
    b.stops = take_table<Stop>(archive, version);
    b.sweeps = take_table<Sweep>(archive, version);
    b.readings = take_table<Reading>(archive, version);
    b.placements = take_table<Placement>(archive, version);
    b.wall_readings = take_table<WallReading>(archive, version);
    b.side_readings = take_table<SideReading>(archive, version);
    b.dismissals = take_table<Dismissal>(archive, version);
    b.log_parts = take_table<LogPart>(archive, version);
    take_log_samples(archive, version, b.log_parts);
    b.lamp_events = take_table<LampEvent>(archive, version);
    b.stair_stops = take_table<StairStop>(archive, version);
    b.stair_readings = take_table<StairReading>(archive, version);
    b.target_settings = take_table<TargetSetting>(archive, version);
    b.temperatures = take_table<Temperature>(archive, version);
    if (version < 2) b.test.opening_probe = false, b.test.reference_every = 0;
    TestBundle plain = with_plain_ids(b);
    for (const Sweep& sweep : plain.sweeps)
      if (const auto view = view_sweep(plain, sweep); !view) return refused(view.problem().seen);
    return plain;
  } catch (const std::out_of_range&) {
    return refused("a row refers to another that is not there");
  } catch (const std::runtime_error& e) {
    return refused(e.what());
  }
}

Result<TestBundle> read_package_file(const std::filesystem::path& file) {
  const auto archive = read_zip(file);
  if (!archive) return archive.problem();
  return read_package(archive.value());
}

std::string spreadsheet_csv(const TestBundle& bundle) { return station_rows(bundle, true); }

}  // namespace sunbreak::book
