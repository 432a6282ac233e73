#include <fmt/format.h>
#include <algorithm>
#include <chrono>
#include <cmath>
#include <nlohmann/json.hpp>

#include "core/figures/area_curve.h"
#include "peer.h"
#include "sample_sweep.h"

using namespace sunbreak;
using bench::median;
using bench::Peer;
using nlohmann::json;

namespace {

constexpr int rounds = 41;
constexpr double equal_to = 1e-9;

json as_json(const SweepFigures& f, const std::vector<double>& areas) {
  json rings = json::array(), nominal = json::array();
  for (const Ring& r : f.rings) rings.push_back(r.mean_ppfd);
  for (const NominalFootprint& size : f.nominal)
    nominal.insert(nominal.end(), {size.light.mean, size.light.edge, size.light.in_band});
  const Coverage& c = *f.coverage;
  return {{"mean_ppfd", f.mean_ppfd},
          {"lowest_ppfd", f.lowest.ppfd},
          {"highest_ppfd", f.highest.ppfd},
          {"median_ppfd", f.median_ppfd},
          {"p5_ppfd", f.p5_ppfd},
          {"p95_ppfd", f.p95_ppfd},
          {"sd_ppfd", f.sd_ppfd},
          {"cv", f.cv},
          {"ppf_umol_s", f.ppf_umol_s},
          {"canopy_efficacy_umol_j", f.efficacy->canopy_efficacy_umol_j},
          {"ppfd_per_watt", f.efficacy->ppfd_per_watt},
          {"power_density_w_m2", f.efficacy->power_density_w_m2},
          {"lowest_over_mean", f.evenness.lowest_over_mean},
          {"lowest_over_highest", f.evenness.lowest_over_highest},
          {"highest_over_lowest", f.evenness.highest_over_lowest},
          {"p5_over_mean", f.evenness.p5_over_mean},
          {"rings", rings},
          {"centre_ppfd", f.center_ppfd},
          {"left_right_pct", f.balance.left_right_pct},
          {"front_back_pct", f.balance.front_back_pct},
          {"centroid_m", {f.balance.centroid_x_m, f.balance.centroid_y_m}},
          {"dli_mean_mol_m2_d", f.dli_mean_mol_m2_d},
          {"in_band_share", c.in_band_share},
          {"too_dim_share", c.too_dim_share},
          {"too_bright_share", c.too_bright_share},
          {"largest_rectangle_m", {c.largest_rectangle.width_m, c.largest_rectangle.depth_m}},
          {"largest_centred_rectangle_m", {c.largest_centered_rectangle.width_m, c.largest_centered_rectangle.depth_m}},
          {"largest_centred_circle_m", c.largest_centered_circle_m},
          {"nominal", nominal},
          {"area_curve_m2", areas}};
}

/// The first figure in which the two differ by more than 1e-9 of its size, or nothing.
std::string difference(const json& ours, const json& peer) {
  if (ours.size() != peer.size()) return "a figure that one of them lacks";
  for (const auto& [key, value] : ours.items()) {
    if (!peer.contains(key)) return key;
    const json a = value.is_array() ? value : json::array({value}),
               b = peer[key].is_array() ? peer[key] : json::array({peer[key]});
    if (a.size() != b.size()) return key;
    for (std::size_t i = 0; i < a.size(); ++i) {
      const double x = a[i].get<double>(), y = b[i].get<double>();
      if (std::abs(x - y) > equal_to * std::max(1.0, std::abs(y)))
        return fmt::format("{}[{}]: {} and {}", key, i, x, y);
    }
  }
  return {};
}

}  // namespace

/// All figures, the 1 cm field and the coverage of a 48 × 48 sweep, ours and the NumPy script's in turn; medians.
int main(int argc, char** argv) {
  if (argc != 2) return 2;
  try {
    const auto s = bench::sample_sweep(48, 48);
    json question = bench::plan_json(s);
    question["ppfd"] = s.ppfd;
    question["low"] = s.context.target->low;
    question["high"] = s.context.target->high;
    Peer peer(argv[1]);
    peer.send(question.dump());
    const std::vector<double> levels = bench::area_levels();
    std::vector<double> ours_ms, peer_ms;
    for (int round = 0; round < rounds; ++round) {
      const auto begun = std::chrono::steady_clock::now();
      const auto figures = sweep_figures(s.layout, s.ppfd, s.context);
      const AreaCurve curve(Field(s.layout, s.ppfd).raster());
      std::vector<double> areas;
      for (const double level : levels) areas.push_back(curve.area_m2_at_or_above(level));
      ours_ms.push_back(std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begun).count());
      const json answer = peer.ask();
      peer_ms.push_back(answer["ms"]);
      if (const std::string key = difference(as_json(*figures, areas), answer["figures"]); !key.empty()) {
        fmt::print(stderr, "figures-48: the two do not agree: {}\n", key);
        return 1;
      }
    }
    fmt::print("figures-48 {:.3f} {:.3f} {:.1f}\n", median(ours_ms), median(peer_ms),
               median(peer_ms) / median(ours_ms));
    return 0;
  } catch (const std::exception& e) {
    fmt::print(stderr, "figures-48: {}\n", e.what());
    return 1;
  }
}
