#include "exchange/package/verification.h"

#include <fmt/format.h>

#include <cmath>
#include <map>
#include <nlohmann/json.hpp>
#include <set>
#include <span>
#include <stdexcept>

#include "core/quantity/number.h"
#include "evaluation/audit/audit.h"
#include "evaluation/configurations.h"
#include "evaluation/crop_targets.h"
#include "exchange/files/digest.h"
#include "exchange/package/derived_tables.h"
#include "exchange/package/package_table.h"

namespace sunbreak::exchange {
namespace {

/// The first format whose resources state check sums, and whose tables state all that this version works out.
constexpr std::int64_t first_with_sums = 7;
const std::string_view not_testable = verdict_id(Verdict::NotTestable);
constexpr std::size_t most_told = 12, most_shown = 24;

/// How a column of a stated table is held against what comes out.
struct Held {
  enum class As { Number, Text, Note } as = As::Number;
  const char* column;
  double share = 1e-6, least = 1e-9;  ///< that two numbers may be apart
};

/// A table that a package states: what a row is of, and which columns are held against what comes out.
struct StatedTable {
  const char* name;
  std::vector<const char*> key;
  std::vector<Held> held;
};

using As = Held::As;

const StatedTable stations{"stations",
                           {"sweep_id", "station"},
                           {{As::Number, "height_m"},
                            {As::Number, "dimmer_pct"},
                            {As::Number, "x_m"},
                            {As::Number, "y_m"},
                            {As::Number, "raw"},
                            {As::Number, "ppfd_umol_m2_s"},
                            {As::Text, "state"}}};
const StatedTable figures_table{
    "figures", {"sweep_id", "figure"}, {{As::Number, "value"}, {As::Number, "expanded_k2", 1e-4}, {As::Text, "unit"}}};
const StatedTable whole_light{"whole_light",
                              {"configuration_id", "quantity", "height_m"},
                              {{As::Number, "value", 1e-3, 1e-4}, {As::Number, "expanded_k2", 0.02, 1e-4}, {As::Text, "unit"}}};
const StatedTable audit_table{"audit",
                              {"configuration_id", "slot"},
                              {{As::Text, "kind"},
                               {As::Number, "claimed"},
                               {As::Number, "claimed_to"},
                               {As::Text, "unit"},
                               {As::Number, "measured", 1e-3},
                               {As::Number, "measured_to", 1e-3},
                               {As::Number, "expanded_k2", 0.02},
                               {As::Number, "difference_pct", 1e-2, 1e-2},
                               {As::Number, "chance", 0.02, 0.02},
                               {As::Text, "verdict"},
                               {As::Note, "reason"},
                               {As::Note, "lifts"}}};
const StatedTable verdict_table{
    "verdict",
    {"configuration_id", "slot", "aspect"},
    {{As::Number, "value", 1e-3, 1e-6}, {As::Text, "unit"}, {As::Text, "own"}, {As::Note, "sentence"}}};

std::string shown(const std::string& cell) {
  return cell.empty() ? "nothing" : cell.size() > most_shown ? cell.substr(0, most_shown) + "…" : cell;
}

/// A row by its key, a cell by its column.
using Row = std::map<std::string, std::string, std::less<>>;

std::map<std::string, Row> rows_by_key(const StatedTable& table, const std::string& csv) {
  std::map<std::string, Row> rows;
  PackageTable cells(table.name, csv);
  std::vector<std::size_t> key;
  for (const char* column : table.key) key.push_back(cells.at(column));
  std::vector<std::pair<const char*, std::size_t>> held;
  for (const Held& h : table.held) held.emplace_back(h.column, cells.at(h.column));
  while (cells.next()) {
    std::string name;
    for (const std::size_t at : key) name += (name.empty() ? "" : "\x1f") + cells.cell(at);
    Row row;
    for (const auto& [column, at] : held) row.emplace(column, cells.cell(at));
    rows.emplace(std::move(name), std::move(row));
  }
  return rows;
}

/// "sweep 2, station 17" of a key's cells.
std::string told_key(const StatedTable& table, const PackageTable& cells) {
  std::string words;
  for (const char* column : table.key) {
    const std::string& cell = cells.cell(*cells.find(column));
    if (cell.empty()) continue;
    std::string_view name = column;
    if (name.ends_with("_id")) name.remove_suffix(3);
    words += fmt::format("{}{} {}", words.empty() ? "" : ", ", name, shown(cell));
  }
  return words;
}

class Verifier {
 public:
  Verifier(const Archive& archive, const record::TestRecord& record) : archive_(archive), record_(record) {
    descriptor_ = nlohmann::json::parse(archive.at("datapackage.json"), nullptr, false);
    if (descriptor_.is_object() && descriptor_.contains("sunbreak_format") &&
        descriptor_["sunbreak_format"].is_number_integer())
      format_ = descriptor_["sunbreak_format"].get<std::int64_t>();
  }

  void hold_resources();
  /// Without the uncertainties where they were not worked out.
  void hold(const StatedTable& table, const Archive& found, bool with_uncertainty);
  void note(std::string words) { result_.notes.push_back(std::move(words)); }
  bool states(const char* table) const { return archive_.contains(std::string(table) + ".csv"); }
  Verification take() { return std::move(result_); }

 private:
  void differ(Difference d) { result_.differences.push_back(std::move(d)); }
  void differ(const std::string& file, const std::string& sentence) { differ({file, 0, file, "", "", sentence}); }
  void hold_row(const StatedTable& table, const PackageTable& cells, const Row& own, bool with_uncertainty);

  const Archive& archive_;
  const record::TestRecord& record_;
  nlohmann::json descriptor_;
  std::int64_t format_ = 0;
  Verification result_;
};

void Verifier::hold_resources() {
  std::set<std::string> named{"datapackage.json"};
  if (!descriptor_.contains("resources") || !descriptor_["resources"].is_array()) {
    if (format_ >= first_with_sums)
      differ("datapackage.json", "datapackage.json names no resources: nothing vouches for the tables");
    return;
  }
  for (const auto& resource : descriptor_["resources"]) {
    if (!resource.is_object() || !resource.contains("path") || !resource["path"].is_string()) continue;
    const auto path = resource["path"].get<std::string>();
    named.insert(path);
    const auto member = archive_.find(path);
    if (member == archive_.end()) {
      differ(path, path + " is named in the package but not in it, or it is damaged");
      continue;
    }
    const bool sums = resource.contains("bytes") && resource.contains("hash");
    if (!sums && format_ >= first_with_sums)
      differ(path, path + " has no check sum in datapackage.json: nothing vouches for it");
    const bool other_size = resource.contains("bytes") && resource["bytes"] != member->second.size();
    const bool other_hash = resource.contains("hash") && resource["hash"] != sha256_words(member->second);
    if (other_size || other_hash)
      differ(path, fmt::format("{} was changed after it was written: its {} is another one", path,
                               other_hash ? "check sum" : "size"));
    ++result_.values;
  }
  for (const auto& [name, content] : archive_)
    if (!named.contains(name)) {
      if (format_ >= first_with_sums && package_members().contains(name))
        differ(name, name + " is in the package but datapackage.json does not name it: nothing vouches for it");
      else
        note(name + " is in the file and no part of the package");
    }
}

void Verifier::hold_row(const StatedTable& table, const PackageTable& cells, const Row& own, bool with_uncertainty) {
  const std::string file = std::string(table.name) + ".csv", key = told_key(table, cells);
  // Words of a verdict that this version, without the writer's lab book beside it, cannot come to.
  const auto own_verdict = own.find("verdict");
  if (own_verdict != own.end() && own_verdict->second == not_testable &&
      cells.cell(*cells.find("verdict")) != not_testable)
    return note(fmt::format("{}: {} takes the writer's lab book, and was not held against anything", file, key));
  for (const Held& h : table.held) {
    if (!with_uncertainty && std::string_view(h.column) == "expanded_k2") continue;
    const std::string &stated = cells.cell(*cells.find(h.column)), &found = own.at(h.column);
    ++result_.values;
    if (h.as == As::Number) {
      const auto a = parse_number(stated), b = parse_number(found);
      if (a && b ? std::abs(*a - *b) <= h.least + h.share * std::abs(*b) : stated.empty() && found.empty()) continue;
    } else if (stated == found) {
      continue;
    }
    if (h.as == As::Note) {
      note(fmt::format("{}, row {}: {} of {} is worded otherwise by this version", file, cells.row(), h.column, key));
      continue;
    }
    differ({file, cells.row(), fmt::format("{} of {}", h.column, key), stated, found,
            fmt::format("{}, row {}: {} of {} is stated as {} where {} comes out of the readings", file, cells.row(),
                        h.column, key, shown(stated), shown(found))});
  }
}

void Verifier::hold(const StatedTable& table, const Archive& found, bool with_uncertainty) {
  const std::string file = std::string(table.name) + ".csv";
  const auto stated = archive_.find(file);
  const auto own = found.find(file);
  if (stated == archive_.end()) {
    if (own != found.end() && format_ >= first_with_sums)
      differ(file, file + " is not in the package: what it should state cannot be held against the readings");
    return;
  }
  try {
    std::map<std::string, Row> rows;
    if (own != found.end()) rows = rows_by_key(table, own->second);
    std::set<std::string> seen;
    PackageTable cells(table.name, stated->second);
    for (const char* column : table.key) cells.at(column);
    for (const Held& h : table.held) cells.at(h.column);
    while (cells.next()) {
      std::string name;
      for (const char* column : table.key)
        name += (name.empty() ? "" : "\x1f") + cells.cell(*cells.find(column));
      const auto row = rows.find(name);
      if (row == rows.end()) {
        differ({file, cells.row(), told_key(table, cells), "", "",
                fmt::format("{}, row {}: {} does not come out of the readings", file, cells.row(),
                            told_key(table, cells))});
        continue;
      }
      if (!seen.insert(name).second) {
        differ({file, cells.row(), told_key(table, cells), "", "",
                fmt::format("{}, row {}: {} is stated twice", file, cells.row(), told_key(table, cells))});
        continue;
      }
      hold_row(table, cells, row->second, with_uncertainty);
    }
    std::size_t missing = 0;
    std::string first;
    for (const auto& [name, row] : rows)
      if (!seen.contains(name) && ++missing == 1) first = name;
    for (char& c : first)
      if (c == '\x1f') c = ' ';
    if (missing == 0) return;
    const std::string words = fmt::format("{} does not state {} of what comes out of the readings, {} the first", file,
                                          missing == 1 ? "one" : std::to_string(missing), first);
    format_ >= first_with_sums ? differ(file, words) : note(words);
  } catch (const std::runtime_error& e) {
    differ(file, e.what());  // what cannot be read of it is not as it was written either
  }
}

template <typename RowType>
PlainIds same_ids(const std::vector<RowType>& rows) {
  PlainIds ids;
  for (const RowType& row : rows) ids[row.id] = row.id;
  return ids;
}

}  // namespace

std::string sha256_words(std::string_view bytes) { return "sha256:" + sha256_digits(bytes); }

Verification verify_package(const Archive& archive, const record::TestRecord& record) {
  Verifier verifier(archive, record);
  verifier.hold_resources();
  const evaluation::Evaluations all = evaluation::evaluate_all(record);
  std::vector<evaluation::Audit> audits;
  if (verifier.states("audit") || verifier.states("verdict")) {
    evaluation::AuditContext context;
    context.targets = evaluation::shipped_targets();
    for (const auto& one : all) audits.push_back(evaluation::audit(*one, context));
  }
  const Archive found =
      derived_tables(all, same_ids(record.sweeps), same_ids(record.configurations),
                     verifier.states("whole_light") ? WithLight::Yes : WithLight::No, audits);
  for (const StatedTable* table : {&stations, &figures_table, &whole_light, &audit_table, &verdict_table})
    verifier.hold(*table, found, true);
  return verifier.take();
}

std::vector<std::string> alterations(const Archive& archive, const record::TestRecord& record) {
  Verifier verifier(archive, record);
  verifier.hold_resources();
  const evaluation::Evaluations all = evaluation::evaluate_all(record);
  const Archive found = derived_tables(all, same_ids(record.sweeps), same_ids(record.configurations), WithLight::No, {},
                                       WithUncertainty::No);
  for (const StatedTable* table : {&stations, &figures_table}) verifier.hold(*table, found, false);
  const Verification v = verifier.take();
  std::vector<std::string> words;
  for (const Difference& d : v.differences) {
    if (words.size() == most_told) {
      words.push_back(fmt::format("and {} more values differ", v.differences.size() - most_told));
      break;
    }
    words.push_back(d.sentence);
  }
  return words;
}

}  // namespace sunbreak::exchange
