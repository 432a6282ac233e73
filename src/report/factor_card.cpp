#include "report/factor_card.h"

#include <fmt/format.h>

#include <algorithm>
#include <kainjow/mustache.hpp>
#include <vector>

#include "embedded/sunbreak_report.h"
#include "evaluation/lux_walk.h"

namespace sunbreak::report {
namespace {

using kainjow::mustache::data;
using CardRows = kainjow::mustache::list;

/// What a column of the card is headed by.
std::string light_words(const record::FittedLuxFactor& f) {
  const std::string name = f.fixture.empty() ? f.name : f.fixture;
  return f.light_class.empty() ? name : fmt::format("{} ({})", name, f.light_class);
}

std::string found_words(const record::FittedLuxFactor& f) {
  const std::string how = f.source == "paired"
                              ? fmt::format("beside {}", f.reference.empty() ? "a sensor" : f.reference)
                          : f.source == "computed" ? "of its spectrum, by the standard eye"
                                                   : "as stated";
  return f.made_on.empty() ? how : fmt::format("{}, {}", how, f.made_on);
}

}  // namespace

Result<std::string> factor_card(std::span<const record::FittedLuxFactor> factors,
                                std::span<const record::Meter> meters) {
  if (factors.empty())
    return Problem{"There is no lux factor on the shelf", "a card would be empty",
                   "find one first, by Lux factor on Home"};
  std::vector<std::string> lights;
  for (const record::FittedLuxFactor& f : factors)
    if (const std::string light = light_words(f); std::ranges::find(lights, light) == lights.end())
      lights.push_back(light);
  data page;
  page.set("css", std::string(embedded::report_css) + std::string(embedded::web_css));
  CardRows heads;
  for (const std::string& light : lights) {
    data head;
    head.set("light", light);
    heads.push_back(head);
  }
  page.set("lights", heads);
  CardRows rows;
  for (const record::Meter& meter : meters) {
    if (std::ranges::none_of(factors, [&](const auto& f) { return f.meter_id == meter.id; })) continue;
    data row;
    row.set("meter", meter.name);
    CardRows cells;
    for (const std::string& light : lights) {
      data cell;
      CardRows stated;
      for (const record::FittedLuxFactor& f : factors) {
        if (f.meter_id != meter.id || light_words(f) != light) continue;
        data one;
        one.set("k", fmt::format("{:.5f}", f.k));
        if (const auto expanded = evaluation::whole_k_expanded(f))
          one.set("expanded", fmt::format("{:.5f}", *expanded));
        one.set("inverse", fmt::format("{:.2f}", 1 / f.k));
        one.set("levels", fmt::format("{:.0f} to {:.0f} lx", f.lowest_lux, f.highest_lux));
        one.set("found", found_words(f));
        stated.push_back(one);
      }
      if (!stated.empty()) cell.set("factors", stated);
      cells.push_back(cell);
    }
    row.set("cells", cells);
    rows.push_back(row);
  }
  page.set("rows", rows);
  kainjow::mustache::mustache card{std::string(embedded::factor_card_mustache)};
  return card.render(page);
}

}  // namespace sunbreak::report
