#include "core/uncertainty/pattern_change.h"

#include <cmath>
#include <limits>

#include "core/figures/sweep_figures.h"

namespace sunbreak {
namespace {

constexpr double most_mean_square = 2, most_alone = 5;

/// |∇ ln E| at a station, from its neighbors [1/m]; 0 off a lattice.
double steepness_per_m(const Layout& l, std::span<const double> ppfd, std::size_t i) {
  if (!l.is_lattice()) return 0;
  const int column = static_cast<int>(i) % l.columns, row = static_cast<int>(i) / l.columns;
  const auto along = [&](int count, int at, const std::vector<double>& places, const auto& index) {
    const int low = std::max(at - 1, 0), high = std::min(at + 1, count - 1);
    const double a = ppfd[static_cast<std::size_t>(index(low))], b = ppfd[static_cast<std::size_t>(index(high))];
    const double apart = places[static_cast<std::size_t>(high)] - places[static_cast<std::size_t>(low)];
    return a > 0 && b > 0 && apart > 0 ? std::log(b / a) / apart : 0;
  };
  return std::hypot(along(l.columns, column, l.xs_m, [&](int c) { return l.index(c, row); }),
                    along(l.rows, row, l.ys_m, [&](int r) { return l.index(column, r); }));
}

double variance_of(const PatternNoise& n, double steepness, double slope_from_mean) {
  const double place = n.place_m * steepness, height = n.height_m * slope_from_mean;
  return n.reading * n.reading + place * place + height * height;
}

}  // namespace

PatternChange pattern_change(const Layout& layout, std::span<const double> now, std::span<const double> before,
                             const PatternNoise& noise_now, const PatternNoise& noise_before) {
  PatternChange change;
  const std::size_t count = layout.stations.size();
  change.share.assign(count, std::numeric_limits<double>::quiet_NaN());
  std::vector<double> both_now(count, change.share[0]), both_before = both_now;
  for (std::size_t i = 0; i < count; ++i)
    if (now[i] > 0 && before[i] > 0) both_now[i] = now[i], both_before[i] = before[i];
  const double mean_now = area_mean(layout, both_now), mean_before = area_mean(layout, both_before);
  if (!(mean_now > 0 && mean_before > 0)) return change;
  const std::vector<double>& slopes =
      noise_now.slope_per_m.size() == count ? noise_now.slope_per_m : noise_before.slope_per_m;
  double mean_slope = 0;
  for (std::size_t i = 0; i < slopes.size(); ++i) mean_slope += slopes[i] / static_cast<double>(slopes.size());
  double squares = 0, expected = 0, in_deviations = 0, most = 0;
  int read = 0;
  for (std::size_t i = 0; i < count; ++i) {
    if (std::isnan(both_now[i])) continue;
    change.share[i] = (both_now[i] / mean_now) / (both_before[i] / mean_before) - 1;
    const double steep = steepness_per_m(layout, both_before, i),
                 slope = slopes.size() == count ? slopes[i] - mean_slope : 0;
    const double variance = variance_of(noise_now, steep, slope) + variance_of(noise_before, steep, slope);
    const double square = change.share[i] * change.share[i];
    squares += square;
    expected += variance;
    in_deviations += square / variance;
    ++read;
    if (square / variance > most || change.farthest < 0) {
      most = square / variance;
      change.farthest = static_cast<int>(i);
    }
  }
  change.rms = std::sqrt(squares / read);
  change.expected_rms = std::sqrt(expected / read);
  change.beyond = in_deviations / read > most_mean_square || most > most_alone * most_alone;
  return change;
}

}  // namespace sunbreak
