#include "core/sweep/cut.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {
namespace {

Place between(const Place& a, const Place& b, double t) {
  return {a.x_m + t * (b.x_m - a.x_m), a.y_m + t * (b.y_m - a.y_m)};
}

/// Narrows [t0, t1] to where the line is between two edges of one axis (Liang and Barsky); false where it never is.
bool clip(double from, double to, double low, double high, double& t0, double& t1) {
  const double run = to - from;
  if (std::abs(run) < 1e-12) return from >= low - 1e-9 && from <= high + 1e-9;
  const double a = (low - from) / run, b = (high - from) / run;
  t0 = std::max(t0, std::min(a, b));
  t1 = std::min(t1, std::max(a, b));
  return t0 < t1;
}

void add_crossings(std::vector<double>& shares, const std::vector<double>& lines, double from, double to) {
  if (std::abs(to - from) < 1e-12) return;
  for (const double line : lines)
    if (const double t = (line - from) / (to - from); t > 0 && t < 1) shares.push_back(t);
}

}  // namespace

Cut cut(const Field& field, Place from, Place to, double step_m) {
  Cut result{from, to, 0, {}, unread, 0, {}, {}};
  if (!field.exists()) return result;
  const Rectangle& area = field.area();
  double t0 = 0, t1 = 1;
  if (!clip(from.x_m, to.x_m, area.left_m, area.left_m + area.width_m, t0, t1) ||
      !clip(from.y_m, to.y_m, area.front_m, area.front_m + area.depth_m, t0, t1))
    return result;
  result.from = between(from, to, t0);
  result.to = between(from, to, t1);
  result.length_m = std::hypot(result.to.x_m - result.from.x_m, result.to.y_m - result.from.y_m);
  if (result.length_m < 1e-9) return result;

  const int steps = std::max(1, static_cast<int>(std::ceil(result.length_m / step_m - 1e-9)));
  std::vector<double> shares;
  for (int i = 0; i <= steps; ++i) shares.push_back(static_cast<double>(i) / steps);
  add_crossings(shares, field.xs_m(), result.from.x_m, result.to.x_m);
  add_crossings(shares, field.ys_m(), result.from.y_m, result.to.y_m);
  std::sort(shares.begin(), shares.end());
  shares.erase(std::unique(shares.begin(), shares.end(), [](double a, double b) { return b - a < 1e-12; }),
               shares.end());

  const auto point = [&](double share) {
    const Place place = between(result.from, result.to, share);
    return CutPoint{share * result.length_m, place, field.at(place.x_m, place.y_m)};
  };
  double light = 0, known = 0;
  result.lowest.ppfd = result.highest.ppfd = unread;
  for (const double share : shares) {
    const CutPoint p = point(share);
    if (!result.points.empty()) {
      const CutPoint& before = result.points.back();
      const double middle = point((before.along_m + p.along_m) / 2 / result.length_m).ppfd;
      if (const double simpson = (before.ppfd + 4 * middle + p.ppfd) / 6; !std::isnan(simpson)) {
        light += simpson * (p.along_m - before.along_m);
        known += p.along_m - before.along_m;
      }
    }
    if (!(result.lowest.ppfd <= p.ppfd) && !std::isnan(p.ppfd)) result.lowest = p;
    if (!(result.highest.ppfd >= p.ppfd) && !std::isnan(p.ppfd)) result.highest = p;
    result.points.push_back(p);
  }
  if (known > 0) result.mean_ppfd = light / known;
  result.known_share = known / result.length_m;
  return result;
}

}  // namespace sunbreak
