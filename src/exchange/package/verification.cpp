#include "exchange/package/verification.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <span>
#include <stdexcept>

#include "core/method_version.h"
#include "core/quantity/number.h"
#include "evaluation/audit/audit.h"
#include "evaluation/configurations.h"
#include "evaluation/crop_targets.h"
#include "evaluation/provenance.h"
#include "exchange/files/digest.h"
#include "exchange/package/derived_tables.h"
#include "exchange/package/package_table.h"
#include "record/json.h"

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
const StatedTable whole_light{
    "whole_light",
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

/// A table's cells with where its key and its held columns stand.
struct HeldCells {
  HeldCells(const StatedTable& table, const std::string& csv) : cells(table.name, csv) {
    for (const char* column : table.key) key.push_back(cells.at(column));
    for (const Held& h : table.held) held.push_back(cells.at(h.column));
  }
  std::string key_here() const {
    std::string name;
    for (const std::size_t at : key) name += cells.cell(at) + '\x1f';
    return name;
  }

  PackageTable cells;
  std::vector<std::size_t> key, held;
};

/// "sweep 2, station 17" of a key's cells.
std::string told_key(const StatedTable& table, const HeldCells& here) {
  std::string words;
  for (std::size_t k = 0; k < table.key.size(); ++k) {
    const std::string& cell = here.cells.cell(here.key[k]);
    if (cell.empty()) continue;
    std::string_view name = table.key[k];
    if (name.ends_with("_id")) name.remove_suffix(3);
    words += fmt::format("{}{} {}", words.empty() ? "" : ", ", name, shown(cell));
  }
  return words;
}

/// Packages name their method from the fourth on.
constexpr std::int64_t last_unnamed_method = 3;

/// The ± that a row of a table has; 0 where it has none.
double expanded_in(const StatedTable& table, const HeldCells& cells, std::size_t row) {
  for (std::size_t k = 0; k < table.held.size(); ++k)
    if (std::string_view(table.held[k].column) == "expanded_k2")
      return parse_number(cells.cells.cell_of(row, cells.held[k])).value_or(0);
  return 0;
}

class Verifier {
 public:
  explicit Verifier(const Archive& archive)
      : archive_(archive),
        descriptor_(record::json_of(archive.at("datapackage.json"))),
        format_(descriptor_["sunbreak_format"].whole()),
        method_(descriptor_["sunbreak_method"].is_whole() ? descriptor_["sunbreak_method"].whole()
                                                          : last_unnamed_method) {}

  void hold_resources();
  /// Without the uncertainties where they were not worked out.
  void hold(const StatedTable& table, const Archive& found, bool with_uncertainty);
  void note(std::string words) { result_.notes.push_back(std::move(words)); }
  bool states(const char* table) const { return archive_.contains(std::string(table) + ".csv"); }
  Verification take() { return std::move(result_); }

 private:
  void differ(Difference d) { result_.differences.push_back(std::move(d)); }
  void differ(const std::string& file, const std::string& sentence) { differ({file, 0, file, "", "", sentence}); }
  /// Whether a difference is one of method: a ±, or what an earlier one made of it: what is fitted to readings, which
  /// weigh by their ±, moves within its own, `expanded`. Told once.
  bool is_of_earlier_method(const StatedTable& table, const Held& held, const std::string& stated,
                            const std::string& found, double expanded);
  /// Whether it is a verdict that this version, without the writer's lab book beside it, cannot come to.
  bool takes_the_lab_book(const StatedTable& table, const HeldCells& here, const HeldCells& own,
                          std::size_t own_row) const;
  void hold_row(const StatedTable& table, const HeldCells& here, const HeldCells& own, std::size_t own_row,
                bool with_uncertainty);

  const Archive& archive_;
  const record::Json descriptor_;
  const std::int64_t format_, method_;
  bool told_of_method_ = false;
  Verification result_;
};

void Verifier::hold_resources() {
  std::set<std::string> named{"datapackage.json"};
  const record::Json& resources = descriptor_["resources"];
  if (!resources.is_array()) {
    if (format_ >= first_with_sums)
      differ("datapackage.json", "datapackage.json names no resources: nothing vouches for the tables");
    return;
  }
  for (const record::Json& resource : resources) {
    if (!resource["path"].is_text()) continue;
    const std::string& path = resource["path"].text();
    named.insert(path);
    const auto member = archive_.find(path);
    if (member == archive_.end()) {
      differ(path, path + " is named in the package but not in it, or it is damaged");
      continue;
    }
    const bool sums = resource.contains("bytes") && resource.contains("hash");
    if (!sums && format_ >= first_with_sums)
      differ(path, path + " has no check sum in datapackage.json: nothing vouches for it");
    const bool other_size =
        resource.contains("bytes") && resource["bytes"].number() != static_cast<double>(member->second.size());
    const bool other_hash = resource.contains("hash") && resource["hash"].text() != sha256_words(member->second);
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

void Verifier::hold_row(const StatedTable& table, const HeldCells& here, const HeldCells& own, std::size_t own_row,
                        bool with_uncertainty) {
  const std::string file = std::string(table.name) + ".csv";
  const PackageTable& cells = here.cells;
  for (std::size_t k = 0; k < table.held.size(); ++k) {
    const Held& h = table.held[k];
    const std::string_view column = h.column;
    if (!with_uncertainty && column == "expanded_k2") continue;
    const std::string &stated = cells.cell(here.held[k]), &found = own.cells.cell_of(own_row, own.held[k]);
    ++result_.values;
    if (h.as == As::Number) {
      const auto a = parse_number(stated), b = parse_number(found);
      if (a && b ? std::abs(*a - *b) <= h.least + h.share * std::abs(*b) : stated.empty() && found.empty()) continue;
    } else if (stated == found) {
      continue;
    }
    if (is_of_earlier_method(table, h, stated, found, expanded_in(table, own, own_row))) continue;
    const std::string key = told_key(table, here);
    if (h.as == As::Note) {
      note(fmt::format("{}, row {}: {} of {} is worded otherwise by this version", file, cells.row(), column, key));
      continue;
    }
    differ({file, cells.row(), fmt::format("{} of {}", column, key), stated, found,
            fmt::format("{}, row {}: {} of {} is stated as {} where {} comes out of the readings", file, cells.row(),
                        column, key, shown(stated), shown(found))});
  }
}

bool Verifier::is_of_earlier_method(const StatedTable& table, const Held& held, const std::string& stated,
                                    const std::string& found, double expanded) {
  if (method_ >= method_version) return false;
  // A sentence of the verdict is drafted by the method, and so is a reason; their figures stand in other tables, too.
  const std::string_view column = held.column;
  constexpr std::string_view judged[] = {"expanded_k2", "difference_pct", "chance", "verdict"};
  const auto a = parse_number(stated), b = parse_number(found);
  const bool of_fit = &table == &audit_table || &table == &whole_light, moved = a && b && std::abs(*a - *b) <= expanded;
  if (&table != &verdict_table && held.as != As::Note && std::ranges::find(judged, column) == std::end(judged) &&
      !(of_fit && moved))
    return false;
  if (!told_of_method_)
    note(fmt::format(
        "written by method {} of working out uncertainties, where this version has {}: ± and what follows "
        "from them (whole light, claims, verdicts) differ by that and are not held against it; readings and "
        "figures are",
        method_, static_cast<int>(method_version)));
  told_of_method_ = true;
  return true;
}

bool Verifier::takes_the_lab_book(const StatedTable& table, const HeldCells& here, const HeldCells& own,
                                  std::size_t own_row) const {
  for (std::size_t k = 0; k < table.held.size(); ++k)
    if (std::string_view(table.held[k].column) == "verdict")
      return own.cells.cell_of(own_row, own.held[k]) == not_testable && here.cells.cell(here.held[k]) != not_testable;
  return false;
}

void Verifier::hold(const StatedTable& table, const Archive& found, bool with_uncertainty) {
  const std::string file = std::string(table.name) + ".csv";
  const auto stated = archive_.find(file);
  const auto own = found.find(file);
  if (stated == archive_.end()) {
    if (own != found.end())
      differ(file, file + " is not in the package: what it should state cannot be held against the readings");
    return;
  }
  try {
    std::optional<HeldCells> ours;
    std::map<std::string, std::size_t> rows;  // of ours, by their keys, until they were stated
    if (own != found.end()) {
      ours.emplace(table, own->second);
      while (ours->cells.next()) rows.emplace(ours->key_here(), ours->cells.row());
    }
    std::set<std::string> seen;
    HeldCells here(table, stated->second);
    while (here.cells.next()) {
      const std::string name = here.key_here();
      const auto row = rows.find(name);
      const std::size_t at = here.cells.row();
      if (row != rows.end() && takes_the_lab_book(table, here, *ours, row->second))
        note(fmt::format("{}: {} takes the writer's lab book, and was not held against anything", file,
                         told_key(table, here)));
      else if (row != rows.end())
        hold_row(table, here, *ours, row->second, with_uncertainty);
      else if (&table == &verdict_table && method_ < method_version && !seen.contains(name))
        note(fmt::format("{}: {} is no sentence of this version's method", file, told_key(table, here)));
      else
        differ({file, at, told_key(table, here), "", "",
                fmt::format("{}, row {}: {} {}", file, at, told_key(table, here),
                            seen.contains(name) ? "is stated twice" : "does not come out of the readings")});
      if (row != rows.end()) {
        seen.insert(name);
        rows.erase(row);
      }
    }
    if (rows.empty()) return;
    std::string first = rows.begin()->first;
    std::ranges::replace(first, '\x1f', ' ');
    const std::string words = fmt::format("{} does not state {} of what comes out of the readings, {}the first", file,
                                          rows.size() == 1 ? "one" : std::to_string(rows.size()), first);
    const bool of_method = &table == &verdict_table && method_ < method_version;
    format_ >= first_with_sums && !of_method ? differ(file, words) : note(words);
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
  Verifier verifier(archive);
  verifier.hold_resources();
  if (const std::string altered = evaluation::altered_words(record.test); !altered.empty()) verifier.note(altered);
  const evaluation::Evaluations all = evaluation::evaluate_all(record);
  std::vector<evaluation::Audit> audits;
  if (verifier.states("audit") || verifier.states("verdict")) {
    evaluation::AuditContext context;
    context.targets = evaluation::shipped_targets();
    for (const auto& one : all) audits.push_back(evaluation::audit(*one, context));
  }
  const Archive found = derived_tables(all, same_ids(record.sweeps), same_ids(record.configurations),
                                       verifier.states("whole_light") ? WithLight::Yes : WithLight::No, audits);
  for (const StatedTable* table : {&stations, &figures_table, &whole_light, &audit_table, &verdict_table})
    verifier.hold(*table, found, true);
  return verifier.take();
}

std::vector<std::string> alterations(const Archive& archive, const record::TestRecord& record) {
  Verifier verifier(archive);
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
