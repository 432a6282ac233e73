#include "core/lineup/dominance.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {
namespace {

/// An axis' values where more is better, entries without all figures as NaN, which is neither more nor less.
std::vector<double> values_of(const DominanceAxis& axis) {
  std::vector<double> values;
  for (const Standing& s : axis.standings)
    values.push_back(std::isfinite(s.value) ? (axis.better == Better::More ? s.value : -s.value) : unread);
  return values;
}

bool has_all(std::span<const DominanceAxis> axes, std::size_t entry) {
  return std::ranges::all_of(axes, [&](const DominanceAxis& a) { return std::isfinite(a.standings[entry].value); });
}

bool somewhere_beyond(std::span<const DominanceAxis> axes, std::size_t a, std::size_t b) {
  return std::ranges::any_of(
      axes, [&](const DominanceAxis& axis) { return difference(axis.standings[a], axis.standings[b]).beyond(); });
}

}  // namespace

std::vector<std::vector<int>> dominated_by(std::span<const DominanceAxis> axes, const Comparability* comparable) {
  const std::size_t entries = axes.empty() ? 0 : axes.front().standings.size();
  std::vector<std::vector<int>> dominated(entries);
  std::vector<std::vector<double>> values;
  for (const DominanceAxis& axis : axes) values.push_back(values_of(axis));
  std::vector<char> no_worse(entries);
  for (std::size_t b = 0; b < entries; ++b) {
    std::ranges::fill(no_worse, 1);
    for (const std::vector<double>& axis : values) {
      const double here = axis[b];
      for (std::size_t a = 0; a < entries; ++a) no_worse[a] &= static_cast<char>(axis[a] >= here);
    }
    for (std::size_t a = 0; a < entries; ++a)
      if (no_worse[a] != 0 && a != b && (!comparable || comparable->may(static_cast<int>(a), static_cast<int>(b))) &&
          somewhere_beyond(axes, a, b))
        dominated[b].push_back(static_cast<int>(a));
  }
  return dominated;
}

std::vector<int> frontier(std::span<const DominanceAxis> axes, std::span<const std::vector<int>> dominated) {
  std::vector<int> on;
  for (std::size_t i = 0; i < dominated.size(); ++i)
    if (dominated[i].empty() && has_all(axes, i)) on.push_back(static_cast<int>(i));
  return on;
}

}  // namespace sunbreak
