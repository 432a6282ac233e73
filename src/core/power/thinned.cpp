#include "core/power/thinned.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {

std::vector<ThinColumn> thinned(std::span<const TimedValue> log, double from_s, double to_s, int columns) {
  std::vector<ThinColumn> seen;
  if (columns < 1 || !(to_s > from_s)) return seen;
  const auto before = [](const TimedValue& v, double t) { return v.time_s < t; };
  const auto first = std::lower_bound(log.begin(), log.end(), from_s, before);
  const double a_column_s = (to_s - from_s) / columns;
  for (auto v = first; v != log.end() && v->time_s <= to_s; ++v) {
    if (!std::isfinite(v->value)) continue;
    const int column = std::min(static_cast<int>((v->time_s - from_s) / a_column_s), columns - 1);
    if (seen.empty() || seen.back().column != column) {
      seen.push_back({column, v->value, v->value, v->value, v->value, v->time_s, v->time_s});
      continue;
    }
    ThinColumn& c = seen.back();
    c.last = v->value, c.last_s = v->time_s;
    c.low = std::min(c.low, v->value), c.high = std::max(c.high, v->value);
  }
  return seen;
}

}  // namespace sunbreak
