#include "report/trust_section.h"

#include <fmt/format.h>

#include <cmath>

#include "core/figures/figure_table.h"
#include "core/uncertainty/budget_words.h"

namespace sunbreak::report {
namespace {

using kainjow::mustache::data;
using List = kainjow::mustache::list;

data budget_row(const std::string& part, const std::string& size, const std::array<std::string, 3>& shares,
                const std::string& origin) {
  data row;
  row.set("part", part);
  row.set("size", size);
  row.set("of_mean", shares[0]);
  row.set("of_efficacy", shares[1]);
  row.set("of_lowest", shares[2]);
  row.set("origin", origin);
  return row;
}

template <typename Value>
std::array<std::string, 3> each(std::string_view evenness_lead, Value value) {
  std::array<std::string, 3> texts;
  for (std::size_t i = 0; i < texts.size(); ++i)
    texts[i] = value(static_cast<std::size_t>(figure_index(budget_columns(evenness_lead)[i])));
  return texts;
}

}  // namespace

void add_trust(data& sweep, const Budget& b, const Evidence& evidence, std::string_view evenness_lead,
               UnitSystem units) {
  sweep.set("grade", std::string(name(evidence.grade)));
  List missing, budget;
  for (const Condition& c : evidence.conditions)
    if (!c.met) missing.push_back(data(told(c)));
  sweep.set("has_missing", !missing.empty());
  sweep.set("missing", data(missing));
  for (const Contribution& c : b.contributions)
    budget.push_back(
        budget_row(std::string(c.label), size_words(c, units),
                   each(evenness_lead, [&](std::size_t k) { return share_words(c.standard[k], b.values[k]); }),
                   origin_words(c.term)));
  budget.push_back(budget_row("One-way pull", "",
                              each(evenness_lead, [&](std::size_t k) { return share_words(b.bias[k], b.values[k]); }),
                              "noise in the lowest of many readings, light that bends between stations"));
  budget.push_back(budget_row(
      "± with k = 2", "",
      each(evenness_lead, [&](std::size_t k) { return share_words(b.expanded(figures()[k].id), b.values[k]); }),
      std::string(expanded_words)));
  sweep.set("evenness_name", std::string(sunbreak::figure(evenness_lead).label));
  sweep.set("budget", data(budget));
  const Contribution* largest = b.largest("mean_ppfd");
  const std::string assumed = assumed_words(b);
  sweep.set("assumed", assumed.empty() ? "" : "Assumed in ±, neither stated nor measured: " + assumed + ".");
  sweep.set("largest", largest ? "Largest part of the mean's: " + std::string(largest->label) + "." : std::string());
}

}  // namespace sunbreak::report
