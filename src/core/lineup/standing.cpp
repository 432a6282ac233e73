#include "core/lineup/standing.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace sunbreak {

double Standing::variance() const {
  double sum = own_variance;
  for (const SharedPart& p : shared) sum += p.standard * p.standard;
  return sum;
}

double Standing::expanded() const { return 2 * std::sqrt(variance()) + std::abs(bias); }

StandingDifference difference(const Standing& a, const Standing& b) {
  double variance = a.own_variance + a.between_variance + b.own_variance + b.between_variance;
  auto i = a.shared.begin(), j = b.shared.begin();
  while (i != a.shared.end() || j != b.shared.end()) {
    const bool first = j == b.shared.end() || (i != a.shared.end() && i->source <= j->source),
               second = i == a.shared.end() || (j != b.shared.end() && j->source <= i->source);
    const double off = (first ? i->standard : 0) - (second ? j->standard : 0);
    variance += off * off;
    if (first) ++i;
    if (second) ++j;
  }
  return {a.value - b.value, 2 * std::sqrt(variance) + std::abs(a.bias - b.bias)};
}

Standing worked_out(double value, std::span<const std::pair<double, const Standing*>> from) {
  Standing made;
  made.value = value;
  std::map<std::uint32_t, double> shared;
  for (const auto& [slope, standing] : from) {
    made.own_variance += slope * slope * standing->own_variance;
    made.between_variance += slope * slope * standing->between_variance;
    made.bias += slope * standing->bias;
    for (const SharedPart& p : standing->shared) shared[p.source] += slope * p.standard;
    if (std::isnan(standing->value)) made.value = unread;
  }
  for (const auto& [source, standard] : shared) made.shared.push_back({source, standard});
  return made;
}

}  // namespace sunbreak
