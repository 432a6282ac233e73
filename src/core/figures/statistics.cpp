#include "core/figures/statistics.h"

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

double percentile(std::span<const double> ascending, double p) {
  if (ascending.empty()) return unread;
  const double rank = p / 100 * static_cast<double>(ascending.size() - 1);
  const auto low = static_cast<std::size_t>(rank);
  const std::size_t high = low + 1 < ascending.size() ? low + 1 : low;
  return ascending[low] + (rank - static_cast<double>(low)) * (ascending[high] - ascending[low]);
}

}  // namespace sunbreak
