#include "core/uncertainty/symmetric_light.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "core/uncertainty/station_slopes.h"

namespace sunbreak {
namespace {

constexpr int odd_terms = 4;
constexpr double share_needed = 0.9, most_misfit = 1.5;
using Terms = Eigen::Matrix<double, odd_terms, 1>;
using Normal = Eigen::Matrix<double, odd_terms, odd_terms>;

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
  if (static_cast<double>(read) < share_needed * static_cast<double>(ppfd.size())) return {};
  const std::vector<double> even = even_pattern(layout, ppfd);
  const std::vector<StationSlope> slopes = station_slopes(layout, even);
  const auto terms = [&](std::size_t i) {
    const Station& s = layout.stations[i];
    // Off center moves the pattern along itself; off level lets one side fall and the other rise.
    return Terms(slopes[i].x, slopes[i].y, s.x_m - layout.footprint.width_m / 2, s.y_m - layout.footprint.depth_m / 2);
  };
  Normal normal = 1e-12 * Normal::Identity();
  Terms right = Terms::Zero();
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    if (!(ppfd[i] > 0)) continue;
    const Terms t = terms(i);
    normal += t * t.transpose();
    right += t * (std::log(ppfd[i]) - even[i]);
  }
  const Terms odd = Eigen::LDLT<Normal>(normal).solve(right);
  std::vector<double> light(ppfd.begin(), ppfd.end());
  double misfit = 0;
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    if (!(ppfd[i] > 0)) continue;
    const double smooth = even[i] + odd.dot(terms(i)), residual = std::log(ppfd[i]) - smooth;
    misfit += residual * residual / (scatter[i] * scatter[i]);
    light[i] = std::exp(smooth);
  }
  const double groups = std::ceil(layout.columns / 2.0) * std::ceil(layout.rows / 2.0);
  if (misfit > most_misfit * (static_cast<double>(read) - groups - odd_terms)) return {};
  return light;
}

}  // namespace sunbreak
