#include "core/checks/reading_views.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

#include "core/checks/mirror_surface.h"
#include "core/checks/smooth_surface.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr SmoothDegrees smooth_surfaces[] = {{6, 3}, {8, 3}, {10, 5}};
constexpr double floor_of_noise = 0.004;  ///< residuals on a computed field are smaller than any sensor's
constexpr double normal_mad = 1.4826;
constexpr double normal_within_three = 0.98658;  ///< standard deviation of a normal one cut off at ±3

/// Standard deviation without the far ones: the median deviation says which those are, the rest is used whole, since a
/// median alone is too unsure to set an alarm by.
double robust_spread(std::vector<double> sizes) {
  if (sizes.empty()) return 0;
  const auto middle = sizes.begin() + static_cast<std::ptrdiff_t>(sizes.size() / 2);
  std::nth_element(sizes.begin(), middle, sizes.end());
  const double bound = 3 * normal_mad * *middle;
  double squares = 0;
  int count = 0;
  for (const double size : sizes)
    if (size <= bound) squares += size * size, ++count;
  return count > 0 ? std::sqrt(squares / count) / normal_within_three : 0;
}

/// The view of a whole sweep that its readings scatter least about; nothing where none judges enough of them.
std::optional<ReadingView> best_view(const Layout& layout, std::span<const double> ppfd) {
  constexpr int fewest_compared = 20;
  std::optional<ReadingView> best;
  for (ReadingView& view : reading_views(layout, ppfd, std::vector<char>(ppfd.size(), 0)))
    if (view.judged() >= fewest_compared && (!best || view.scatter() < best->scatter())) best = std::move(view);
  return best;
}

}  // namespace

ReadingView::ReadingView(std::vector<SurfaceResidual> residuals, std::span<const double> noise_shares,
                         std::span<const char> left_out)
    : residuals_(std::move(residuals)), noise_shares_(noise_shares.begin(), noise_shares.end()) {
  std::vector<double> sizes;
  for (std::size_t i = 0; i < residuals_.size(); ++i)
    if (!std::isnan(residuals_[i].log_ratio) && !left_out[i])
      sizes.push_back(std::abs(residuals_[i].log_ratio) / unit(i));
  judged_ = static_cast<int>(sizes.size());
  scatter_ = robust_spread(std::move(sizes));
  if (judged_ > 0) spread_ = std::max(scatter_, floor_of_noise);
}

double ReadingView::unit(std::size_t station) const {
  return std::sqrt((noise_shares_.empty() ? 1 : noise_shares_[station]) + residuals_[station].leverage);
}

double ReadingView::chance(std::size_t station) const {
  return std::isnan(residuals_[station].log_ratio) ? std::numeric_limits<double>::infinity() : spread_ * unit(station);
}

std::vector<ReadingView> reading_views(const Layout& layout, std::span<const double> ppfd,
                                       std::span<const char> left_out, std::span<const double> noise_shares) {
  std::vector<ReadingView> views;
  const auto add = [&](std::vector<SurfaceResidual> residuals) {
    ReadingView view(std::move(residuals), noise_shares, left_out);
    if (view.spread() > 0) views.push_back(std::move(view));
  };
  add(surface_residuals(layout, ppfd, left_out));
  add(mirror_residuals(layout, ppfd, left_out));
  for (const SmoothDegrees& degrees : smooth_surfaces) add(smooth_residuals(layout, ppfd, left_out, degrees));
  return views;
}

double reading_noise(const Layout& layout, std::span<const double> ppfd) {
  const auto best = best_view(layout, ppfd);
  return best ? best->spread() : unread;
}

ExpectedLight expected_light(const Layout& layout, std::span<const double> ppfd) {
  const auto best = best_view(layout, ppfd);
  ExpectedLight light{{ppfd.begin(), ppfd.end()}, best ? best->spread() : unread, {}};
  if (!best) return light;
  for (std::size_t i = 0; i < ppfd.size(); ++i) light.residuals.push_back(best->residual(i));
  // A residual is about the surface without the reading; with it, the surface lies nearer by its leverage.
  for (std::size_t i = 0; i < light.ppfd.size(); ++i)
    if (const SurfaceResidual& r = best->residual(i); !std::isnan(r.log_ratio))
      light.ppfd[i] *= std::exp(-r.log_ratio / (1 + r.leverage));
  return light;
}

}  // namespace sunbreak
