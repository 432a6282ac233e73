#include "core/figures/coverage.h"

#include <algorithm>
#include <cmath>
#include <vector>

#include "core/quantity/display.h"

namespace sunbreak {
namespace {

using Mask = std::vector<char>;

/// The largest all-true rectangle, by the largest rectangle under each row's histogram: one pass, linear in the
/// samples.
Rectangle largest_rectangle(const Raster& raster, const Mask& inside) {
  struct Open {
    int start, height;
  };
  std::vector<int> heights(raster.columns + 1, 0);
  std::vector<Open> open;
  long long best = 0;
  Rectangle found;
  for (int row = 0; row < raster.rows; ++row) {
    const char* line = inside.data() + static_cast<std::size_t>(row) * raster.columns;
    open.clear();
    for (int column = 0; column <= raster.columns; ++column) {
      if (column < raster.columns) heights[column] = line[column] ? heights[column] + 1 : 0;
      int start = column;
      while (!open.empty() && open.back().height >= heights[column]) {
        const auto [from, height] = open.back();
        open.pop_back();
        start = from;
        const long long samples = static_cast<long long>(height) * (column - from);
        if (samples > best) {
          best = samples;
          found = {raster.area.left_m + from * raster.step_x_m(),
                   raster.area.front_m + (row + 1 - height) * raster.step_y_m(), (column - from) * raster.step_x_m(),
                   height * raster.step_y_m()};
        }
      }
      open.push_back({start, heights[column]});
    }
  }
  return found;
}

/// The largest all-true rectangle about the middle: for each number of middle rows, the widest run common to them.
Rectangle largest_centered_rectangle(const Raster& raster, const Mask& inside) {
  const auto half_run = [&](int row) {
    const char* line = inside.data() + static_cast<std::size_t>(row) * raster.columns;
    int left = (raster.columns - 1) / 2, right = raster.columns / 2, run = 0;
    while (left >= 0 && line[left] && line[right]) --left, ++right, ++run;
    return run;
  };
  const auto full = [](int half, int count) { return half == 0 ? 0 : 2 * half - count % 2; };
  int widest = (raster.columns + 1) / 2, best_columns = 0, best_rows = 0;
  int front = (raster.rows - 1) / 2, back = raster.rows / 2;
  for (int half = 1; front >= 0; --front, ++back, ++half) {
    widest = std::min({widest, half_run(front), half_run(back)});
    if (widest == 0) break;
    const int columns = full(widest, raster.columns), rows = full(half, raster.rows);
    if (static_cast<long long>(columns) * rows > static_cast<long long>(best_columns) * best_rows)
      best_columns = columns, best_rows = rows;
  }
  if (best_columns == 0) return {};
  const double width = best_columns * raster.step_x_m(), depth = best_rows * raster.step_y_m();
  return {raster.area.left_m + (raster.area.width_m - width) / 2,
          raster.area.front_m + (raster.area.depth_m - depth) / 2, width, depth};
}

/// Twice the distance from the middle to the nearest point of an out-of-band cell, or to the edge.
double largest_centered_circle(const Raster& raster, const Mask& inside) {
  const double half_width = raster.area.width_m / 2, half_depth = raster.area.depth_m / 2;
  const double reach = std::min(half_width, half_depth);
  double nearest2 = reach * reach;
  for (int row = 0; row < raster.rows; ++row) {
    const double away_y = std::abs((row + 0.5) * raster.step_y_m() - half_depth);
    const double dy = std::max(0.0, away_y - raster.step_y_m() / 2);
    if (dy * dy >= nearest2) continue;
    for (int column = 0; column < raster.columns; ++column) {
      if (inside[static_cast<std::size_t>(row) * raster.columns + column]) continue;
      const double away_x = std::abs((column + 0.5) * raster.step_x_m() - half_width);
      const double dx = std::max(0.0, away_x - raster.step_x_m() / 2);
      nearest2 = std::min(nearest2, dx * dx + dy * dy);
    }
  }
  const double diameter = 2 * std::sqrt(nearest2);
  return diameter < 1e-9 ? 0 : diameter;
}

}  // namespace

std::string in_band_text(const Coverage& coverage) {
  const std::string share = share_text(coverage.in_band_share);
  if (coverage.unread_share <= 1 - least_read) return share;
  return share == share_text(0) ? "not known" : "at least " + share;
}

double in_band_share(const Raster& raster, const Band& band) {
  int count = 0;
  for (const double ppfd : raster.ppfd) count += band.contains(ppfd);
  return count / static_cast<double>(raster.ppfd.size());
}

double in_band_share(const RasterPlan& plan, std::span<const double> ppfd, const Band& band) {
  std::vector<double> line(plan.station_columns()), samples(plan.columns());
  int count = 0;
  for (int row = 0; row < plan.rows(); ++row) {
    plan.sample_row(ppfd, row, line, samples);
    for (const double e : samples) count += band.contains(e);
  }
  return count / (static_cast<double>(plan.columns()) * plan.rows());
}

Coverage coverage(const Raster& raster, const Band& band) {
  Coverage result;
  result.band = band;
  if (raster.ppfd.empty()) return result;
  Mask inside(raster.ppfd.size());
  long long in_band = 0, dim = 0, bright = 0;
  for (std::size_t i = 0; i < inside.size(); ++i) {
    const double ppfd = raster.ppfd[i];
    inside[i] = band.contains(ppfd);
    in_band += inside[i];
    dim += ppfd < band.low;
    bright += ppfd > band.high;
  }
  const auto count = static_cast<double>(inside.size());
  result.in_band_share = static_cast<double>(in_band) / count;
  result.in_band_m2 = result.in_band_share * raster.area.area_m2();
  result.too_dim_share = static_cast<double>(dim) / count;
  result.too_bright_share = static_cast<double>(bright) / count;
  result.unread_share = (count - static_cast<double>(in_band + dim + bright)) / count;
  if (in_band > 0) {
    result.largest_rectangle = largest_rectangle(raster, inside);
    result.largest_centered_rectangle = largest_centered_rectangle(raster, inside);
    result.largest_centered_circle_m = largest_centered_circle(raster, inside);
  }
  return result;
}

}  // namespace sunbreak
