#include <fmt/format.h>
#include <chrono>
#include <cmath>
#include <nlohmann/json.hpp>

#include "core/figures/area_curve.h"
#include "core/targets/target_fit.h"
#include "peer.h"
#include "sample_sweep.h"

using namespace sunbreak;
using bench::median;
using nlohmann::json;

namespace {

constexpr int heights = 10, stops = 6, side = 48, rounds = 11, peer_rounds = 3;
constexpr double equal_to = 1e-9;
const std::vector<Band> bands{{100, 200}, {150, 300}, {300, 600}, {600, 1000}, {900, 1200}};

/// The figures that are held against each other, all of them summed over targets and sweeps.
struct Sums {
  double mean = 0, lowest_over_mean = 0, in_band = 0, rectangles_m2 = 0, centered_m2 = 0, circles_m = 0, areas_m2 = 0;
  json as_json() const {
    return {{"mean", mean},
            {"lowest_over_mean", lowest_over_mean},
            {"in_band", in_band},
            {"rectangles_m2", rectangles_m2},
            {"centered_m2", centered_m2},
            {"circles_m", circles_m},
            {"areas_m2", areas_m2}};
  }
};

Sums work_out(const bench::SampleSweep& plan, const std::vector<std::vector<double>>& sweeps,
              const std::vector<double>& levels) {
  Sums sums;
  for (const auto& ppfd : sweeps) {
    FigureContext without = plan.context;
    without.target.reset();
    const auto f = sweep_figures(plan.layout, ppfd, without);
    const Field field(plan.layout, ppfd);
    sums.mean += f->mean_ppfd;
    sums.lowest_over_mean += f->evenness.lowest_over_mean;
    for (const TargetFit& fit : target_fits(plan.layout, ppfd, bands, {})) {
      const Coverage& c = fit.coverage;
      sums.in_band += c.in_band_share;
      sums.rectangles_m2 += c.largest_rectangle.area_m2();
      sums.centered_m2 += c.largest_centered_rectangle.area_m2();
      sums.circles_m += c.largest_centered_circle_m;
    }
    const AreaCurve curve(field.raster());
    for (const double level : levels) sums.areas_m2 += curve.area_m2_at_or_above(level);
  }
  return sums;
}

}  // namespace

/// A lattice of ten heights by six dimmer settings, each a sweep of 48 × 48: every figure of each, with the coverage of
/// five targets, ours and the NumPy script's; medians.
int main(int argc, char** argv) {
  if (argc != 2) return 2;
  try {
    const bench::SampleSweep plan = bench::sample_sweep(side, side);
    std::vector<std::vector<double>> sweeps;
    for (int h = 0; h < heights; ++h)
      for (int s = 0; s < stops; ++s) {
        sweeps.push_back(plan.ppfd);
        for (double& e : sweeps.back()) e *= (0.5 + 0.07 * h) * (1 - 0.15 * s);
      }
    json question = bench::plan_json(plan);
    question["sweeps"] = sweeps;
    for (const Band& band : bands) question["bands"].push_back({band.low, band.high});
    bench::Peer peer(argv[1]);
    peer.send(question.dump());
    const std::vector<double> levels = bench::area_levels();
    std::vector<double> ours_ms, peer_ms;
    for (int round = 0; round < rounds; ++round) {
      const auto begun = std::chrono::steady_clock::now();
      const json ours = work_out(plan, sweeps, levels).as_json();
      ours_ms.push_back(std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begun).count());
      if (round >= peer_rounds) continue;
      const json answer = peer.ask();
      peer_ms.push_back(answer["ms"]);
      for (const auto& [key, value] : ours.items())
        if (const double theirs = answer["figures"].at(key);
            std::abs(value.get<double>() - theirs) > equal_to * theirs) {
          fmt::print(stderr, "lattice-60: the two do not agree: {} is {} and {}\n", key, value.get<double>(), theirs);
          return 1;
        }
    }
    fmt::print("lattice-60 {:.3f} {:.3f} {:.1f}\n", median(ours_ms), median(peer_ms),
               median(peer_ms) / median(ours_ms));
    return 0;
  } catch (const std::exception& e) {
    fmt::print(stderr, "lattice-60: {}\n", e.what());
    return 1;
  }
}
