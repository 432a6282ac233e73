#include "core/checks/local_surface.h"

#include <fmt/format.h>

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "core/checks/mirror_surface.h"
#include "core/checks/smooth_surface.h"
#include "core/quantity/display.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr int reach = 2;   ///< neighbors up to so many columns and rows away
constexpr int fewest = 9;  ///< readings that a quadratic surface needs, with three to spare
constexpr SmoothDegrees smooth_surfaces[] = {{6, 3}, {8, 3}, {10, 5}};
constexpr double borne_out = 1.25;  ///< how much less the second view may see
constexpr double deviations = 4.1, least_share = 0.05;
constexpr double floor_of_noise = 0.004;  ///< residuals on a computed field are smaller than any sensor's
constexpr double normal_mad = 1.4826;
constexpr double normal_within_three = 0.98658;  ///< standard deviation of a normal one cut off at ±3

bool usable(double ppfd) { return !std::isnan(ppfd) && ppfd > 0; }

SurfaceResidual residual_at(const Layout& layout, std::span<const double> ppfd, std::span<const char> left_out,
                            int station) {
  const Station& s = layout.stations[station];
  Eigen::Matrix<double, 6, 6> normal = Eigen::Matrix<double, 6, 6>::Zero();
  Eigen::Matrix<double, 6, 1> right = Eigen::Matrix<double, 6, 1>::Zero();
  Eigen::Matrix<double, 6, 6> spread = Eigen::Matrix<double, 6, 6>::Zero();
  int count = 0;
  for (int dy = -reach; dy <= reach; ++dy)
    for (int dx = -reach; dx <= reach; ++dx) {
      const int column = s.column + dx, row = s.row + dy;
      if ((dx == 0 && dy == 0) || column < 0 || row < 0 || column >= layout.columns || row >= layout.rows) continue;
      const int i = layout.index(column, row);
      if (!usable(ppfd[i]) || left_out[i]) continue;
      const double weight = 1 / (1.0 + 0.5 * (dx * dx + dy * dy));
      Eigen::Matrix<double, 6, 1> basis;
      basis << 1, dx, dy, dx * dx, dx * dy, dy * dy;
      normal += weight * basis * basis.transpose();
      spread += weight * weight * basis * basis.transpose();
      right += weight * std::log(ppfd[i]) * basis;
      ++count;
    }
  if (count < fewest) return {unread, 0, unread};
  const Eigen::LDLT<Eigen::Matrix<double, 6, 6>> solver(normal);
  if (solver.rcond() < 1e-9) return {unread, 0, unread};
  // The surface at the station itself is its first coefficient.
  const Eigen::Matrix<double, 6, 1> first = solver.solve(Eigen::Matrix<double, 6, 1>::Unit(0));
  SurfaceResidual r;
  r.log_ratio = std::log(ppfd[station]) - first.dot(right);
  r.leverage = first.dot(spread * first);
  r.standard = r.log_ratio / std::sqrt(1 + r.leverage);
  return r;
}

/// Standard deviation of the residuals without the far ones: the median deviation says which those are, the rest is
/// used whole, since a median alone is too unsure to set an alarm by.
double robust_spread(const std::vector<SurfaceResidual>& residuals, std::span<const char> left_out) {
  std::vector<double> sizes;
  for (std::size_t i = 0; i < residuals.size(); ++i)
    if (!std::isnan(residuals[i].standard) && !left_out[i]) sizes.push_back(std::abs(residuals[i].standard));
  if (sizes.empty()) return 0;
  const auto middle = sizes.begin() + static_cast<std::ptrdiff_t>(sizes.size() / 2);
  std::nth_element(sizes.begin(), middle, sizes.end());
  const double bound = 3 * normal_mad * *middle;
  double squares = 0;
  int count = 0;
  for (const double size : sizes)
    if (size <= bound) squares += size * size, ++count;
  return std::max(count > 0 ? std::sqrt(squares / count) / normal_within_three : 0.0, floor_of_noise);
}

/// One way to expect a reading from the others, and how far readings scatter about it.
struct View {
  std::vector<SurfaceResidual> residuals;
  double spread = 0;
};

std::vector<View> views_of(const Layout& layout, std::span<const double> ppfd, std::span<const char> left_out) {
  std::vector<View> views;
  const auto add = [&](std::vector<SurfaceResidual> residuals) {
    const double spread = robust_spread(residuals, left_out);
    if (spread > 0) views.push_back({std::move(residuals), spread});
  };
  add(surface_residuals(layout, ppfd, left_out));
  add(mirror_residuals(layout, ppfd, left_out));
  for (const SmoothDegrees& degrees : smooth_surfaces) add(smooth_residuals(layout, ppfd, left_out, degrees));
  return views;
}

/// The view of a whole sweep that its readings scatter least about; without residuals where none has enough of them.
View best_view(const Layout& layout, std::span<const double> ppfd) {
  constexpr std::ptrdiff_t fewest_residuals = 20;
  View best;
  for (View& view : views_of(layout, ppfd, std::vector<char>(ppfd.size(), 0))) {
    const auto judged =
        std::count_if(view.residuals.begin(), view.residuals.end(), [](auto& r) { return !std::isnan(r.standard); });
    if (judged >= fewest_residuals && (best.residuals.empty() || view.spread < best.spread)) best = std::move(view);
  }
  return best;
}

/// How far a reading is from what the others make likely, and what that is.
struct Suspicion {
  int station = -1;
  double size = 0;  ///< in standard deviations
  SurfaceResidual residual;
};

/// The view of a reading that leaves the least to chance judges it; the next one has to bear it out, since what a
/// pattern does to one kind of surface it seldom does to two.
Suspicion suspicion_of(const std::vector<View>& views, std::size_t i) {
  const View *clearest = nullptr, *next = nullptr;
  const auto chance = [&](const View* view) {
    return !view || std::isnan(view->residuals[i].standard) ? INFINITY
                                                            : view->spread * std::sqrt(1 + view->residuals[i].leverage);
  };
  for (const View& view : views)
    if (chance(&view) < chance(clearest))
      next = std::exchange(clearest, &view);
    else if (chance(&view) < chance(next))
      next = &view;
  if (!clearest) return {};
  const auto deviation = [&](const View* view) { return view->residuals[i].standard / view->spread; };
  Suspicion s{static_cast<int>(i), std::abs(deviation(clearest)), clearest->residuals[i]};
  if (next) s.size = std::min(s.size, borne_out * std::copysign(1.0, deviation(clearest)) * deviation(next));
  return s;
}

/// What is to be taken out of the surfaces next, worst first: the worst, and what is at least half as far and not its
/// neighbor or its mirror image, since a bad reading pulls these with it.
std::vector<Suspicion> worst_of(const Layout& layout, const std::vector<View>& views, std::span<const char> left_out) {
  std::vector<Suspicion> found;
  for (std::size_t i = 0; i < left_out.size(); ++i)
    if (const Suspicion s = left_out[i] ? Suspicion{} : suspicion_of(views, i);
        s.size > deviations && std::abs(std::expm1(s.residual.log_ratio)) > least_share)
      found.push_back(s);
  std::stable_sort(found.begin(), found.end(), [](auto& a, auto& b) { return a.size > b.size; });
  std::vector<Suspicion> worst;
  for (const Suspicion& s : found) {
    if (s.size < found.front().size / 2) break;
    const Station& here = layout.stations[s.station];
    const bool pulled = std::any_of(worst.begin(), worst.end(), [&](const Suspicion& w) {
      const Station& there = layout.stations[w.station];
      const auto near = [](int a, int b, int count) {
        return std::min(std::abs(a - b), std::abs(count - 1 - a - b)) <= 2 * reach;
      };
      return near(here.column, there.column, layout.columns) && near(here.row, there.row, layout.rows);
    });
    if (!pulled) worst.push_back(s);
  }
  return worst;
}

Check far_check(double read, const Suspicion& s) {
  const double factor = std::exp(s.residual.log_ratio);
  const bool digit = factor > 4 || factor < 0.25;
  return {
      "far from its neighbors",
      digit ? Severity::Bad : Severity::Look,
      {s.station},
      fmt::format("{} where its neighbors make {} likely, {:.0f} % {}", ppfd_text(read), ppfd_text(read / factor),
                  100 * std::abs(factor - 1), factor < 1 ? "less" : "more"),
      "it shifts lowest, highest and evenness",
      digit ? "look for a slipped digit, then read it again" : "read it again: a tilted sensor, a shadow or a slip"};
}

}  // namespace

std::vector<SurfaceResidual> surface_residuals(const Layout& layout, std::span<const double> ppfd,
                                               std::span<const char> left_out) {
  std::vector<SurfaceResidual> residuals(ppfd.size(), {unread, 0, unread});
  if (!layout.is_lattice()) return residuals;
  for (std::size_t i = 0; i < ppfd.size(); ++i)
    if (usable(ppfd[i])) residuals[i] = residual_at(layout, ppfd, left_out, static_cast<int>(i));
  return residuals;
}

double reading_noise(const Layout& layout, std::span<const double> ppfd) {
  const View best = best_view(layout, ppfd);
  return best.residuals.empty() ? unread : best.spread;
}

std::vector<double> expected_light(const Layout& layout, std::span<const double> ppfd) {
  const View best = best_view(layout, ppfd);
  std::vector<double> light(ppfd.begin(), ppfd.end());
  if (best.residuals.empty()) return light;
  // A residual is about the surface without the reading; with it, the surface lies nearer by its leverage.
  for (std::size_t i = 0; i < light.size(); ++i)
    if (const SurfaceResidual& r = best.residuals[i]; !std::isnan(r.log_ratio))
      light[i] *= std::exp(-r.log_ratio / (1 + r.leverage));
  return light;
}

std::vector<Check> local_surface_checks(const Layout& layout, std::span<const double> ppfd) {
  std::vector<Check> checks;
  std::vector<char> left_out(ppfd.size(), 0);
  const std::size_t most = std::max<std::size_t>(1, ppfd.size() / 12);
  while (checks.size() < most) {
    const auto worst = worst_of(layout, views_of(layout, ppfd, left_out), left_out);
    if (worst.empty()) break;
    for (const Suspicion& s : worst) {
      left_out[s.station] = 1;
      checks.push_back(far_check(ppfd[s.station], s));
    }
  }
  return checks;
}

}  // namespace sunbreak
