#include "core/figures/statistics.h"

#include <algorithm>

#include <cmath>
#include <cstddef>

#include "core/sweep/field.h"

namespace sunbreak {

double weighted_mean(std::span<const double> values, std::span<const double> weights) {
  double sum = 0, total = 0;
  for (std::size_t i = 0; i < values.size(); ++i)
    if (!std::isnan(values[i])) {
      sum += weights[i] * values[i];
      total += weights[i];
    }
  return total > 0 ? sum / total : unread;
}

double weighted_sd(std::span<const double> values, std::span<const double> weights) {
  const double mean = weighted_mean(values, weights);
  double sum = 0, total = 0;
  for (std::size_t i = 0; i < values.size(); ++i)
    if (!std::isnan(values[i])) {
      sum += weights[i] * (values[i] - mean) * (values[i] - mean);
      total += weights[i];
    }
  return total > 0 ? std::sqrt(sum / total) : unread;
}

std::vector<double> percentiles(std::span<double> values, std::span<const double> wanted) {
  std::vector<double> found(wanted.size(), unread);
  if (values.empty()) return found;
  auto from = values.begin();  // what lies before is no larger than anything from here on
  for (std::size_t i = 0; i < wanted.size(); ++i) {
    const double rank = wanted[i] / 100 * static_cast<double>(values.size() - 1);
    const auto low = values.begin() + static_cast<std::ptrdiff_t>(rank);
    std::nth_element(from, low, values.end());
    const double next = low + 1 < values.end() ? *std::min_element(low + 1, values.end()) : *low;
    found[i] = *low + (rank - std::floor(rank)) * (next - *low);
    from = low;
  }
  return found;
}

}  // namespace sunbreak
