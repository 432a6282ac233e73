#include "core/checks/longer_look.h"

#include <algorithm>
#include <cmath>

#include "core/checks/far_readings.h"
#include "core/checks/reading_views.h"

namespace sunbreak {
namespace {

constexpr double doubtful_deviations = 2, doubtful_share = 0.02;
constexpr int fewest_judged = 10, samples_unjudged = 4, times_as_many = 4, most_more = 12, most_left_out = 5;

/// The view that leaves the least to chance at a station; none where no view can judge it.
const ReadingView* clearest_of(const std::vector<ReadingView>& views, std::size_t station) {
  const ReadingView* clearest = nullptr;
  for (const ReadingView& view : views)
    if (view.judged() >= fewest_judged && std::isfinite(view.chance(station)) &&
        (!clearest || view.chance(station) < clearest->chance(station)))
      clearest = &view;
  return clearest;
}

/// Views of a sweep for judging one station. Others that are far off already shape none of them: they would pull their
/// neighbors with them.
std::vector<ReadingView> views_for(const WalkedSweep& sweep, std::size_t station) {
  const std::vector<double> shares = shares_of(sweep);
  std::vector<char> left_out(sweep.ppfd.size(), 0);
  for (int left = most_left_out;; --left) {
    auto views = reading_views(sweep.layout, sweep.ppfd, left_out, shares);
    double most = far_deviations;
    std::size_t worst = station;
    for (std::size_t i = 0; i < left_out.size(); ++i) {
      const ReadingView* view = i == station || left_out[i] ? nullptr : clearest_of(views, i);
      if (view && std::abs(view->deviation(i)) > most) most = std::abs(view->deviation(i)), worst = i;
    }
    if (worst == station || left == 0) return views;
    left_out[worst] = 1;
  }
}

}  // namespace

std::optional<LongerLook> longer_look(const WalkedSweep& sweep, int station) {
  if (!sweep.layout.is_lattice()) return {};
  const auto i = static_cast<std::size_t>(station);
  const int samples = sweep.sampled.empty() ? 1 : sweep.sampled[i].samples;
  const auto views = views_for(sweep, i);
  const ReadingView* clearest = clearest_of(views, i);
  if (!clearest) return samples < samples_unjudged ? std::optional(LongerLook{samples_unjudged, {}}) : std::nullopt;
  const double off = std::expm1(clearest->residual(i).log_ratio);
  if (std::abs(clearest->deviation(i)) <= doubtful_deviations || std::abs(off) <= doubtful_share) return {};
  return LongerLook{std::min(times_as_many * samples, samples + most_more), off};
}

}  // namespace sunbreak
