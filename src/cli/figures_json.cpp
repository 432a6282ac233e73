#include "cli/figures_json.h"

#include "cli/input_output.h"

namespace sunbreak::cli {

using record::Json;

Json coverage_json(const Coverage& c) {
  const auto size = [](const Rectangle& r) { return Json::array({r.width_m, r.depth_m}); };
  return {{"in_band_m2", c.in_band_m2},
          {"in_band_share", c.in_band_share},
          {"too_dim_share", c.too_dim_share},
          {"too_bright_share", c.too_bright_share},
          {"unread_share", c.unread_share},
          {"largest_rectangle_m", size(c.largest_rectangle)},
          {"largest_centred_rectangle_m", size(c.largest_centered_rectangle)},
          {"largest_centred_circle_m", c.largest_centered_circle_m}};
}

Json figures_json(const SweepFigures& f, const Layout& layout, std::span<const double> ppfd) {
  const auto place = [&](const Extreme& e) {
    return Json::array({layout.stations[e.station].x_m, layout.stations[e.station].y_m});
  };
  const FigureSource source(layout, ppfd, f);
  Json j{{"stations", f.stations}, {"missing", f.missing}, {"read_share", f.read_share}, {"area_m2", f.area_m2}};
  for (const Figure& figure : figures()) {
    // These two are published in a richer form.
    if (!figure.value || figure.id == "coverage" || figure.shown == Figure::Shown::Length) continue;
    j[figure.id] = figure.value(source);
    if (figure.id == "lowest_ppfd") j["lowest_at_m"] = place(f.lowest);
    if (figure.id == "highest_ppfd") j["highest_at_m"] = place(f.highest);
  }
  Json rings = Json::array();
  for (const Ring& ring : f.rings) rings.push_back(ring.mean_ppfd);
  j["rings"] = rings;
  j["centroid_m"] = Json::array({f.balance.centroid_x_m, f.balance.centroid_y_m});
  j["coverage"] = f.coverage ? coverage_json(*f.coverage) : Json();
  return j;
}

}  // namespace sunbreak::cli
