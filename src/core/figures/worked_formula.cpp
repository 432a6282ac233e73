#include "core/figures/worked_formula.h"

#include <fmt/format.h>

#include <cmath>

namespace sunbreak {
namespace {

constexpr std::string_view light = "µmol/m²/s";

std::string ratio(double a, double b, double result) { return fmt::format("{:.1f} ÷ {:.1f} = {:.3f}", a, b, result); }

std::string coverage_words(const SweepFigures& f) {
  if (!f.coverage) return {};
  const Coverage& c = *f.coverage;
  return fmt::format("{:.4f} m² between {:.0f} and {:.0f} {} ÷ {:.4f} m² = {:.1f} %", c.in_band_m2, c.band.low,
                     c.band.high, light, f.area_m2, 100 * c.in_band_share);
}

std::string efficacy_words(std::string_view id, const SweepFigures& f) {
  if (!f.efficacy) return {};
  const double watts = *f.power_w;
  if (id == "canopy_efficacy_umol_j")
    return fmt::format("{:.1f} µmol/s ÷ {:.1f} W = {:.3f} µmol/J", f.ppf_umol_s, watts,
                       f.efficacy->canopy_efficacy_umol_j);
  if (id == "ppfd_per_watt")
    return fmt::format("{:.1f} {} ÷ {:.1f} W = {:.3f}", f.mean_ppfd, light, watts, f.efficacy->ppfd_per_watt);
  return fmt::format("{:.1f} W ÷ {:.4f} m² = {:.1f} W/m²", watts, f.area_m2, f.efficacy->power_density_w_m2);
}

}  // namespace

std::string worked_formula(std::string_view id, const SweepFigures& f) {
  const int read = f.stations - f.missing;
  const Evenness& e = f.evenness;
  if (id == "mean_ppfd")
    return fmt::format("sum over {} stations = {:.1f} {} on {:.4f} m²", read, f.mean_ppfd, light, f.area_m2);
  if (id == "ppf_umol_s")
    return fmt::format("{:.1f} {} · {:.4f} m² = {:.1f} µmol/s", f.mean_ppfd, light, f.area_m2, f.ppf_umol_s);
  if (id == "canopy_efficacy_umol_j" || id == "ppfd_per_watt" || id == "power_density_w_m2")
    return efficacy_words(id, f);
  if (id == "lowest_over_mean") return ratio(f.lowest.ppfd, f.mean_ppfd, e.lowest_over_mean);
  if (id == "lowest_over_highest") return ratio(f.lowest.ppfd, f.highest.ppfd, e.lowest_over_highest);
  if (id == "highest_over_lowest" && std::isfinite(e.highest_over_lowest))
    return ratio(f.highest.ppfd, f.lowest.ppfd, e.highest_over_lowest);
  if (id == "p5_over_mean") return ratio(f.p5_ppfd, f.mean_ppfd, e.p5_over_mean);
  if (id == "cv") return fmt::format("{:.1f} ÷ {:.1f} = {:.1f} %", f.sd_ppfd, f.mean_ppfd, 100 * f.cv);
  if (id == "lowest_ppfd") return fmt::format("least of {} readings = {:.1f} {}", read, f.lowest.ppfd, light);
  if (id == "highest_ppfd") return fmt::format("largest of {} readings = {:.1f} {}", read, f.highest.ppfd, light);
  if (id == "dli_mean_mol_m2_d")
    return fmt::format("{:.1f} {} · 3600 s/h · {:.1f} h ÷ 10⁶ = {:.2f} mol/m²/day", f.mean_ppfd, light, f.photoperiod_h,
                       f.dli_mean_mol_m2_d);
  if (id == "coverage") return coverage_words(f);
  return {};
}

}  // namespace sunbreak
