#include "exchange/package/data_package.h"
#include "exchange/package/audit_tables.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <nlohmann/json.hpp>
#include <stdexcept>

#include "core/figures/figure_table.h"
#include "core/quantity/number.h"
#include "evaluation/test_light.h"
#include "exchange/files/digest.h"
#include "exchange/package/cell_values.h"
#include "exchange/package/csv_writer.h"
#include "exchange/package/integrity.h"
#include "exchange/package/log_samples.h"
#include "exchange/package/package_table.h"
#include "pictures/clean_picture.h"
#include "record/configurations.h"
#include "record/faults.h"
#include "record/kinds.h"
#include "record/renumber.h"

namespace sunbreak::exchange {
namespace {

using namespace evaluation;

using nlohmann::ordered_json;

ordered_json field(const std::string& name, const char* type, const std::string& meaning) {
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

constexpr std::size_t most_rows = 1'000'000;  ///< of one table: four times what the largest sweep has

/// The package format in which a schema of the lab book came; the first packages were written from schema 2.
int format_of(int schema) { return std::max(1, schema - 1); }

std::string meaning_of(const Column& c) { return c.unit.empty() ? c.meaning : c.meaning + " [" + c.unit + "]"; }

void add_table(Archive& archive, ordered_json& resources, const TableRows& rows) {
  const Kind& kind = rows.kind();
  ordered_json fields = ordered_json::array({field("id", "integer", "number of the row, unique in its table")});
  std::string& csv = archive[std::string(kind.name()) + ".csv"];
  csv = "id";
  for (const Column& c : kind.columns) {
    if (c.type == Type::Bytes) continue;
    fields.push_back(field(c.name, field_type(c.type), meaning_of(c)));
    csv += "," + c.name;
  }
  csv += "\r\n";
  for (std::size_t i = 0; i < rows.size(); ++i) {
    const void* row = rows.at(i);
    csv += std::to_string(kind.id(const_cast<void*>(row)));
    for (const Column& c : kind.columns)
      if (c.type != Type::Bytes) append_cell(csv, c, c.get(row));
    csv += "\r\n";
  }
  resources.push_back(resource(std::string(kind.name()), std::move(fields), true));
}

/// Reads a table back. Tables and columns that came with a later format than the package's hold what records of that
/// day did; what did not name its test yet is of the package's one, `test_id`.
void take_table(const Archive& archive, int format, TableRows& rows, const Id& test_id) {
  const Kind& kind = rows.kind();
  const auto member = archive.find(std::string(kind.name()) + ".csv");
  if (member == archive.end() && format < format_of(kind.facts.since)) return;
  if (member == archive.end()) throw std::runtime_error(fmt::format("{}.csv is not in it", kind.name()));
  PackageTable table(kind.name(), member->second);
  std::vector<std::pair<const Column*, std::optional<std::size_t>>> places;
  for (const Column& c : kind.columns) {
    if (c.type == Type::Bytes) continue;
    const bool promised = format >= format_of(std::max(c.since, kind.facts.since));
    places.emplace_back(&c, promised ? table.at(c.name) : table.find(c.name));
  }
  const std::size_t id_at = table.at("id");
  std::size_t count = 0;
  while (table.next()) {
    if (++count > most_rows) throw std::runtime_error(fmt::format("{}.csv has over {} rows", kind.name(), most_rows));
    void* row = rows.add();
    if (const auto id = value_of_cell(table.cell(id_at), Type::Integer); id && std::holds_alternative<Id>(*id))
      kind.id(row) = std::get<Id>(*id);
    else
      table.refuse(id_at);
    for (const auto& [column, at] : places) {
      const auto value = at                            ? value_of_cell(table.cell(*at), column->type)
                         : column->refers_to == "test" ? std::optional<Value>(test_id)
                                                       : std::optional(column->before);
      if (!value || !column->set(row, *value)) table.refuse(at.value_or(id_at));
    }
  }
  if (rows.single() && count != 1)
    throw std::runtime_error(fmt::format("{}.csv has {} rows, not one", kind.name(), count));
}

const char* state_name(const StationState& state) {
  return state.kind == StationState::Read ? "read" : state.kind == StationState::Missing ? "missing" : "untouched";
}

/// The ids that rows have in the package, by those they have in the lab book.
using PlainIds = std::map<Id, Id>;

template <typename Row>
PlainIds plain_ids(const std::vector<Row>& rows, const std::vector<Row>& renumbered) {
  PlainIds ids;
  for (std::size_t i = 0; i < rows.size(); ++i) ids[rows[i].id] = renumbered[i].id;
  return ids;
}

std::string station_head(bool for_spreadsheet, bool configured) {
  if (!for_spreadsheet) return "sweep_id,height_m,dimmer_pct,station,x_m,y_m,raw,ppfd_umol_m2_s,state\r\n";
  return std::string(configured ? "configuration," : "") +
         "height_cm,dimmer_pct,row_from_door,column_from_left,x_cm,y_cm,raw,ppfd_umol_m2_s,state,station_name\r\n";
}

/// `ids` of sweeps are those of the package; not asked for in a table for a spreadsheet, where `configuration` names
/// the state where there are several.
void append_stations(std::string& csv, const Evaluation& evaluation, const PlainIds& ids, bool for_spreadsheet,
                     const std::string& configuration) {
  const TestRecord& record = evaluation.record();
  for (const Sweep& sweep : record.sweeps) {
    const SweepView* view = evaluation.view(sweep.id);
    if (!view) continue;
    const double height_m = record.rung(sweep.rung_id)->height_m, percent = record.stop(sweep.stop_id)->percent;
    for (std::size_t i = 0; i < view->states.size(); ++i) {
      const Station& s = view->layout.stations[i];
      const StationState& state = view->states[i];
      const std::string raw = state.kind == StationState::Read ? number_cell(state.raw) : "",
                        ppfd = number_cell(view->ppfd[i]);
      if (for_spreadsheet)
        csv +=
            (configuration.empty() ? "" : spreadsheet_cell(configuration) + ",") +
            fmt::format("{:.6g},{:.6g},{},{},{:.6g},{:.6g},{},{},{},{}\r\n", height_m * 100, percent, s.row + 1,
                        s.column + 1, s.x_m * 100, s.y_m * 100, raw, ppfd, state_name(state), spreadsheet_cell(s.name));
      else
        csv +=
            fmt::format("{},{},{},{},{},{},{},{},{}\r\n", ids.at(sweep.id), number_cell(height_m), number_cell(percent),
                        i, number_cell(s.x_m), number_cell(s.y_m), raw, ppfd, state_name(state));
    }
  }
}

/// What was found of the whole light, and the reference rooms; the settings' is the first one's.
void append_light(std::string& csv, const TestLight& light, const std::string& configuration) {
  const auto add = [&](std::string_view quantity, std::optional<double> height_m, const FoundValue& v,
                       std::string_view unit) {
    if (std::isfinite(v.value))
      csv += fmt::format("{},{},{},{},{},{}\r\n", configuration, quantity, height_m ? number_cell(*height_m) : "",
                         number_cell(v.value), std::isfinite(v.expanded) ? number_cell(v.expanded) : "", unit);
  };
  const WholeLight& w = light.found();
  add("ppf", {}, light.ppf_umol_s(), "umol/s");
  add("efficacy", {}, light.efficacy_umol_j(), "umol/J");
  for (const Utilization& u : w.utilization) add("utilization", u.height_m, u.share, "1");
  add("half_angle", {}, w.half_angle_deg, "degrees");
  add("wall_reflectance", {}, w.wall_reflectance, "1");
  add("offset_x", {}, w.offset_x_m, "m");
  add("offset_y", {}, w.offset_y_m, "m");
  for (std::size_t unit = 0; unit < w.roll_deg.size(); ++unit) {
    add(fmt::format("unit_{}_right_side_lower", unit + 1), {}, w.roll_deg[unit], "degrees");
    add(fmt::format("unit_{}_far_side_lower", unit + 1), {}, w.pitch_deg[unit], "degrees");
  }
  for (const ReferenceFigures& r : light.in_reference_rooms()) {
    const std::string room = r.room == "open floor" ? "open_floor" : "white_tent";
    add("restated_" + room + "_mean_ppfd", r.height_m, r.mean_ppfd, "umol/m2/s");
    add("restated_" + room + "_efficacy", r.height_m, r.efficacy_umol_j, "umol/J");
  }
}

void append_figures(std::string& csv, const Evaluation& evaluation, const PlainIds& ids) {
  for (const Sweep& sweep : evaluation.record().sweeps) {
    const Id id = sweep.id;
    const SweepFigures* f = evaluation.figures(id);
    if (!f) continue;
    const SweepView& view = *evaluation.view(id);
    const FigureSource source(view.layout, view.ppfd, *f);
    const Budget& budget = *evaluation.budget(id);
    for (const Figure& figure : figures()) {
      const double value = figure.value ? figure.value(source) : unread;
      if (!std::isfinite(value)) continue;
      const double expanded = budget.expanded(figure.id);
      csv += fmt::format("{},{},{},{},{},{}\r\n", ids.at(id), figure.id, number_cell(value),
                         std::isfinite(expanded) ? number_cell(expanded) : "", quoted_cell(figure.unit),
                         quoted_cell(figure.formula));
    }
  }
}

}  // namespace

int package_format() { return format_of(newest_schema(Schemas::Published)); }

std::set<std::string> package_members() {
  std::set<std::string> names{"datapackage.json", "log_sample.csv", "stations.csv", "figures.csv",
                              "whole_light.csv",  "audit.csv",      "verdict.csv"};
  for (const Kind& kind : kinds())
    if (kind.facts.published) names.insert(std::string(kind.name()) + ".csv");
  return names;
}

namespace {

constexpr std::string_view picture_folder = "pictures/";

std::string picture_member(const std::string& digest, const std::string& media_type) {
  return fmt::format("{}{}.{}", picture_folder, digest, media_type == "image/png" ? "png" : "jpg");
}

/// Puts the pictures' files in, each once; what may not be told is taken out of them, after which they go by another
/// digest.
void add_pictures(Archive& archive, ordered_json& resources, TestRecord& record, const PictureSource& source) {
  std::map<std::string, std::string> given;  // by the digest on record
  each_picture(record, [&](auto& picture) {
    if (const auto known = given.find(picture.digest); known != given.end()) {
      picture.digest = known->second;
      return;
    }
    const auto file = source ? source(picture.digest) : std::nullopt;
    auto clean = file ? pictures::clean_picture(*file) : Result<pictures::CleanPicture>(Problem{});
    if (!clean) return;
    std::string& bytes = clean.value().bytes;
    const std::string digest = bytes == *file ? picture.digest : sha256_digits(bytes);
    given[picture.digest] = digest;
    picture.digest = digest;
    picture.size_bytes = static_cast<int>(bytes.size());
    const std::string path = picture_member(digest, picture.media_type);
    if (!archive.emplace(path, std::move(bytes)).second) return;
    resources.push_back({{"name", "picture-" + digest.substr(0, 16)},
                         {"path", path},
                         {"profile", "data-resource"},
                         {"format", picture.media_type == "image/png" ? "png" : "jpg"},
                         {"mediatype", picture.media_type}});
  });
}

/// What stood elsewhere in packages of earlier formats: how units hang was of the fixture.
void take_moved(const Archive& archive, int format, TestRecord& record) {
  constexpr int first_with_arrangement = 8;
  const auto member = archive.find("fixture.csv");
  if (format >= format_of(first_with_arrangement) || member == archive.end()) return;
  PackageTable table("fixture", member->second);
  if (!table.next()) return;
  const Kind& test = kind_of<Test>();
  constexpr std::pair<const char*, const char*> moved[] = {
      {"units", "unit_columns"}, {"unit_spacing_m", "unit_spacing_x_m"}, {"unit_tilt_deg", "unit_tilt_deg"}};
  for (const auto& [from, to] : moved) {
    const auto at = table.find(from);
    if (!at) continue;
    const Column& column = *test.column(to);
    const auto value = value_of_cell(table.cell(*at), column.type);
    if (!value || !column.set(&record.test, *value)) table.refuse(*at);
  }
}

}  // namespace

Archive make_package(const TestRecord& record, const Evaluations& evaluations, const PictureSource& pictures,
                     WithLight with_light, const std::vector<evaluation::Audit>& audits) {
  if (!record.faults.empty()) throw std::runtime_error(refusal(record.faults, "the test").seen);
  TestRecord b = with_plain_ids(record);
  Archive archive;
  ordered_json resources = ordered_json::array();
  ordered_json picture_resources = ordered_json::array();
  add_pictures(archive, picture_resources, b, pictures);
  for (const TableRows& rows : tables_of(std::as_const(b))) add_table(archive, resources, rows);
  archive["log_sample.csv"] = log_samples_csv(b.log_parts);
  resources.push_back(resource(
      "log_sample",
      {field("log_part_id", "integer", "the part of the log"), field("time_s", "number", "when [s since 1970, UTC]"),
       field("light_raw", "number", "light at the reference station [umol/m2/s before correction]"),
       field("power_w", "number", "real power [W]"), field("voltage_v", "number", "voltage [V]"),
       field("current_a", "number", "current [A]"), field("apparent_va", "number", "apparent power [VA]"),
       field("power_factor", "number", "power factor"), field("frequency_hz", "number", "frequency [Hz]")},
      false));
  const PlainIds sweep_ids = plain_ids(record.sweeps, b.sweeps),
                 configuration_ids = plain_ids(record.configurations, b.configurations);
  std::string& stations = archive["stations.csv"] = station_head(false, false);
  std::string& figures_csv = archive["figures.csv"] = "sweep_id,figure,value,expanded_k2,unit,formula\r\n";
  std::string found_csv, audit_csv, verdict_csv;
  for (std::size_t i = 0; i < evaluations.size(); ++i) {
    const auto& evaluation = evaluations[i];
    append_stations(stations, *evaluation, sweep_ids, false, {});
    append_figures(figures_csv, *evaluation, sweep_ids);
    const Id configuration = evaluation->record().configuration_id;
    const std::string number = configuration == 0 ? "" : std::to_string(configuration_ids.at(configuration));
    if (i < audits.size()) append_audit(audit_csv, audits[i], number), append_verdict(verdict_csv, audits[i], number);
    if (const TestLight* light = with_light == WithLight::Yes ? evaluation->light() : nullptr;
        light && light->found().fits)
      append_light(found_csv, *light, number);
  }
  resources.push_back(resource(
      "stations",
      {field("sweep_id", "integer", "the sweep"), field("height_m", "number", "hanging height [m]"),
       field("dimmer_pct", "number", "dimmer setting [%]"), field("station", "integer", "station index"),
       field("x_m", "number", "place from the left wall [m]"), field("y_m", "number", "place from the door [m]"),
       field("raw", "number", "the reading that counts, as read"),
       field("ppfd_umol_m2_s", "number", "corrected PPFD [umol/m2/s]"),
       field("state", "string", "read, missing or untouched")},
      false));
  resources.push_back(resource(
      "figures",
      {field("sweep_id", "integer", "the sweep"), field("figure", "string", "name of the figure"),
       field("value", "number", "its value; ratios and shares as fractions of 1"),
       field("expanded_k2", "number", "expanded uncertainty (k = 2) in the same unit; empty where it has none"),
       field("unit", "string", "unit of the value"), field("formula", "string", "how it was worked out")},
      false));
  if (!found_csv.empty()) {
    archive["whole_light.csv"] = "configuration_id,quantity,height_m,value,expanded_k2,unit\r\n" + found_csv;
    resources.push_back(
        resource("whole_light",
                 {field("configuration_id", "integer", "the configuration; empty: the fixture as it comes"),
                  field("quantity", "string", "what was found, or restated in a reference room"),
                  field("height_m", "number", "hanging height [m], where it depends on that"),
                  field("value", "number", "its value; shares as fractions of 1"),
                  field("expanded_k2", "number", "expanded uncertainty (k = 2) in the same unit"),
                  field("unit", "string", "unit of the value")},
                 false));
  }
  if (!audit_csv.empty()) {
    archive["audit.csv"] = audit_head + audit_csv;
    resources.push_back(resource(
        "audit",
        {field("configuration_id", "integer", "the configuration; empty: the fixture as it comes"),
         field("slot", "string", "which claim: its kind, with a number from the second on"),
         field("kind", "string", "kind of claim"), field("claimed", "number", "the figure claimed, in the unit"),
         field("claimed_to", "number", "the upper end of a range"), field("unit", "string", "the maker's own unit"),
         field("measured", "number", "its measured counterpart, in the same unit"),
         field("measured_to", "number", "the upper end of a range"),
         field("expanded_k2", "number", "expanded uncertainty (k = 2) of it, in the same unit"),
         field("difference_pct", "number", "measured less claimed, in percent of the claim"),
         field("chance", "number", "that what is claimed holds, 0 to 1"),
         field("verdict", "string", "confirmed, not told apart, short, over, contradicted or not testable here"),
         field("reason", "string", "what was compared with what"),
         field("lifts", "string", "the act that would help most")},
        false));
  }
  if (!verdict_csv.empty()) {
    archive["verdict.csv"] = verdict_head + verdict_csv;
    resources.push_back(
        resource("verdict",
                 {field("configuration_id", "integer", "the configuration; empty: the fixture as it comes"),
                  field("slot", "string", "what the sentence is about"),
                  field("aspect", "string", "light, strength, weakness, use or watch"),
                  field("sentence", "string", "the sentence"), field("figure", "string", "the figure it is tied to"),
                  field("value", "number", "that figure, in the unit"), field("unit", "string", "its unit"),
                  field("own", "boolean", "written by the tester in place of the draft")},
                 false));
  }
  for (ordered_json& r : picture_resources) resources.push_back(std::move(r));
  for (ordered_json& r : resources) {
    const std::string& content = archive.at(r["path"].get<std::string>());
    r["bytes"] = content.size();
    r["hash"] = sha256_words(content);
  }
  const ordered_json descriptor{
      {"profile", "tabular-data-package"},
      {"name", "sunbreak-test"},
      {"title", b.test.name},
      {"description", "PPFD readings of one fixture on one bench, complete enough to recompute every figure."},
      {"sunbreak_format", package_format()},
      {"resources", resources}};
  archive["datapackage.json"] = descriptor.dump(2, ' ', false, ordered_json::error_handler_t::replace) + "\n";
  return archive;
}

Archive make_package(const TestRecord& record, const PictureSource& pictures) {
  return make_package(record, evaluate_all(record), pictures);
}

Result<TestRecord> read_package(const Archive& archive) {
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
  if (format > package_format()) return refused("it was written by a newer Sunbreak");
  if (format < 1) return refused("its sunbreak_format is no version there ever was");
  try {
    const int version = static_cast<int>(format);
    TestRecord b;
    for (TableRows& rows : tables_of(b)) take_table(archive, version, rows, b.test.id);
    take_log_samples(archive, version, b.log_parts);
    take_moved(archive, version, b);
    if (const auto faults = faults_of(b); !faults.empty()) return refusal(faults, "the data package");
    return with_plain_ids(b);
  } catch (const std::runtime_error& e) {
    return refused(e.what());
  }
}

PictureFiles pictures_in(const Archive& archive, const TestRecord& record) {
  PictureFiles files;
  each_picture(record, [&](const auto& picture) {
    const auto member = archive.find(picture_member(picture.digest, picture.media_type));
    if (member == archive.end() || sha256_digits(member->second) != picture.digest) return;
    const auto clean = pictures::clean_picture(member->second);
    if (clean && clean.value().bytes == member->second) files.emplace(picture.digest, member->second);
  });
  return files;
}

Result<TestRecord> read_package_file(const std::filesystem::path& file, std::vector<std::string>* altered,
                                     PictureFiles* pictures) {
  const auto archive = read_zip(file, package_members(), picture_folder);
  if (!archive) return archive.problem();
  auto record = read_package(archive.value());
  if (record && altered) *altered = alterations(archive.value(), record.value());
  if (record && pictures) *pictures = pictures_in(archive.value(), record.value());
  return record;
}

std::string spreadsheet_csv(const Evaluations& evaluations) {
  const bool configured = evaluations.size() > 1;
  std::string csv = station_head(true, configured);
  for (const auto& evaluation : evaluations)
    append_stations(csv, *evaluation, {}, true,
                    configured ? configuration_name(evaluation->record(), evaluation->record().configuration_id) : "");
  return csv;
}

}  // namespace sunbreak::exchange
