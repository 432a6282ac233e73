#include "cli/figures_json.h"

#include "cli/input_output.h"

namespace sunbreak::cli {

using nlohmann::ordered_json;

ordered_json coverage_json(const Coverage& c) {
  const auto size = [](const Rectangle& r) { return ordered_json{r.width_m, r.depth_m}; };
  return {{"in_band_m2", c.in_band_m2},
          {"in_band_share", c.in_band_share},
          {"too_dim_share", c.too_dim_share},
          {"too_bright_share", c.too_bright_share},
          {"unread_share", c.unread_share},
          {"largest_rectangle_m", size(c.largest_rectangle)},
          {"largest_centred_rectangle_m", size(c.largest_centred_rectangle)},
          {"largest_centred_circle_m", c.largest_centred_circle_m}};
}

ordered_json figures_json(const SweepFigures& f, const Layout& layout) {
  const auto place = [&](const Extreme& e) {
    return ordered_json{layout.stations[e.station].x_m, layout.stations[e.station].y_m};
  };
  ordered_json rings = ordered_json::array();
  for (const Ring& ring : f.rings) rings.push_back(number(ring.mean_ppfd));
  ordered_json j{{"stations", f.stations},
                 {"missing", f.missing},
                 {"read_share", f.read_share},
                 {"area_m2", f.area_m2},
                 {"mean_ppfd", number(f.mean_ppfd)},
                 {"lowest_ppfd", f.lowest.ppfd},
                 {"lowest_at_m", place(f.lowest)},
                 {"highest_ppfd", f.highest.ppfd},
                 {"highest_at_m", place(f.highest)},
                 {"median_ppfd", f.median_ppfd},
                 {"p5_ppfd", f.p5_ppfd},
                 {"p95_ppfd", f.p95_ppfd},
                 {"sd_ppfd", f.sd_ppfd},
                 {"cv", number(f.cv)},
                 {"ppf_umol_s", f.ppf_umol_s}};
  j["power_w"] = f.power_w ? number(*f.power_w) : ordered_json(nullptr);
  j["canopy_efficacy_umol_j"] = f.efficacy ? number(f.efficacy->canopy_efficacy_umol_j) : ordered_json(nullptr);
  j["ppfd_per_watt"] = f.efficacy ? number(f.efficacy->ppfd_per_watt) : ordered_json(nullptr);
  j["power_density_w_m2"] = f.efficacy ? number(f.efficacy->power_density_w_m2) : ordered_json(nullptr);
  j["lowest_over_mean"] = number(f.evenness.lowest_over_mean);
  j["lowest_over_highest"] = number(f.evenness.lowest_over_highest);
  j["highest_over_lowest"] = number(f.evenness.highest_over_lowest);
  j["p5_over_mean"] = number(f.evenness.p5_over_mean);
  j["rings"] = rings;
  j["centre_ppfd"] = number(f.centre_ppfd);
  j["left_right_pct"] = number(f.balance.left_right_pct);
  j["front_back_pct"] = number(f.balance.front_back_pct);
  j["centroid_m"] = {number(f.balance.centroid_x_m), number(f.balance.centroid_y_m)};
  j["dli_mean_mol_m2_d"] = number(f.dli_mean_mol_m2_d);
  j["coverage"] = f.coverage ? coverage_json(*f.coverage) : ordered_json(nullptr);
  return j;
}

}  // namespace sunbreak::cli
