#include "drawing/field_pixels.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <vector>

#include "drawing/hatching.h"

namespace sunbreak::drawing {
namespace {

constexpr int shades = 1024;
constexpr std::uint32_t opaque = 0xFF000000u;

std::uint32_t argb(const Rgb& c) { return opaque | std::uint32_t(c.red) << 16 | std::uint32_t(c.green) << 8 | c.blue; }

/// Colors of equal steps of the range; asked for a third of a million pixels at a time.
class Steps {
 public:
  Steps(const ValueScale& scale, const Palette& palette)
      : range_(scale.range), steps_((shades - 1) / std::max(1e-12, scale.range.high - scale.range.low)) {
    for (int i = 0; i < shades; ++i)
      color_[i] = argb(scale.color(range_.low + (range_.high - range_.low) * i / (shades - 1), palette));
  }
  std::uint32_t at(double value) const {
    return color_[static_cast<int>(std::clamp((value - range_.low) * steps_ + 0.5, 0.0, shades - 1.0))];
  }

 private:
  ScaleRange range_;
  double steps_;  ///< of the colors to one of the values' unit
  std::array<std::uint32_t, shades> color_{};
};

std::uint32_t toward(std::uint32_t from, const Rgb& to, int share_of_256) {
  const auto mix = [&](int shift, int b) {
    const int a = static_cast<int>(from >> shift & 0xFF);
    return static_cast<std::uint32_t>(a + (b - a) * share_of_256 / 256) << shift;
  };
  return opaque | mix(16, to.red) | mix(8, to.green) | mix(0, to.blue);
}

/// Where hatch and dots lie, as a tile of pixels that repeats.
class Tile {
 public:
  Tile(double pitch, double pixels_a_point, bool dots)
      : side_(std::max(1, static_cast<int>(std::lround(pitch * pixels_a_point)))), on_(side_ * side_) {
    const double middle = side_ / 2.0, radius2 = 1.3 * pixels_a_point * pixels_a_point;
    for (int y = 0; y < side_; ++y)
      for (int x = 0; x < side_; ++x) {
        const double dx = x + 0.5 - middle, dy = y + 0.5 - middle;
        on_[y * side_ + x] = dots ? dx * dx + dy * dy < radius2 : (x + y) % side_ < pixels_a_point;
      }
  }
  bool on(int x, int y) const { return on_[(y % side_) * side_ + x % side_] != 0; }

 private:
  int side_;
  std::vector<char> on_;
};

}  // namespace

FieldPixels field_pixels(const Field& field, const MapFit& fit, const ValueScale& scale, const Palette& palette,
                         const std::optional<Band>& band, double pixels_a_point) {
  FieldPixels result;
  result.place = fit.box(field.area()).intersected(fit.frame);
  if (!field.exists() || result.place.empty()) return result;
  const Place front_left = fit.place(result.place.bottom_left());
  const Rectangle area{front_left.x_m, front_left.y_m, result.place.width / fit.scale, result.place.height / fit.scale};
  const Raster raster = field.raster(area, 1 / (fit.scale * pixels_a_point));
  const Steps steps(scale, palette);
  const Tile dim(hatch_pitch, pixels_a_point, false), bright(dot_pitch, pixels_a_point, true);
  const Rgb dim_color = hatch_ink(Hatch::TooDim).color, bright_color = hatch_ink(Hatch::TooBright).color;
  result.pixels = {raster.columns, raster.rows, std::vector<std::uint32_t>(std::size_t(raster.columns) * raster.rows)};
  for (int row = 0; row < raster.rows; ++row) {
    const int y = raster.rows - 1 - row;
    std::uint32_t* line = &result.pixels.argb[std::size_t(y) * raster.columns];
    for (int column = 0; column < raster.columns; ++column) {
      const double value = raster.at(column, row);
      if (std::isnan(value)) continue;
      line[column] = steps.at(value);
      if (!band || band->contains(value)) continue;
      if (value < band->low && dim.on(column, y)) line[column] = toward(line[column], dim_color, dim_share);
      if (value > band->high && bright.on(column, y)) line[column] = toward(line[column], bright_color, bright_share);
    }
  }
  return result;
}

}  // namespace sunbreak::drawing
