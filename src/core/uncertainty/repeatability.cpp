#include "core/uncertainty/repeatability.h"

#include <cmath>
#include <numeric>

namespace sunbreak {
namespace {
constexpr double weight_of_usual = 4;
}

std::optional<Repeatability> repeatability(std::span<const RepeatedStation> stations, double usual) {
  double squares = 0;
  Repeatability result;
  for (const RepeatedStation& s : stations) {
    const auto count = static_cast<int>(s.ppfd.size());
    const double mean = std::accumulate(s.ppfd.begin(), s.ppfd.end(), 0.0) / count;
    if (count < 2 || !(mean > 0)) continue;
    for (const double ppfd : s.ppfd) squares += (ppfd / mean - 1) * (ppfd / mean - 1);
    result.degrees_of_freedom += count - 1;
  }
  if (result.degrees_of_freedom == 0) return {};
  result.relative_sd =
      std::sqrt((squares + weight_of_usual * usual * usual) / (result.degrees_of_freedom + weight_of_usual));
  return result;
}

}  // namespace sunbreak
