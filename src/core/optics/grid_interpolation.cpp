#include "core/optics/grid_interpolation.h"

#include <algorithm>

namespace sunbreak {

std::vector<GridInterpolation::Between> GridInterpolation::between_middles(const std::vector<double>& coarse_edges,
                                                                           const std::vector<double>& fine_edges) {
  const auto middle = [](const std::vector<double>& edges, std::size_t i) { return (edges[i] + edges[i + 1]) / 2; };
  const std::size_t last = coarse_edges.size() - 2;
  std::vector<Between> all;
  for (std::size_t f = 0; f + 1 < fine_edges.size(); ++f) {
    const double at = middle(fine_edges, f);
    std::size_t i = 0;
    while (i < last && middle(coarse_edges, i + 1) < at) ++i;
    const double low = middle(coarse_edges, i);
    const double share = i == last ? 0 : std::clamp((at - low) / (middle(coarse_edges, i + 1) - low), 0.0, 1.0);
    all.push_back({i, share > 0 ? i + 1 : i, share});
  }
  return all;
}

GridInterpolation::GridInterpolation(const PatchGrid& coarse, const PatchGrid& fine)
    : columns_(between_middles(coarse.u_edges_m, fine.u_edges_m)),
      rows_(between_middles(coarse.v_edges_m, fine.v_edges_m)),
      coarse_columns_(coarse.u_count()),
      coarse_rows_(coarse.v_count()) {}

Interpolation GridInterpolation::at(std::size_t fine_patch) const {
  const auto [i, i1, s] = columns_[fine_patch % columns_.size()];
  const auto [j, j1, t] = rows_[fine_patch / columns_.size()];
  const std::size_t n = coarse_columns_;
  return {{j * n + i, j * n + i1, j1 * n + i, j1 * n + i1}, {(1 - s) * (1 - t), s * (1 - t), (1 - s) * t, s * t}};
}

// Rows first, all columns of one at once; the few that are left then by columns.
void GridInterpolation::add_to_coarse(std::span<const double> fine, std::span<double> coarse) const {
  const std::size_t across = columns_.size();
  std::vector<double> lines(coarse_rows_ * across, 0);
  for (std::size_t row = 0; row < rows_.size(); ++row) {
    const auto [j, j1, t] = rows_[row];
    const double* const from = fine.data() + row * across;
    double *const low = lines.data() + j * across, *const high = lines.data() + j1 * across;
    for (std::size_t u = 0; u < across; ++u) low[u] += (1 - t) * from[u];
    if (j1 != j)
      for (std::size_t u = 0; u < across; ++u) high[u] += t * from[u];
  }
  for (std::size_t j = 0; j < coarse_rows_; ++j)
    for (std::size_t u = 0; u < across; ++u) {
      const auto [i, i1, s] = columns_[u];
      const double value = lines[j * across + u];
      coarse[j * coarse_columns_ + i] += (1 - s) * value;
      coarse[j * coarse_columns_ + i1] += s * value;
    }
}

}  // namespace sunbreak
