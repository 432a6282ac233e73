#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <numeric>
#include <thread>

#include "core/bench/walk_order.h"
#include "core/figures/figure_table.h"
#include "core/quantity/normal_deviates.h"
#include "core/sweep/drift.h"
#include "core/uncertainty/budget.h"
#include "core/uncertainty/height_slope.h"
#include "core/uncertainty/observed_terms.h"
#include "made_light.h"

using namespace sunbreak;

namespace {

constexpr int measurements = 1000;
constexpr std::uint64_t usual_seed = 20261202;
constexpr double held_least = 92, held_most = 98, apart_most = 6;
constexpr double watts = 300;

const std::vector<const char*> counted{"mean_ppfd",        "canopy_efficacy_umol_j",
                                       "ppf_umol_s",       "lowest_ppfd",
                                       "highest_ppfd",     "centre_ppfd",
                                       "edge_ppfd",        "cv",
                                       "lowest_over_mean", "lowest_over_highest",
                                       "p5_over_mean"};

using Values = std::vector<double>;

struct Scene {
  const char* name;
  double width_m, depth_m, mirror;
  std::vector<Glow> lamp;
  double height_m;
  std::vector<double> other_rungs_m;
  Grid grid;
  double noise, place_m;
  int repeated;       ///< stations that are read again, twice each
  double read = 1.0;  ///< share of the stations
};

/// Points over a rectangle about a place, equally strong.
std::vector<Glow> points(double x_m, double y_m, double width_m, double depth_m, int across, int deep, double light,
                         double exponent = 1, double wing = 0, double hood_deg = 90) {
  std::vector<Glow> all;
  for (int i = 0; i < across; ++i)
    for (int j = 0; j < deep; ++j)
      all.push_back({x_m + width_m * ((i + 0.5) / across - 0.5), y_m + depth_m * ((j + 0.5) / deep - 0.5),
                     light / across / deep, exponent, wing, hood_deg});
  return all;
}

std::vector<Glow> joined(std::vector<Glow> a, const std::vector<Glow>& b) {
  a.insert(a.end(), b.begin(), b.end());
  return a;
}

Grid cells(int columns, int rows) { return {GridKind::Cells, columns, rows, 0, 0, {}}; }
Grid nodes(int columns, int rows) { return {GridKind::Nodes, columns, rows, 0, 0, {}}; }
Grid inset(int columns, int rows) { return {GridKind::Inset, columns, rows, 0.05, 0.05, {}}; }
Grid spots(double width_m, double depth_m) {
  return {GridKind::Spots, 0, 0, 0, 0, nine_spots({width_m, depth_m}, 0.1)};
}

std::vector<Scene> scenes() {
  const auto wide = points(0.61, 0.6, 1.0, 1.0, 6, 14, 260), board = points(0.6, 0.6, 0.24, 0.28, 6, 6, 150, 1.2),
             tight = points(0.5, 0.5, 0.1, 0.1, 3, 3, 160, 5),
             hooded = points(0.61, 0.61, 0.3, 0.16, 6, 3, 240, 0.6, 1.2, 58),
             tubes = points(0.3, 0.61, 0.42, 1.1, 4, 16, 80), close = points(0.6, 0.6, 1.0, 1.06, 6, 22, 110),
             panels = joined(points(0.3, 0.6, 0.26, 0.44, 5, 8, 150), points(0.9, 0.6, 0.26, 0.44, 5, 8, 150));
  return {{"wide, between two rungs", 1.2, 1.2, 0.7, wide, 0.45, {0.33, 0.6}, cells(12, 12), 0.01, 0.005, 10},
          {"wide, lowest of three", 1.2, 1.2, 0.7, wide, 0.3, {0.45, 0.6}, cells(12, 12), 0.006, 0.005, 0},
          {"wide, highest of two", 1.2, 1.2, 0.7, wide, 0.6, {0.4}, cells(8, 8), 0.006, 0.005, 1},
          {"wide, one rung", 1.2, 1.2, 0.7, wide, 0.4, {}, cells(10, 10), 0.01, 0.002, 4},
          {"board, one rung", 1.2, 1.2, 0.6, board, 0.4, {}, cells(8, 8), 0.015, 0.005, 6},
          {"board, lowest of three", 1.2, 1.2, 0.6, board, 0.25, {0.4, 0.6}, cells(12, 12), 0.003, 0.005, 0},
          {"board, lowest of four", 1.2, 1.2, 0.3, board, 0.2, {0.3, 0.45, 0.6}, nodes(9, 9), 0.006, 0.003, 0},
          {"tight beam, lowest of two", 1.0, 1.0, 0.3, tight, 0.4, {0.6}, cells(10, 10), 0.005, 0.005, 0},
          {"tight beam, nodes", 1.0, 1.0, 0.0, tight, 0.5, {0.4, 0.65}, nodes(7, 7), 0.01, 0.01, 6},
          {"hooded, between three", 1.2, 1.2, 0.6, hooded, 0.5, {0.35, 0.65, 0.8}, cells(12, 12), 0.007, 0.005, 10},
          {"hooded, lowest of two", 1.2, 1.2, 0.6, hooded, 0.45, {0.65}, cells(6, 6), 0.01, 0.005, 4},
          {"bars close above", 1.2, 1.2, 0.7, close, 0.16, {0.3, 0.45}, cells(12, 12), 0.006, 0.005, 10},
          {"bars close above, nodes", 1.2, 1.2, 0.7, close, 0.2, {0.3}, nodes(9, 9), 0.02, 0.0, 4},
          {"panels, inset", 1.2, 1.2, 0.0, panels, 0.5, {0.35, 0.65}, inset(11, 11), 0.01, 0.005, 0},
          {"tubes, inset, quiet", 0.6, 1.2, 0.8, tubes, 0.3, {0.2, 0.4}, inset(5, 9), 0.001, 0.0, 0},
          {"wide, nine spots", 1.2, 1.2, 0.7, wide, 0.45, {0.3, 0.6}, spots(1.2, 1.2), 0.01, 0.005, 3},
          {"wide, 30 % read", 1.2, 1.2, 0.7, wide, 0.45, {0.3, 0.6}, cells(12, 12), 0.01, 0.005, 4, 0.3},
          {"board, 60 % read", 1.2, 1.2, 0.6, board, 0.4, {0.6}, cells(8, 8), 0.006, 0.005, 0, 0.6},
          {"hooded, 80 % read", 1.2, 1.2, 0.6, hooded, 0.5, {0.35, 0.65}, cells(10, 10), 0.01, 0.005, 4, 0.8},
          {"tubes, nodes, 95 % read", 0.6, 1.2, 0.8, tubes, 0.3, {0.2, 0.4}, nodes(6, 11), 0.006, 0.005, 4, 0.95}};
}

/// A scene's light, with its figures when nothing is in the way of them.
struct Truth {
  explicit Truth(const Scene& scene)
      : light(scene.width_m, scene.depth_m, scene.mirror, scene.lamp),
        layout(lay_out({scene.width_m, scene.depth_m}, scene.grid).value()),
        here(at_stations(scene.height_m)) {
    for (const double h : scene.other_rungs_m) rungs.push_back({h, at_stations(h)});
    BudgetQuestion plain;
    plain.layout = &layout, plain.ppfd = here, plain.context.power_w = watts;
    const SweepFigures f = *sweep_figures(layout, here, plain.context);
    figures_ = figure_values(FigureSource(layout, here, f));
    constexpr int side = 96;
    double sum = 0;
    for (int j = 0; j < side; ++j)
      for (int i = 0; i < side; ++i)
        sum += light.at(layout.measured.left_m + (i + 0.5) / side * layout.measured.width_m,
                        layout.measured.front_m + (j + 0.5) / side * layout.measured.depth_m, scene.height_m);
    const double mean = sum / side / side, by = mean / value("mean_ppfd");
    for (const auto& [id, power] : {std::pair{"mean_ppfd", 1},
                                    {"ppf_umol_s", 1},
                                    {"canopy_efficacy_umol_j", 1},
                                    {"lowest_over_mean", -1},
                                    {"p5_over_mean", -1}})
      figures_[static_cast<std::size_t>(figure_index(id))] *= power > 0 ? by : 1 / by;
  }
  double value(const char* id) const { return figures_[static_cast<std::size_t>(figure_index(id))]; }
  Values at_stations(double height_m) const {
    Values e;
    for (const Station& s : layout.stations) e.push_back(light.at(s.x_m, s.y_m, height_m));
    return e;
  }

  MadeLight light;
  Layout layout;
  Values here;
  std::vector<RungLight> rungs;

 private:
  Values figures_;
};

/// What two tests of one bench share.
struct Meters {
  double calibration = 0, spectral = 0, cosine = 0, power = 0, width_m = 0, depth_m = 0;
};

class Bench {
 public:
  Bench(const Scene& scene, const Truth& truth, std::uint64_t seed, bool random_alone)
      : scene_(scene), truth_(truth), normal_(seed), random_alone_(random_alone) {
    const Layout& layout = truth.layout;
    const double x = layout.footprint.width_m / 2, y = layout.footprint.depth_m / 2;
    for (const Station& s : layout.stations) away_.push_back(std::hypot(s.x_m - x, s.y_m - y));
    const double farthest = *std::ranges::max_element(away_);
    for (double& a : away_) a /= farthest;
    walk_ = walk_order(layout, WalkOrder::FarToDoor);
    walked_.resize(walk_.size());
    for (std::size_t n = 0; n < walk_.size(); ++n)
      walked_[static_cast<std::size_t>(walk_[n])] = static_cast<double>(n) / static_cast<double>(walk_.size() - 1);
  }

  Meters meters() {
    const BudgetQuestion q;
    if (random_alone_) return {};
    return {sd(q.calibration.value), sd(q.spectral.value), sd(q.cosine.value),
            sd(q.power.value),       sd(q.edge_m.value),   sd(q.edge_m.value)};
  }

  /// The budget of one measurement with errors of the sizes that it states or has to find out.
  Budget measure(const Meters& meters) {
    const Layout& layout = truth_.layout;
    const std::size_t count = layout.stations.size();
    BudgetQuestion q;
    const double dh = random_alone_ ? 0 : sd(q.height_m.value), drift = random_alone_ ? 0 : sd(0.005);
    const auto of_meters = [&](std::size_t i) {
      return (1 + meters.calibration) * (1 + meters.spectral) * (1 + meters.cosine * away_[i]);
    };
    const auto read = [&](std::size_t i, double height_m, double when) {
      const Station& s = layout.stations[i];
      return truth_.light.at(s.x_m + sd(scene_.place_m), s.y_m + sd(scene_.place_m), height_m) * of_meters(i) *
             (1 + drift * when) * (1 + sd(scene_.noise));
    };
    Values ppfd(count);
    for (std::size_t i = 0; i < count; ++i) ppfd[i] = read(i, scene_.height_m + dh, walked_[i]);
    leave_out(ppfd);
    const auto reference = static_cast<std::size_t>(reference_station(layout));
    std::vector<ReferencePoint> points;
    const double noise = reading_noise(layout, ppfd);
    for (double when = 0; when < 1.01 && !random_alone_; when += 0.2)
      points.push_back(
          {600 * when, read(reference, scene_.height_m + dh, when), std::isnan(noise) ? scene_.noise : noise});
    const Drift seen(points);
    std::vector<Repeats> repeats;
    for (int n = 0; n < scene_.repeated; ++n) {
      const std::size_t i =
          static_cast<std::size_t>(n) * (count - 1) / static_cast<std::size_t>(std::max(1, scene_.repeated - 1));
      if (std::isnan(ppfd[i])) continue;
      repeats.push_back(
          {static_cast<int>(i),
           {ppfd[i], read(i, scene_.height_m + dh, walked_[i]), read(i, scene_.height_m + dh, walked_[i])}});
    }
    for (std::size_t i = 0; i < count; ++i) ppfd[i] *= seen.factor(600 * walked_[i]);
    std::vector<RungLight> rungs{{scene_.height_m, ppfd}};
    for (const RungLight& rung : truth_.rungs) {
      rungs.push_back(rung);
      for (std::size_t i = 0; i < count; ++i) rungs.back().ppfd[i] *= of_meters(i) * (1 + sd(scene_.noise));
    }

    q.layout = &layout;
    q.ppfd = ppfd;
    q.context.power_w = watts * (1 + meters.power);
    if (random_alone_)
      for (InputQuantity* part : {&q.calibration, &q.spectral, &q.cosine, &q.height_m, &q.drift, &q.power, &q.edge_m})
        part->value = 0;
    ExpectedLight expected = expected_light(layout, ppfd);
    const ObservedScatter scatter = observed_scatter(layout, expected, repeats, q.position_m);
    q.repeatability = scatter.repeatability, q.position_m = scatter.position_m;
    q.expected_ppfd = std::move(expected.ppfd);
    if (!random_alone_) q.drift = drift_term(seen, scatter_at(q, reference_station(layout)));
    q.slope_per_m = height_slope(layout, rungs, scene_.height_m);
    if (q.slope_per_m.empty()) q.slope_per_m = usual_height_slope(layout, ppfd, scene_.height_m);
    q.walked = walked_;
    return uncertainty_budget(q);
  }

  /// What holds where the footprint is as wide and deep as these meters have it.
  double truth(const char* id, const Meters& meters) const {
    const double value = truth_.value(id);
    if (!figure(id).goes_with_area) return value;
    const Rectangle& area = truth_.layout.measured;
    return value * (1 + meters.width_m / area.width_m) * (1 + meters.depth_m / area.depth_m);
  }

 private:
  double sd(double size) { return size * normal_(); }

  /// A walk that was broken off, or places that something stood on: the stretch that is missing is another each time.
  void leave_out(Values& ppfd) {
    if (scene_.read >= 1) return;
    const std::size_t missing =
        ppfd.size() - static_cast<std::size_t>(std::lround(scene_.read * static_cast<double>(ppfd.size())));
    const double way = normal_.uniform();
    if (way < 1.0 / 3) {
      for (std::size_t n = 0; n < missing; ++n) ppfd[static_cast<std::size_t>(walk_[walk_.size() - 1 - n])] = unread;
      return;
    }
    std::vector<std::size_t> order(ppfd.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    if (way < 2.0 / 3) {
      const Station& about =
          truth_.layout.stations[static_cast<std::size_t>(normal_.uniform() * static_cast<double>(ppfd.size()))];
      std::ranges::sort(order, {}, [&](std::size_t i) {
        const Station& s = truth_.layout.stations[i];
        return std::hypot(s.x_m - about.x_m, s.y_m - about.y_m);
      });
    } else {
      for (std::size_t n = order.size(); n-- > 1;)
        std::swap(order[n], order[static_cast<std::size_t>(normal_.uniform() * static_cast<double>(n + 1))]);
    }
    for (std::size_t n = 0; n < missing; ++n) ppfd[order[n]] = unread;
  }

  const Scene& scene_;
  const Truth& truth_;
  NormalDeviates normal_;
  bool random_alone_;
  std::vector<double> away_, walked_;
  std::vector<int> walk_;
};

struct Counts {
  explicit Counts()
      : held(counted.size()),
        known(counted.size()),
        apart(counted.size()),
        pairs(counted.size()),
        width(counted.size()) {}
  std::vector<int> held, known, apart, pairs;
  Values width;
  void add(const Counts& other) {
    for (std::size_t k = 0; k < counted.size(); ++k) {
      held[k] += other.held[k], known[k] += other.known[k], apart[k] += other.apart[k], pairs[k] += other.pairs[k];
      width[k] += other.width[k];
    }
  }
};

Counts count_up(const Scene& scene, const Truth& truth, std::uint64_t seed, bool random_alone, int times) {
  Bench bench(scene, truth, seed, random_alone);
  Counts counts;
  for (int n = 0; n < times / 2; ++n) {
    const Meters meters = bench.meters();
    const Budget pair[2] = {bench.measure(meters), bench.measure(meters)};
    for (std::size_t k = 0; k < counted.size(); ++k) {
      const auto index = static_cast<std::size_t>(figure_index(counted[k]));
      for (const Budget& budget : pair) {
        const double off = std::abs(budget.values[index] - bench.truth(counted[k], meters));
        if (!std::isfinite(off)) continue;
        ++counts.known[k];
        counts.held[k] += off <= budget.expanded(counted[k]);
        counts.width[k] += budget.relative(counted[k]);
      }
      const double off = std::abs(pair[0].values[index] / pair[1].values[index] - 1);
      if (!std::isfinite(off)) continue;
      ++counts.pairs[k];
      counts.apart[k] += off > ratio_uncertainty(pair[0], pair[1], counted[k]);
    }
  }
  return counts;
}

Counts on_all_processors(const Scene& scene, const Truth& truth, std::uint64_t seed, bool random_alone, int times) {
  constexpr int workers = 2;
  Counts counts[workers];
  std::thread threads[workers];
  for (int w = 0; w < workers; ++w)
    threads[w] = std::thread([&, w] {
      counts[w] = count_up(scene, truth, seed + static_cast<std::uint64_t>(w), random_alone, times / workers);
    });
  for (std::thread& thread : threads) thread.join();
  counts[0].add(counts[1]);
  return counts[0];
}

}  // namespace

/// How often the intervals hold the truth when each scene is measured anew, errors and all; the same of random parts
/// alone; and how often two tests of one lamp are told apart. study_intervals [TIMES [SEED [SCENE]]]
int main(int argc, char** argv) {
  const int times = argc > 1 ? std::atoi(argv[1]) : measurements;
  const std::uint64_t seed = argc > 2 ? std::strtoull(argv[2], nullptr, 10) : usual_seed;
  const int only = argc > 3 ? std::atoi(argv[3]) : -1;
  const std::vector<Scene> all = scenes();
  int judged = 0, low = 0, wide = 0, told = 0;
  fmt::print("intervals, seed {}: {} re-measurements of each scene; share whose interval holds the truth, %\n\n{:<34}",
             seed, times, "");
  for (const char* id : counted) fmt::print("{:>11.11}", id);
  fmt::print("\n");
  for (std::size_t s = 0; s < all.size(); ++s) {
    if (only >= 0 && static_cast<int>(s) != only) continue;
    const Truth truth(all[s]);
    for (const bool random_alone : {false, true}) {
      const Counts c =
          on_all_processors(all[s], truth, seed + 1000 * s + (random_alone ? 500 : 0), random_alone, times);
      fmt::print("{:<34}", random_alone ? "    random parts alone" : all[s].name);
      for (std::size_t k = 0; k < counted.size(); ++k) {
        if (c.known[k] < times / 4) {
          fmt::print("{:>11}", "–");
          continue;
        }
        const double share = 100.0 * c.held[k] / c.known[k];
        ++judged, low += share<held_least, wide += share> held_most;
        fmt::print("{:>10.1f}{}", share, share < held_least ? '!' : share > held_most ? '+' : ' ');
      }
      fmt::print("\n");
      if (random_alone) continue;
      fmt::print("{:<34}", "    ±, %");
      for (std::size_t k = 0; k < counted.size(); ++k)
        fmt::print("{:>10.2f} ", c.known[k] ? 100 * c.width[k] / c.known[k] : 0);
      fmt::print("\n{:<34}", "    two of one lamp told apart");
      for (std::size_t k = 0; k < counted.size(); ++k) {
        const double share = c.pairs[k] ? 100.0 * c.apart[k] / c.pairs[k] : 0;
        told += share > apart_most;
        fmt::print("{:>10.1f}{}", share, share > apart_most ? '!' : ' ');
      }
      fmt::print("\n");
      std::fflush(stdout);
    }
  }
  fmt::print(
      "\nof {} shares {} are under {} % (!), {} over {} % (+); {} figures of {} scenes tell two of one lamp apart in "
      "over {} %\n",
      judged, low, held_least, wide, held_most, told, all.size(), apart_most);
  fmt::print("intervals: {}\n", low + wide + told == 0 ? "held" : "fell short");
  return low + wide + told == 0 ? 0 : 1;
}
