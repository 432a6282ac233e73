#include "exchange/package/data_package.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <stdexcept>

#include "core/method_version.h"
#include "exchange/files/digest.h"
#include "exchange/package/cell_values.h"
#include "exchange/package/derived_tables.h"
#include "exchange/package/log_samples.h"
#include "exchange/package/package_table.h"
#include "exchange/package/verification.h"
#include "pictures/clean_picture.h"
#include "record/configurations.h"
#include "record/faults.h"
#include "record/json.h"
#include "record/kinds.h"
#include "record/renumber.h"

namespace sunbreak::exchange {
namespace {

using namespace evaluation;

using record::Json;

Json field(const std::string& name, const char* type, const std::string& meaning) {
  return {{"name", name}, {"type", type}, {"description", meaning}};
}

Json resource(const std::string& name, Json fields, bool has_id) {
  Json schema{{"fields", std::move(fields)}, {"missingValues", Json::array({""})}};
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

void add_table(Archive& archive, Json& resources, const TableRows& rows) {
  const Kind& kind = rows.kind();
  Json fields = Json::array({field("id", "integer", "number of the row, unique in its table")});
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

template <typename Row>
PlainIds plain_ids(const std::vector<Row>& rows, const std::vector<Row>& renumbered) {
  PlainIds ids;
  for (std::size_t i = 0; i < rows.size(); ++i) ids[rows[i].id] = renumbered[i].id;
  return ids;
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

std::string picture_member(const std::string& digest, const std::string& media_type) {
  return fmt::format("{}{}.{}", picture_folder, digest, media_type == "image/png" ? "png" : "jpg");
}

/// Puts the pictures' files in, each once; what may not be told is taken out of them, after which they go by another
/// digest.
void add_pictures(Archive& archive, Json& resources, TestRecord& record, const PictureSource& source) {
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

/// What stood elsewhere in packages of earlier formats: how units hang was of the fixture, and a lux factor knew its
/// fixture by name.
void take_moved(const Archive& archive, int format, TestRecord& record) {
  constexpr int first_with_factors_fixture = 15;
  if (format < format_of(first_with_factors_fixture))
    for (FittedLuxFactor& factor : record.lux_factors)
      if (!factor.fixture.empty() && factor.fixture == record.fixture.name) factor.fixture_id = record.fixture.id;
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
  Json resources = Json::array();
  Json picture_resources = Json::array();
  add_pictures(archive, picture_resources, b, pictures);
  for (const TableRows& rows : tables_of(std::as_const(b))) add_table(archive, resources, rows);
  archive["log_sample.csv"] = log_samples_csv(b.log_parts);
  resources.push_back(resource(
      "log_sample",
      Json::array({field("log_part_id", "integer", "the part of the log"),
                   field("time_s", "number", "when [s since 1970, UTC]"),
                   field("light_raw", "number", "light at the reference station [umol/m2/s before correction]"),
                   field("power_w", "number", "real power [W]"), field("voltage_v", "number", "voltage [V]"),
                   field("current_a", "number", "current [A]"), field("apparent_va", "number", "apparent power [VA]"),
                   field("power_factor", "number", "power factor"), field("frequency_hz", "number", "frequency [Hz]")}),
      false));
  const PlainIds sweep_ids = plain_ids(record.sweeps, b.sweeps),
                 configuration_ids = plain_ids(record.configurations, b.configurations);
  for (auto& [name, csv] : derived_tables(evaluations, sweep_ids, configuration_ids, with_light, audits))
    archive[name] = std::move(csv);
  resources.push_back(resource(
      "stations",
      Json::array({field("sweep_id", "integer", "the sweep"), field("height_m", "number", "hanging height [m]"),
                   field("dimmer_pct", "number", "dimmer setting [%]"), field("station", "integer", "station index"),
                   field("x_m", "number", "place from the left wall [m]"),
                   field("y_m", "number", "place from the door [m]"),
                   field("raw", "number", "the reading that counts, as read"),
                   field("ppfd_umol_m2_s", "number", "corrected PPFD [umol/m2/s]"),
                   field("state", "string", "read, missing or untouched")}),
      false));
  resources.push_back(resource(
      "figures",
      Json::array(
          {field("sweep_id", "integer", "the sweep"), field("figure", "string", "name of the figure"),
           field("value", "number", "its value; ratios and shares as fractions of 1"),
           field("expanded_k2", "number", "expanded uncertainty (k = 2) in the same unit; empty where it has none"),
           field("unit", "string", "unit of the value"), field("formula", "string", "how it was worked out")}),
      false));
  if (archive.contains("whole_light.csv")) {
    resources.push_back(
        resource("whole_light",
                 Json::array({field("configuration_id", "integer", "the configuration; empty: the fixture as it comes"),
                              field("quantity", "string", "what was found, or restated in a reference room"),
                              field("height_m", "number", "hanging height [m], where it depends on that"),
                              field("value", "number", "its value; shares as fractions of 1"),
                              field("expanded_k2", "number", "expanded uncertainty (k = 2) in the same unit"),
                              field("unit", "string", "unit of the value")}),
                 false));
  }
  if (archive.contains("audit.csv")) {
    resources.push_back(resource(
        "audit",
        Json::array(
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
             field("lifts", "string", "the act that would help most")}),
        false));
  }
  if (archive.contains("verdict.csv")) {
    resources.push_back(resource(
        "verdict",
        Json::array({field("configuration_id", "integer", "the configuration; empty: the fixture as it comes"),
                     field("slot", "string", "what the sentence is about"),
                     field("aspect", "string", "light, strength, weakness, use or watch"),
                     field("sentence", "string", "the sentence"), field("figure", "string", "the figure it is tied to"),
                     field("value", "number", "that figure, in the unit"), field("unit", "string", "its unit"),
                     field("own", "boolean", "written by the tester in place of the draft")}),
        false));
  }
  // With pictures it is no package of tables alone.
  const char* profile = picture_resources.empty() ? "tabular-data-package" : "data-package";
  for (Json& r : picture_resources) resources.push_back(std::move(r));
  for (Json& r : resources) {
    const std::string& content = archive.at(r["path"].text());
    r["bytes"] = content.size();
    r["hash"] = sha256_words(content);
  }
  const Json descriptor{
      {"profile", profile},
      {"name", "sunbreak-test"},
      {"title", b.test.name},
      {"description", "PPFD readings of one fixture on one bench, complete enough to recompute every figure."},
      {"sunbreak_format", package_format()},
      {"sunbreak_method", method_version},
      {"resources", resources}};
  archive["datapackage.json"] = record::json_text(descriptor, 2) + "\n";
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
  const Json descriptor = record::json_of(member->second);
  if (!descriptor["sunbreak_format"].is_whole()) return refused("its datapackage.json does not describe a light test");
  const std::int64_t format = descriptor["sunbreak_format"].whole();
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

Result<TestRecord> read_package_file(const std::filesystem::path& file, PictureFiles* pictures,
                                     const std::string* known_altered) {
  const auto archive = read_zip(file, package_members(), picture_folder);
  if (!archive) return archive.problem();
  auto record = read_package(archive.value());
  if (record && known_altered)
    record.value().test.altered = *known_altered;
  else if (record)
    for (const std::string& words : alterations(archive.value(), record.value())) {
      std::string& altered = record.value().test.altered;
      if (altered.find(words) == std::string::npos) altered += (altered.empty() ? "" : "; ") + words;
    }
  if (record && pictures) *pictures = pictures_in(archive.value(), record.value());
  return record;
}

}  // namespace sunbreak::exchange
