#include "core/checks/far_readings.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/checks/reading_views.h"
#include "core/quantity/display.h"

namespace sunbreak {
namespace {

constexpr int pulled_within = 4;    ///< columns and rows within which a bad reading pulls others
constexpr double borne_out = 1.25;  ///< how much less the second view may see
constexpr double least_share = 0.05;

/// How far a reading is from what the others make likely, and what that is.
struct Suspicion {
  int station = -1;
  double size = 0;       ///< in standard deviations
  double log_ratio = 0;  ///< ln(reading / likely)
};

/// The view of a reading that leaves the least to chance judges it; the next one has to bear it out, since what a
/// pattern does to one kind of surface it seldom does to two.
Suspicion suspicion_of(const std::vector<ReadingView>& views, std::size_t i) {
  const ReadingView *clearest = nullptr, *next = nullptr;
  const auto chance = [&](const ReadingView* view) { return view ? view->chance(i) : INFINITY; };
  for (const ReadingView& view : views)
    if (chance(&view) < chance(clearest))
      next = std::exchange(clearest, &view);
    else if (chance(&view) < chance(next))
      next = &view;
  if (!clearest) return {};
  const double deviation = clearest->deviation(i);
  Suspicion s{static_cast<int>(i), std::abs(deviation), clearest->residual(i).log_ratio};
  if (next) s.size = std::min(s.size, borne_out * std::copysign(1.0, deviation) * next->deviation(i));
  return s;
}

/// What is to be taken out of the surfaces next, worst first: the worst, and what is at least half as far and not its
/// neighbor or its mirror image, since a bad reading pulls these with it.
std::vector<Suspicion> worst_of(const Layout& layout, const std::vector<ReadingView>& views,
                                std::span<const char> left_out) {
  std::vector<Suspicion> found;
  for (std::size_t i = 0; i < left_out.size(); ++i)
    if (const Suspicion s = left_out[i] ? Suspicion{} : suspicion_of(views, i);
        s.size > far_deviations && std::abs(std::expm1(s.log_ratio)) > least_share)
      found.push_back(s);
  std::stable_sort(found.begin(), found.end(), [](auto& a, auto& b) { return a.size > b.size; });
  std::vector<Suspicion> worst;
  for (const Suspicion& s : found) {
    if (s.size < found.front().size / 2) break;
    const Station& here = layout.stations[s.station];
    const bool pulled = std::any_of(worst.begin(), worst.end(), [&](const Suspicion& w) {
      const Station& there = layout.stations[w.station];
      const auto near = [](int a, int b, int count) {
        return std::min(std::abs(a - b), std::abs(count - 1 - a - b)) <= pulled_within;
      };
      return near(here.column, there.column, layout.columns) && near(here.row, there.row, layout.rows);
    });
    if (!pulled) worst.push_back(s);
  }
  return worst;
}

Finding far_check(double read, const Suspicion& s) {
  const double factor = std::exp(s.log_ratio);
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

std::vector<Finding> far_reading_checks(const Layout& layout, std::span<const double> ppfd,
                                        std::span<const double> noise_shares) {
  std::vector<Finding> checks;
  std::vector<char> left_out(ppfd.size(), 0);
  const std::size_t most = std::max<std::size_t>(1, ppfd.size() / 12);
  while (checks.size() < most) {
    const auto worst = worst_of(layout, reading_views(layout, ppfd, left_out, noise_shares), left_out);
    if (worst.empty()) break;
    for (const Suspicion& s : worst) {
      left_out[s.station] = 1;
      checks.push_back(far_check(ppfd[s.station], s));
    }
  }
  return checks;
}

}  // namespace sunbreak
