#include "core/uncertainty/figure_values.h"

#include <algorithm>
#include <iterator>

#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr std::string_view ids[] = {"mean_ppfd",
                                    "lowest_ppfd",
                                    "highest_ppfd",
                                    "median_ppfd",
                                    "p5_ppfd",
                                    "p95_ppfd",
                                    "sd_ppfd",
                                    "cv",
                                    "ppf_umol_s",
                                    "power_w",
                                    "canopy_efficacy_umol_j",
                                    "ppfd_per_watt",
                                    "power_density_w_m2",
                                    "lowest_over_mean",
                                    "lowest_over_highest",
                                    "highest_over_lowest",
                                    "p5_over_mean",
                                    "centre_ppfd",
                                    "left_right_pct",
                                    "front_back_pct",
                                    "centroid_x_m",
                                    "centroid_y_m",
                                    "dli_mean_mol_m2_d",
                                    "coverage"};

}  // namespace

std::span<const std::string_view> uncertain_figures() { return ids; }

int uncertain_index(std::string_view id) {
  const auto found = std::find(std::begin(ids), std::end(ids), id);
  return found == std::end(ids) ? -1 : static_cast<int>(found - std::begin(ids));
}

std::vector<double> figure_values(const SweepFigures& f, double in_band_share) {
  const auto of_power = [&](double Efficacy::*member) { return f.efficacy ? (*f.efficacy).*member : unread; };
  return {f.mean_ppfd,
          f.lowest.ppfd,
          f.highest.ppfd,
          f.median_ppfd,
          f.p5_ppfd,
          f.p95_ppfd,
          f.sd_ppfd,
          f.cv,
          f.ppf_umol_s,
          f.power_w.value_or(unread),
          of_power(&Efficacy::canopy_efficacy_umol_j),
          of_power(&Efficacy::ppfd_per_watt),
          of_power(&Efficacy::power_density_w_m2),
          f.evenness.lowest_over_mean,
          f.evenness.lowest_over_highest,
          f.evenness.highest_over_lowest,
          f.evenness.p5_over_mean,
          f.centre_ppfd,
          f.balance.left_right_pct,
          f.balance.front_back_pct,
          f.balance.centroid_x_m,
          f.balance.centroid_y_m,
          f.dli_mean_mol_m2_d,
          in_band_share};
}

}  // namespace sunbreak
