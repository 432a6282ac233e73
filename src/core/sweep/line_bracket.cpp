#include "core/sweep/line_bracket.h"

#include <algorithm>

namespace sunbreak {

LineBracket bracket_between(const std::vector<double>& lines_m, double place_m) {
  constexpr double on_it_m = 1e-6;
  const int last = static_cast<int>(lines_m.size()) - 1;
  if (place_m <= lines_m.front() + on_it_m) return {0, 0, 0};
  if (place_m >= lines_m.back() - on_it_m) return {last, last, 0};
  const int high = static_cast<int>(std::upper_bound(lines_m.begin(), lines_m.end(), place_m) - lines_m.begin());
  const double low_m = lines_m[high - 1], high_m = lines_m[high];
  if (place_m - low_m < on_it_m) return {high - 1, high - 1, 0};
  if (high_m - place_m < on_it_m) return {high, high, 0};
  return {high - 1, high, (place_m - low_m) / (high_m - low_m)};
}

}  // namespace sunbreak
