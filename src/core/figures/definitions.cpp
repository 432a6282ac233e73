#include "core/figures/definitions.h"

#include <algorithm>
#include <stdexcept>
#include <string>

namespace sunbreak {
namespace {

constexpr FigureDefinition table[] = {
    {"mean_ppfd", "Mean PPFD", "µmol/m²/s",
     "Photons between 400 and 700 nm that reach each square meter each second, averaged over the measured area",
     "Σ weight · PPFD, weights by the area each station stands for",
     "readings, their weights, the measured area; height, dimmer, walls and door"},
    {"lowest_ppfd", "Lowest", "µmol/m²/s", "The lowest reading, at the station named; never an interpolated value",
     "min PPFD", "one reading: more stations nearer the walls make it lower"},
    {"highest_ppfd", "Highest", "µmol/m²/s", "The highest reading, at the station named; never an interpolated value",
     "max PPFD", "one reading: more stations make it higher"},
    {"median_ppfd", "Median", "µmol/m²/s", "Half of the stations read less",
     "50th percentile, linear between order statistics", "readings, the grid"},
    {"p5_ppfd", "5th percentile", "µmol/m²/s", "One station in twenty reads less",
     "5th percentile, linear between order statistics", "readings, the grid"},
    {"p95_ppfd", "95th percentile", "µmol/m²/s", "One station in twenty reads more",
     "95th percentile, linear between order statistics", "readings, the grid"},
    {"sd_ppfd", "Standard deviation", "µmol/m²/s", "The usual distance of a place from the mean",
     "√ Σ weight · (PPFD − mean)²", "readings and reading noise, the grid"},
    {"cv", "Spread (CV)", "%", "Standard deviation in percent of the mean", "SD ÷ mean",
     "readings and reading noise, the grid; not the sensor's calibration"},
    {"ppf_umol_s", "PPF on the footprint", "µmol/s", "Photons that reach the measured area each second",
     "mean PPFD · area", "mean PPFD and the measured area"},
    {"power_w", "Wall power", "W", "Input power at the wall plug, driver losses included", "as read",
     "wall meter, mains voltage, warm-up"},
    {"canopy_efficacy_umol_j", "Canopy efficacy", "µmol/J",
     "Photons on the measured area for each joule from the wall; light lost to walls and outside the area is not in it",
     "PPF on the footprint ÷ wall power",
     "mean PPFD, measured area, watts; walls and height, since lost light is not in it"},
    {"ppfd_per_watt", "PPFD per watt", "µmol/m²/s/W", "Another quantity than efficacy: it depends on the area",
     "mean PPFD ÷ wall power", "mean PPFD and watts; falls as the area grows"},
    {"power_density_w_m2", "Power density", "W/m²", "Wall power spread over the measured area", "wall power ÷ area",
     "watts and the measured area"},
    {"lowest_over_mean", "lowest ÷ mean", "", "How far the dimmest station falls below the mean; 1 is perfectly even",
     "lowest ÷ mean PPFD", "the lowest reading and the mean; the grid's density; not the sensor's calibration"},
    {"lowest_over_highest", "lowest ÷ highest", "", "The dimmest station beside the brightest; 1 is perfectly even",
     "lowest ÷ highest", "two readings; the grid's density; not the sensor's calibration"},
    {"highest_over_lowest", "highest ÷ lowest", "", "The brightest station beside the dimmest; 1 is perfectly even",
     "highest ÷ lowest", "two readings; the grid's density; not the sensor's calibration"},
    {"p5_over_mean", "5th percentile ÷ mean", "", "As lowest ÷ mean, steadier on dense grids",
     "5th percentile ÷ mean PPFD", "readings; less on the grid's density than the lowest"},
    {"rings", "Rings, wall to center", "µmol/m²/s", "Mean of each closed line of stations, from the wall inwards",
     "plain mean of the ring's stations", "readings of each ring, the grid"},
    {"centre_ppfd", "Center", "µmol/m²/s", "Mean of the one, two or four stations nearest the middle", "plain mean",
     "one, two or four readings"},
    {"left_right_pct", "Left to right", "%", "Positive: the right half is brighter", "(right mean − left mean) ÷ mean",
     "readings; how level and centered the fixture hangs"},
    {"front_back_pct", "Front to back", "%", "Positive: the half away from the door is brighter",
     "(back mean − front mean) ÷ mean", "readings; how level and centered the fixture hangs"},
    {"centroid_m", "Light's centroid", "cm",
     "Where the light balances, from the middle: right and away from the door are positive",
     "Σ weight · PPFD · place ÷ Σ weight · PPFD", "readings; how level and centered the fixture hangs"},
    {"dli_mean_mol_m2_d", "Daily light (DLI)", "mol/m²/day",
     "Photons a square meter collects in a day at the stated photoperiod", "mean PPFD · 3600 · hours ÷ 10⁶",
     "mean PPFD and the photoperiod"},
    {"coverage", "In band", "%",
     "Share of the measured area whose PPFD lies inside the target's band, on the field at 1 cm",
     "area in band ÷ measured area", "readings, the target's band and, for a band of daily light, the photoperiod"},
    {"area_curve", "Area at or above", "m²",
     "How much of the measured area reaches at least each PPFD, on the field at 1 cm", "area where PPFD ≥ E",
     "readings and the measured area"},
    {"nominal", "Nominal footprints", "", "Usual growing areas centered in the measured one",
     "passes where at least 90 % is in band and the mean along its edge is at least the band's low end",
     "readings, the target's band, the size of the area"},
};

}  // namespace

std::span<const FigureDefinition> figure_definitions() { return table; }

double shown_per_stored(std::string_view id, UnitSystem units) {
  if (id == "power_density_w_m2") return units == UnitSystem::Imperial ? 1 / square_feet(1) : 1;
  if (id == "centroid_m") return 1 / meters_per(surface_unit(units));
  return figure_definition(id).unit == "%" && !id.ends_with("_pct") ? 100 : 1;
}

const FigureDefinition& figure_definition(std::string_view id) {
  const auto found = std::find_if(std::begin(table), std::end(table), [&](const auto& d) { return d.id == id; });
  if (found == std::end(table)) throw std::logic_error("no such figure: " + std::string(id));
  return *found;
}

}  // namespace sunbreak
