#include "evaluation/paired_sweeps.h"

#include <cmath>
#include <map>

namespace sunbreak::evaluation {
namespace {

constexpr double one_place_m = 0.01, one_setting_pct = 0.5;

}  // namespace

Result<std::vector<SensorPair>> paired_stations(const TestRecord& a, const Sweep& of_a, const TestRecord& b,
                                                const Sweep& of_b) {
  const Rung *high_a = a.rung(of_a.rung_id), *high_b = b.rung(of_b.rung_id);
  const Stop *set_a = a.stop(of_a.stop_id), *set_b = b.stop(of_b.stop_id);
  if (high_a && high_b && set_a && set_b &&
      (std::fabs(high_a->height_m - high_b->height_m) > one_place_m ||
       std::fabs(set_a->percent - set_b->percent) > one_setting_pct || a.test.fixture_id != b.test.fixture_id))
    return Problem{"The two sweeps are of another fixture, height or dimmer setting",
                   "they differ by more than their sensors",
                   "choose two sweeps of one fixture at one height and setting, walked by the two sensors"};
  const auto first = view_sweep(a, of_a), second = view_sweep(b, of_b);
  if (!first) return first.problem();
  if (!second) return second.problem();
  const auto bucket = [](double m) { return static_cast<long>(std::floor(m / one_place_m)); };
  std::map<std::pair<long, long>, std::vector<std::size_t>> places;
  const auto& theirs = second.value().layout.stations;
  for (std::size_t i = 0; i < theirs.size(); ++i) places[{bucket(theirs[i].x_m), bucket(theirs[i].y_m)}].push_back(i);
  std::vector<SensorPair> pairs;
  const auto& mine = first.value().layout.stations;
  for (std::size_t i = 0; i < mine.size(); ++i) {
    if (!(first.value().ppfd[i] > 0)) continue;
    std::optional<std::size_t> nearest;
    double nearest_m = one_place_m;
    for (long x = bucket(mine[i].x_m) - 1; x <= bucket(mine[i].x_m) + 1; ++x)
      for (long y = bucket(mine[i].y_m) - 1; y <= bucket(mine[i].y_m) + 1; ++y)
        if (const auto found = places.find({x, y}); found != places.end())
          for (const std::size_t k : found->second) {
            const double away_m = std::hypot(theirs[k].x_m - mine[i].x_m, theirs[k].y_m - mine[i].y_m);
            if (away_m <= nearest_m && second.value().ppfd[k] > 0) nearest = k, nearest_m = away_m;
          }
    if (nearest)
      pairs.push_back({first.value().ppfd[i], second.value().ppfd[*nearest], Place{mine[i].x_m, mine[i].y_m}});
  }
  if (pairs.empty())
    return Problem{"The two sweeps share no station that both have read", "their sensors cannot be compared by them",
                   "choose sweeps of one grid on benches of one size, at the same height and setting"};
  return pairs;
}

}  // namespace sunbreak::evaluation
