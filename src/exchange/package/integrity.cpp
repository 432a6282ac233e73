#include "exchange/package/integrity.h"

#include <fmt/format.h>

#include <cmath>
#include <map>
#include <nlohmann/json.hpp>
#include <stdexcept>

#include "core/figures/figure_table.h"
#include "core/quantity/number.h"
#include "evaluation/configurations.h"
#include "exchange/files/digest.h"
#include "exchange/package/cell_values.h"
#include "exchange/package/package_table.h"

namespace sunbreak::exchange {
namespace {

constexpr double agrees_share = 1e-6, agrees_least = 1e-9;
constexpr std::size_t most_told = 12;

bool agree(double stated, double found) {
  return std::abs(stated - found) <= agrees_least + agrees_share * std::abs(found);
}

std::optional<std::int64_t> whole_number(const std::string& cell) {
  const auto value = value_of_cell(cell, record::Type::Integer);
  return value && std::holds_alternative<std::int64_t>(*value) ? std::optional(std::get<std::int64_t>(*value))
                                                               : std::nullopt;
}

/// Tells what differs, up to a number; then how many more.
class Told {
 public:
  void add(std::string words) {
    if (words_.size() < most_told)
      words_.push_back(std::move(words));
    else
      ++more_;
  }
  std::vector<std::string> all() {
    if (more_ > 0) words_.push_back(fmt::format("and {} more values differ", more_));
    return std::move(words_);
  }

 private:
  std::vector<std::string> words_;
  std::size_t more_ = 0;
};

void compare_resources(const Archive& archive, Told& told) {
  const auto descriptor = nlohmann::json::parse(archive.at("datapackage.json"), nullptr, false);
  if (!descriptor.contains("resources") || !descriptor["resources"].is_array()) return;
  for (const auto& resource : descriptor["resources"]) {
    if (!resource.is_object() || !resource.contains("path") || !resource["path"].is_string()) continue;
    const auto path = resource["path"].get<std::string>();
    const auto member = archive.find(path);
    if (member == archive.end()) {
      told.add(path + " is named in the package but not in it");
      continue;
    }
    const bool other_size = resource.contains("bytes") && resource["bytes"] != member->second.size();
    const bool other_hash = resource.contains("hash") && resource["hash"] != sha256_words(member->second);
    if (other_size || other_hash)
      told.add(fmt::format("{} was changed after it was written: its {} is another one", path,
                           other_hash ? "check sum" : "size"));
  }
}

const evaluation::SweepView* view_of(const evaluation::Evaluations& all, record::Id sweep_id) {
  for (const auto& evaluation : all)
    if (const evaluation::SweepView* view = evaluation->view(sweep_id)) return view;
  return nullptr;
}

void compare_stations(const Archive& archive, const evaluation::Evaluations& all, Told& told) {
  const auto member = archive.find("stations.csv");
  if (member == archive.end()) return;
  PackageTable table("stations", member->second);
  const auto sweep = table.find("sweep_id"), station = table.find("station"), raw = table.find("raw"),
             ppfd = table.find("ppfd_umol_m2_s");
  if (!sweep || !station || !raw || !ppfd) return told.add("stations.csv has other columns than it should");
  while (table.next()) {
    const auto id = whole_number(table.cell(*sweep)), at = whole_number(table.cell(*station));
    const evaluation::SweepView* view = id ? view_of(all, *id) : nullptr;
    if (!view || !at || *at < 0 || *at >= std::ssize(view->states)) {
      told.add(fmt::format("stations.csv, row {}: no such station", table.row()));
      continue;
    }
    const auto i = static_cast<std::size_t>(*at);
    const bool read = view->states[i].kind == evaluation::StationState::Read;
    const auto differs = [&](std::size_t column, double found, const char* what) {
      const auto stated = parse_number(table.cell(column));
      if (stated ? read && agree(*stated, found) : table.cell(column).empty() && !read) return;
      told.add(fmt::format("stations.csv, row {}: {} {} where the readings say {}", table.row(), what,
                           table.cell(column).empty() ? "nothing" : table.cell(column).substr(0, 24),
                           read ? fmt::format("{:.6g}", found) : "nothing"));
    };
    differs(*raw, view->states[i].raw, "raw");
    differs(*ppfd, view->ppfd[i], "PPFD");
  }
}

void compare_figures(const Archive& archive, const evaluation::Evaluations& all, Told& told) {
  const auto member = archive.find("figures.csv");
  if (member == archive.end()) return;
  PackageTable table("figures", member->second);
  const auto sweep = table.find("sweep_id"), name = table.find("figure"), value = table.find("value");
  if (!sweep || !name || !value) return told.add("figures.csv has other columns than it should");
  std::map<record::Id, std::map<std::string, double>> found;
  for (const auto& evaluation : all)
    for (const auto& [id, view] : evaluation->views()) {
      const SweepFigures* f = evaluation->figures(id);
      if (!f) continue;
      const FigureSource source(view->layout, view->ppfd, *f);
      for (const Figure& figure : figures())
        if (figure.value) found[id][std::string(figure.id)] = figure.value(source);
    }
  while (table.next()) {
    const auto id = whole_number(table.cell(*sweep));
    const auto stated = parse_number(table.cell(*value));
    const auto own = id ? found.find(*id) : found.end();
    if (own == found.end()) {
      told.add(fmt::format("figures.csv, row {}: of a sweep that has no readings", table.row()));
      continue;
    }
    const auto figure = own->second.find(table.cell(*name));
    if (figure == own->second.end()) continue;  // one that this version does not know
    if (!stated || !agree(*stated, figure->second))
      told.add(fmt::format("figures.csv, row {}: {} {} where {:.6g} comes out of the readings", table.row(),
                           figure->first, table.cell(*value).substr(0, 24), figure->second));
  }
}

}  // namespace

std::string sha256_words(std::string_view bytes) { return "sha256:" + sha256_digits(bytes); }

std::vector<std::string> alterations(const Archive& archive, const record::TestRecord& record) {
  Told told;
  compare_resources(archive, told);
  const evaluation::Evaluations all = evaluation::evaluate_all(record);
  for (const auto compare : {compare_stations, compare_figures}) try {
      compare(archive, all, told);
    } catch (const std::runtime_error& e) {
      told.add(e.what());  // what cannot be read of it is not as it was written either
    }
  return told.all();
}

}  // namespace sunbreak::exchange
