#include "core/uncertainty/symmetric_light.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/linear/least_squares.h"
#include "core/uncertainty/station_slopes.h"

namespace sunbreak {
namespace {

constexpr std::size_t off_terms = 4;
constexpr double least_station_share = 0.9, most_misfit = 1.5;

/// ln PPFD averaged over each station's mirror images, at every station.
std::vector<double> even_pattern(const Layout& layout, std::span<const double> ppfd) {
  std::vector<double> sum(ppfd.size(), 0), even(ppfd.size());
  std::vector<int> members(ppfd.size(), 0);
  const auto group = [&](const Station& s) {
    return layout.index(std::min(s.column, layout.columns - 1 - s.column), std::min(s.row, layout.rows - 1 - s.row));
  };
  for (std::size_t i = 0; i < ppfd.size(); ++i)
    if (ppfd[i] > 0) sum[group(layout.stations[i])] += std::log(ppfd[i]), ++members[group(layout.stations[i])];
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    const int g = group(layout.stations[i]);
    even[i] = members[g] > 0 ? sum[g] / members[g] : NAN;
  }
  return even;
}

}  // namespace

std::optional<std::vector<double>> symmetric_light(const Layout& layout, std::span<const double> ppfd,
                                                   std::span<const double> scatter) {
  if (!layout.is_lattice() || layout.columns < 4 || layout.rows < 4) return {};
  const auto read = std::count_if(ppfd.begin(), ppfd.end(), [](double e) { return e > 0; });
  if (static_cast<double>(read) < least_station_share * static_cast<double>(ppfd.size())) return {};
  const std::vector<double> even = even_pattern(layout, ppfd);
  const std::vector<StationSlope> slopes = station_slopes(layout, even);
  const auto terms = [&](std::size_t i) {
    const Station& s = layout.stations[i];
    // Off center moves the pattern along itself; off level lets one side fall and the other rise.
    return std::array<double, off_terms>{slopes[i].x, slopes[i].y, s.x_m - layout.footprint.width_m / 2,
                                         s.y_m - layout.footprint.depth_m / 2};
  };
  LeastSquares odd(off_terms, 1e-12);
  for (std::size_t i = 0; i < ppfd.size(); ++i)
    if (ppfd[i] > 0) odd.add(terms(i), std::log(ppfd[i]) - even[i]);
  odd.solve();
  std::vector<double> light(ppfd.begin(), ppfd.end());
  double misfit = 0;
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    if (!(ppfd[i] > 0)) continue;
    const double smooth = even[i] + odd.at(terms(i)), residual = std::log(ppfd[i]) - smooth;
    misfit += residual * residual / (scatter[i] * scatter[i]);
    light[i] = std::exp(smooth);
  }
  const double groups = std::ceil(layout.columns / 2.0) * std::ceil(layout.rows / 2.0);
  if (misfit > most_misfit * (static_cast<double>(read) - groups - static_cast<double>(off_terms))) return {};
  return light;
}

}  // namespace sunbreak
