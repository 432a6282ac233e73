#include "core/figures/definitions.h"

#include <algorithm>
#include <stdexcept>
#include <string>

namespace sunbreak {
namespace {

constexpr FigureDefinition table[] = {
    {"mean_ppfd", "Mean PPFD", "µmol/m²/s",
     "Photons between 400 and 700 nm that reach each square meter each second, averaged over the measured area",
     "Σ weight · PPFD, weights by the area each station stands for"},
    {"lowest_ppfd", "Lowest", "µmol/m²/s", "The lowest reading, at the station named; never an interpolated value",
     "min PPFD"},
    {"highest_ppfd", "Highest", "µmol/m²/s", "The highest reading, at the station named; never an interpolated value",
     "max PPFD"},
    {"median_ppfd", "Median", "µmol/m²/s", "Half of the stations read less",
     "50th percentile, linear between order statistics"},
    {"p5_ppfd", "5th percentile", "µmol/m²/s", "One station in twenty reads less",
     "5th percentile, linear between order statistics"},
    {"p95_ppfd", "95th percentile", "µmol/m²/s", "One station in twenty reads more",
     "95th percentile, linear between order statistics"},
    {"sd_ppfd", "Standard deviation", "µmol/m²/s", "The usual distance of a place from the mean",
     "√ Σ weight · (PPFD − mean)²"},
    {"cv", "Spread (CV)", "%", "Standard deviation in percent of the mean", "SD ÷ mean"},
    {"ppf_umol_s", "PPF on the footprint", "µmol/s", "Photons that reach the measured area each second",
     "mean PPFD · area"},
    {"power_w", "Wall power", "W", "Input power at the wall plug, driver losses included", "as read"},
    {"canopy_efficacy_umol_j", "Canopy efficacy", "µmol/J",
     "Photons on the measured area for each joule from the wall; light lost to walls and outside the area is not in it",
     "PPF on the footprint ÷ wall power"},
    {"ppfd_per_watt", "PPFD per watt", "µmol/m²/s/W", "Another quantity than efficacy: it depends on the area",
     "mean PPFD ÷ wall power"},
    {"power_density_w_m2", "Power density", "W/m²", "Wall power spread over the measured area", "wall power ÷ area"},
    {"lowest_over_mean", "lowest ÷ mean", "", "How far the dimmest station falls below the mean; 1 is perfectly even",
     "lowest ÷ mean PPFD"},
    {"lowest_over_highest", "lowest ÷ highest", "", "The dimmest station beside the brightest; 1 is perfectly even",
     "lowest ÷ highest"},
    {"highest_over_lowest", "highest ÷ lowest", "", "The brightest station beside the dimmest; 1 is perfectly even",
     "highest ÷ lowest"},
    {"p5_over_mean", "5th percentile ÷ mean", "", "As lowest ÷ mean, steadier on dense grids",
     "5th percentile ÷ mean PPFD"},
    {"rings", "Rings, wall to center", "µmol/m²/s", "Mean of each closed line of stations, from the wall inwards",
     "plain mean of the ring's stations"},
    {"centre_ppfd", "Center", "µmol/m²/s", "Mean of the one, two or four stations nearest the middle", "plain mean"},
    {"left_right_pct", "Left to right", "%", "Positive: the right half is brighter", "(right mean − left mean) ÷ mean"},
    {"front_back_pct", "Front to back", "%", "Positive: the half away from the door is brighter",
     "(back mean − front mean) ÷ mean"},
    {"centroid_m", "Light's centroid", "cm",
     "Where the light balances, from the middle: right and away from the door are positive",
     "Σ weight · PPFD · place ÷ Σ weight · PPFD"},
    {"dli_mean_mol_m2_d", "Daily light (DLI)", "mol/m²/day",
     "Photons a square meter collects in a day at the stated photoperiod", "mean PPFD · 3600 · hours ÷ 10⁶"},
    {"coverage", "In band", "%",
     "Share of the measured area whose PPFD lies inside the target's band, on the field at 1 cm",
     "area in band ÷ measured area"},
    {"area_curve", "Area at or above", "m²",
     "How much of the measured area reaches at least each PPFD, on the field at 1 cm", "area where PPFD ≥ E"},
    {"nominal", "Nominal footprints", "", "Usual growing areas centered in the measured one",
     "passes where at least 90 % is in band and the mean along its edge is at least the band's low end"},
};

}  // namespace

std::span<const FigureDefinition> figure_definitions() { return table; }

const FigureDefinition& figure_definition(std::string_view id) {
  const auto found = std::find_if(std::begin(table), std::end(table), [&](const auto& d) { return d.id == id; });
  if (found == std::end(table)) throw std::logic_error("no such figure: " + std::string(id));
  return *found;
}

}  // namespace sunbreak
