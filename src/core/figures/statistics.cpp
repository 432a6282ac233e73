#include "core/figures/statistics.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstddef>
#include <numeric>

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

namespace {

/// The values of given ranks (from 0, ascending), in place. Many values are first counted into equal parts of their
/// range; then only those of the parts that hold a rank are put in order.
std::vector<double> ranked(std::span<double> values, std::span<const std::size_t> ranks) {
  const auto [lowest, highest] = std::minmax_element(values.begin(), values.end());
  const double low = *lowest, span = *highest - *lowest;
  std::vector<double> found;
  found.reserve(ranks.size());
  if (values.size() < 64 || !(span > 0) || !std::isfinite(span)) {
    std::sort(values.begin(), values.end());
    for (const std::size_t rank : ranks) found.push_back(values[rank]);
    return found;
  }
  constexpr std::size_t parts = 256;
  const double per_part = (parts - 1) / span;
  const auto part_of = [&](double value) { return static_cast<std::size_t>((value - low) * per_part); };
  std::array<std::size_t, parts + 1> below{};  // how many values lie in earlier parts
  for (const double value : values) ++below[part_of(value) + 1];
  std::partial_sum(below.begin(), below.end(), below.begin());
  std::array<bool, parts> wanted{};
  for (const std::size_t rank : ranks)
    wanted[static_cast<std::size_t>(std::upper_bound(below.begin(), below.end(), rank) - below.begin()) - 1] = true;
  std::size_t kept = 0;
  for (std::size_t i = 0; i < values.size(); ++i)
    if (wanted[part_of(values[i])]) std::swap(values[kept++], values[i]);
  std::sort(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(kept));
  std::array<std::size_t, parts> at{};  // where a part begins among those kept
  for (std::size_t p = 0, sum = 0; p < parts; ++p) {
    at[p] = sum;
    if (wanted[p]) sum += below[p + 1] - below[p];
  }
  for (const std::size_t rank : ranks) {
    const auto part = static_cast<std::size_t>(std::upper_bound(below.begin(), below.end(), rank) - below.begin()) - 1;
    found.push_back(values[at[part] + rank - below[part]]);
  }
  return found;
}

}  // namespace

std::vector<double> percentiles(std::span<double> values, std::span<const double> wanted) {
  if (values.empty()) return std::vector<double>(wanted.size(), unread);
  std::vector<std::size_t> ranks;
  std::vector<double> beyond;
  for (const double percent : wanted) {
    const double rank = percent / 100 * static_cast<double>(values.size() - 1);
    ranks.push_back(static_cast<std::size_t>(rank));
    ranks.push_back(std::min(static_cast<std::size_t>(rank) + 1, values.size() - 1));
    beyond.push_back(rank - std::floor(rank));
  }
  const std::vector<double> neighbors = ranked(values, ranks);
  std::vector<double> found;
  for (std::size_t i = 0; i < beyond.size(); ++i)
    found.push_back(neighbors[2 * i] + beyond[i] * (neighbors[2 * i + 1] - neighbors[2 * i]));
  return found;
}

}  // namespace sunbreak
