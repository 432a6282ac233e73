#include <fmt/format.h>

#include <chrono>
#include <cmath>
#include <filesystem>

#include "array_file.h"
#include "core/settle/settle_maker.h"
#include "five_heights.h"
#include "peer.h"

using namespace sunbreak;
using bench::json;

namespace {

constexpr int rounds = 9, heights = 60, settings = 60;
constexpr Band band{200, 400};

double milliseconds_since(std::chrono::steady_clock::time_point begun) {
  return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begun).count();
}

}  // namespace

/// The field of Settle, 60 heights × 60 settings of 2,304 places, by ours and by NumPy on the same arrays; and what the
/// maps of the 60 heights take from a fitted model.
int main(int argc, char** argv) {
  if (argc != 2) return 2;
  const std::filesystem::path file = std::filesystem::temp_directory_path() / fmt::format("settle-arrays-{}", getpid());
  try {
    const WholeLightQuestion q = bench::five_heights();
    const WholeLight found = whole_light(q);
    if (!found.fits) throw std::runtime_error(found.reason);
    const BetweenHeights between(q, found, left_out_heights(q, found));
    const auto [low, high] = between.reach_m();
    std::vector<double> heights_m;
    for (int h = 0; h < heights; ++h) heights_m.push_back(low + (high - low) * h / (heights - 1));
    std::vector<double> maps_ms;
    SettleMaps maps;
    for (int round = 0; round < 3; ++round) {
      const auto begun = std::chrono::steady_clock::now();
      const SettleMaker maker(q, between, {0, 0, 1.2, 1.2});
      maps.lattice = maker.lattice();
      maps.heights = maker.heights(heights_m, 0.45);
      maps_ms.push_back(milliseconds_since(begun));
    }
    const std::size_t places = maps.lattice.places.size();
    const std::vector<double> mean = maps.lattice.plan.mean_weights(places),
                              edge = maps.lattice.plan.edge_weights(places);
    std::vector<double> stations;
    std::vector<float> cells, factors;
    for (const auto& height : maps.heights) {
      const SettlePattern& p = height->patterns.front();
      stations.insert(stations.end(), p.ppfd.begin(), p.ppfd.end());
      cells.insert(cells.end(), p.sorted.begin(), p.sorted.end());
    }
    for (int s = 0; s < settings; ++s) {
      const double factor = 0.1 + 0.9 * s / (settings - 1);
      factors.push_back(static_cast<float>(factor));
      maps.settings.push_back({100 * factor, factor, 0, 300 * factor, 0, 0, 0});
    }
    std::vector<double> ours_ms;
    std::vector<AreaLight> field(maps.heights.size() * maps.settings.size());
    for (int round = 0; round < rounds; ++round) {
      const auto begun = std::chrono::steady_clock::now();
      std::size_t i = 0;
      for (const auto& height : maps.heights)
        for (const SettleSetting& setting : maps.settings) field[i++] = settle_figures(*height, setting, band);
      ours_ms.push_back(milliseconds_since(begun));
    }
    json sums{{"mean", 0.0}, {"edge", 0.0}, {"lowest", 0.0}, {"highest", 0.0}, {"in_band", 0.0}, {"even", 0.0}};
    for (const AreaLight& f : field)
      for (const auto& [name, value] : {std::pair{"mean", f.mean},
                                        {"edge", f.edge},
                                        {"lowest", f.lowest},
                                        {"highest", f.highest},
                                        {"in_band", f.in_band},
                                        {"even", f.lowest_over_mean()}})
        sums[name] = sums[name].get<double>() + value;

    bench::ArrayFile arrays(file);
    const std::size_t count = maps.heights.size();
    arrays.add("cells", cells, {count, cells.size() / count});
    arrays.add("stations", stations, {count, places});
    arrays.add("mean", mean, {places});
    arrays.add("edge", edge, {places});
    arrays.add("factors", factors, {factors.size()});
    json numbers = json::parse(arrays.header());
    numbers.update({{"low", band.low}, {"high", band.high}});
    bench::Peer peer(argv[1]);
    peer.send(numbers.dump());
    std::vector<double> theirs_ms;
    for (int round = 0; round < rounds; ++round) {
      const json answer = peer.ask();
      theirs_ms.push_back(answer["ms"]);
      for (const auto& [name, sum] : answer["sums"].items())
        if (std::abs(sum.get<double>() / sums[name].get<double>() - 1) > 1e-3)
          throw std::runtime_error(fmt::format("{} differs: {} and {}", name, sums[name].dump(), sum.dump()));
    }
    std::filesystem::remove(file);
    fmt::print("settle-60x60 {:.2f} {:.1f} {:.1f}\n", bench::median(ours_ms), bench::median(theirs_ms),
               bench::median(theirs_ms) / bench::median(ours_ms));
    fmt::print("settle-maps-60 {:.0f} - -\n", bench::median(maps_ms));
    return 0;
  } catch (const std::exception& e) {
    std::filesystem::remove(file);
    fmt::print(stderr, "settle-60x60: {}\n", e.what());
    return 1;
  }
}
