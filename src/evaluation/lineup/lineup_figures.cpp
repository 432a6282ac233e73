#include "evaluation/lineup/lineup_figures.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>
#include <vector>

#include "evaluation/light_words.h"

namespace sunbreak::evaluation {
namespace {

using From = LineUpFigure::From;

/// Rows of the table that are places, not merits.
bool is_place(std::string_view id) { return id == "centroid_x_m" || id == "centroid_y_m"; }

/// Less of it is better; of signed ones, what is nearer to 0.
bool less_is_better(std::string_view id) {
  static const std::set<std::string_view> ids{
      "sd_ppfd",        "cv",      "highest_over_lowest", "center_minus_corners_ppfd", "left_right_pct",
      "front_back_pct", "power_w", "power_density_w_m2"};
  return ids.contains(id);
}

Needs needed_of(const Figure& f) {
  if (f.id == "power_w") return Needs::Nothing;
  if (f.id == "power_density_w_m2") return Needs::Space;
  const bool of_the_mean = f.sampling == Figure::Sampling::WithMean && f.group != Figure::Group::Evenness;
  return of_the_mean ? Needs::Mean : Needs::All;
}

std::vector<LineUpFigure> make() {
  std::vector<LineUpFigure> all;
  for (const Figure& f : figures()) {
    if (!f.value || is_place(f.id)) continue;
    LineUpFigure& l = all.emplace_back();
    l.id = f.id, l.label = f.label, l.meaning = f.meaning, l.decimals = f.decimals, l.table = &f;
    l.unit = f.unit == "1" ? "" : f.unit;
    l.better = less_is_better(f.id) ? Better::Less : Better::More;
    l.needed = needed_of(f);
  }
  all.push_back({"utilization", "Utilization", "", "Share of the whole light that lands on the footprint",
                 From::WholeLight, Better::More, Needs::Mean, 0, true});
  all.push_back({"whole_ppf_umol_s", "Whole light (PPF)", "µmol/s", "All that the fixture sends out", From::WholeLight,
                 Better::More, Needs::Sensor});
  all.push_back({"whole_efficacy_umol_j", "Whole efficacy", "µmol/J",
                 "All light that the fixture sends out for each joule from the wall", From::WholeLight, Better::More,
                 Needs::Sensor, 2});
  all.push_back({"watts_to_meet_w", "Watts to meet the target", "W",
                 "The least that the wall plug gives where the target is met over the whole footprint", From::Target,
                 Better::Less, Needs::Space | Needs::Sensor});
  all.push_back({"heat_btu_h", "Heat", "BTU/h", "What the room has to get rid of: all watts end as heat", From::Sweep,
                 Better::Less, Needs::Nothing});
  all.push_back({"price_per_umol_s", "Price of light", "per µmol/s", "Price ÷ PPF on the footprint", From::Price,
                 Better::Less, Needs::Mean, 2});
  all.push_back({"cost_per_mol", "Cost of a mole", "per mol",
                 "(Price + energy over the years) ÷ light on the footprint over the years", From::Price, Better::Less,
                 Needs::Mean, 4});
  all.push_back({"cost_over_years", "Cost over the years", "", "Price + energy over the years", From::Price,
                 Better::Less, Needs::Nothing});
  return all;
}

}  // namespace

std::span<const LineUpFigure> lineup_figures() {
  static const std::vector<LineUpFigure> all = make();
  return all;
}

int lineup_figure_index(std::string_view id) {
  const auto all = lineup_figures();
  const auto found = std::ranges::find(all, id, &LineUpFigure::id);
  return found == all.end() ? -1 : static_cast<int>(found - all.begin());
}

double shown_per_stored(const LineUpFigure& f, UnitSystem units) {
  return f.table ? sunbreak::shown_per_stored(*f.table, units) : f.in_percent ? 100 : 1;
}

std::string shown_unit(const LineUpFigure& f, UnitSystem units, std::string_view currency) {
  if (f.table) return sunbreak::shown_unit(*f.table, units);
  if (f.in_percent) return "%";
  if (f.from != LineUpFigure::From::Price) return std::string(f.unit);
  return f.unit.empty() ? std::string(currency) : fmt::format("{} {}", currency, f.unit);
}

std::string shown_value(const LineUpFigure& f, double value, UnitSystem units) {
  if (f.table) return sunbreak::shown_value(*f.table, value, units);
  return std::isnan(value) ? "–" : plain_number(value * shown_per_stored(f, units), f.decimals);
}

namespace {

std::string followed_by(const std::string& text, const std::string& unit) {
  return unit.empty() ? text : text + " " + unit;
}

}  // namespace

Told shown_told(const LineUpFigure& f, double value, double expanded, UnitSystem units) {
  if (f.table) return sunbreak::shown_told(*f.table, value, expanded, units);
  const double per = shown_per_stored(f, units);
  return told(value * per, expanded * per, f.decimals);
}

std::string shown_with_uncertainty(const LineUpFigure& f, double value, double expanded, UnitSystem units,
                                   std::string_view currency) {
  if (std::isnan(value)) return "–";
  return followed_by(shown_told(f, value, expanded, units).text(), shown_unit(f, units, currency));
}

Told told_difference(const LineUpFigure& f, const StandingDifference& d, UnitSystem units) {
  const double per = shown_per_stored(f, units);
  return sunbreak::told_difference(d.value * per, d.expanded * per, f.decimals);
}

std::string shown_difference(const LineUpFigure& f, const StandingDifference& d, UnitSystem units,
                             std::string_view currency) {
  if (std::isnan(d.value)) return "–";
  return followed_by(told_difference(f, d, units).text(), shown_unit(f, units, currency));
}

}  // namespace sunbreak::evaluation
