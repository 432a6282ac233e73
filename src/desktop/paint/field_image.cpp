#include "desktop/paint/field_image.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <vector>

namespace sunbreak::desktop {
namespace {

constexpr int colors = 1024;

/// Colors of equal steps of the range; asked for a third of a million pixels at a time.
class Palette {
 public:
  explicit Palette(const ValueScale& scale)
      : range_(scale.range), steps_((colors - 1) / std::max(1e-12, scale.range.high - scale.range.low)) {
    for (int i = 0; i < colors; ++i) {
      const report::Rgb c = scale.color(range_.low + (range_.high - range_.low) * i / (colors - 1));
      color_[i] = qRgb(c.red, c.green, c.blue);
    }
  }
  QRgb at(double value) const {
    return color_[static_cast<int>(std::clamp((value - range_.low) * steps_ + 0.5, 0.0, colors - 1.0))];
  }

 private:
  report::ScaleRange range_;
  double steps_;  ///< of the palette to one of the values' unit
  std::array<QRgb, colors> color_{};
};

QRgb toward(QRgb from, int red, int green, int blue, int share_of_256) {
  const auto mix = [&](int a, int b) { return a + (b - a) * share_of_256 / 256; };
  return qRgb(mix(qRed(from), red), mix(qGreen(from), green), mix(qBlue(from), blue));
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

FieldImage field_image(const Field& field, const MapFit& fit, const ValueScale& scale, const std::optional<Band>& band,
                       double pixels_a_point) {
  FieldImage result;
  result.place = fit.box(field.area()) & fit.frame;
  if (!field.exists() || result.place.isEmpty()) return result;
  const QPointF front_left = fit.meters(result.place.bottomLeft());
  const Rectangle area{front_left.x(), front_left.y(), result.place.width() / fit.scale,
                       result.place.height() / fit.scale};
  const Raster raster = field.raster(area, 1 / (fit.scale * pixels_a_point));
  const Palette palette(scale);
  const Tile dim(hatch_pitch_px, pixels_a_point, false), bright(dot_pitch_px, pixels_a_point, true);
  QImage image(raster.columns, raster.rows, QImage::Format_ARGB32_Premultiplied);
  for (int row = 0; row < raster.rows; ++row) {
    auto* line = reinterpret_cast<QRgb*>(image.scanLine(raster.rows - 1 - row));
    for (int column = 0; column < raster.columns; ++column) {
      const double value = raster.at(column, row);
      line[column] = std::isnan(value) ? qRgba(0, 0, 0, 0) : palette.at(value);
      if (!band || std::isnan(value) || band->contains(value)) continue;
      const int y = raster.rows - 1 - row;
      if (value < band->low && dim.on(column, y)) line[column] = toward(line[column], 255, 253, 246, 120);
      if (value > band->high && bright.on(column, y)) line[column] = toward(line[column], 20, 27, 31, 130);
    }
  }
  result.image = std::move(image);
  return result;
}

}  // namespace sunbreak::desktop
