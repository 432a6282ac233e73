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
          {"largest_centred_rectangle_m", size(c.largest_centered_rectangle)},
          {"largest_centred_circle_m", c.largest_centered_circle_m}};
}

ordered_json figures_json(const SweepFigures& f, const Layout& layout, std::span<const double> ppfd) {
  const auto place = [&](const Extreme& e) {
    return ordered_json{layout.stations[e.station].x_m, layout.stations[e.station].y_m};
  };
  const FigureSource source(layout, ppfd, f);
  ordered_json j{
      {"stations", f.stations}, {"missing", f.missing}, {"read_share", f.read_share}, {"area_m2", f.area_m2}};
  for (const Figure& figure : figures()) {
    // These two are published in a richer form.
    if (!figure.value || figure.id == "coverage" || figure.shown == Figure::Shown::Length) continue;
    j[std::string(figure.id)] = number(figure.value(source));
    if (figure.id == "lowest_ppfd") j["lowest_at_m"] = place(f.lowest);
    if (figure.id == "highest_ppfd") j["highest_at_m"] = place(f.highest);
  }
  ordered_json rings = ordered_json::array();
  for (const Ring& ring : f.rings) rings.push_back(number(ring.mean_ppfd));
  j["rings"] = rings;
  j["centroid_m"] = {number(f.balance.centroid_x_m), number(f.balance.centroid_y_m)};
  j["coverage"] = f.coverage ? coverage_json(*f.coverage) : ordered_json(nullptr);
  return j;
}

}  // namespace sunbreak::cli
