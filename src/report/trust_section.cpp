#include "report/trust_section.h"

#include <fmt/format.h>

#include <cmath>

#include "core/uncertainty/figure_values.h"

namespace sunbreak::report {
namespace {

using kainjow::mustache::data;
using List = kainjow::mustache::list;

constexpr std::string_view columns[] = {"mean_ppfd", "canopy_efficacy_umol_j", "lowest_over_mean"};

std::string share(double part, double whole) {
  return std::isfinite(whole) && whole != 0 ? fmt::format("{:.2f} %", 100 * part / std::abs(whole)) : "–";
}

std::string size_of(const Contribution& c) {
  if (c.term.value <= 0) return "";
  return c.in_meters ? fmt::format("{:.1f} mm", 1000 * c.term.value) : fmt::format("{:.2f} %", 100 * c.term.value);
}

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
std::array<std::string, 3> each(Value value) {
  std::array<std::string, 3> texts;
  for (std::size_t i = 0; i < texts.size(); ++i)
    texts[i] = value(columns[i], static_cast<std::size_t>(uncertain_index(columns[i])));
  return texts;
}

}  // namespace

std::string plus_minus(const Budget& budget, std::string_view id, double scale, int decimals) {
  const double expanded = scale * budget.expanded(id);
  return std::isfinite(expanded) ? fmt::format("± {:.{}f}", expanded, decimals) : "";
}

void add_trust(data& sweep, const book::SweepJudgement& judged) {
  const Budget& b = judged.budget;
  sweep.set("grade", std::string(name(judged.evidence.grade)));
  List missing, budget;
  for (const Condition& c : judged.evidence.conditions)
    if (!c.met) missing.push_back(data(c.saw));
  sweep.set("has_missing", !missing.empty());
  sweep.set("missing", data(missing));
  for (const Contribution& c : b.contributions) {
    const char* origin = c.term.origin == Origin::Measured ? "measured: "
                         : c.term.origin == Origin::Stated ? ""
                                                           : "assumed: ";
    budget.push_back(budget_row(std::string(c.label), size_of(c),
                                each([&](auto, std::size_t k) { return share(c.standard[k], b.values[k]); }),
                                origin + c.term.words));
  }
  budget.push_back(budget_row("One-way pull", "",
                              each([&](auto, std::size_t k) { return share(std::abs(b.bias[k]), b.values[k]); }),
                              "noise in the lowest of many readings, light that bends between stations"));
  budget.push_back(budget_row(
      "± with k = 2", "", each([&](std::string_view id, std::size_t k) { return share(b.expanded(id), b.values[k]); }),
      "twice the quadratic sum, plus the pull"));
  sweep.set("budget", data(budget));
  const Contribution* largest = b.largest("mean_ppfd");
  sweep.set("largest", largest ? "Largest part of the mean's: " + std::string(largest->label) + "." : std::string());
}

}  // namespace sunbreak::report
