#include "book/demo/demo_pictures.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "pictures/clean_picture.h"
#include "pictures/pixels.h"

namespace sunbreak::book {
namespace {

using pictures::Rgb8;
using Color = std::array<double, 3>;

constexpr int width = 640, height = 440, bars_drawn = 6;

Rgb8 painted(const std::function<Color(double x, double y)>& color) {
  Rgb8 picture{width, height, std::vector<std::uint8_t>(3 * std::size_t{width} * height)};
  for (int y = 0; y < height; ++y)
    for (int x = 0; x < width; ++x) {
      const Color c = color((x + 0.5) / width, (y + 0.5) / height);
      for (std::size_t i = 0; i < 3; ++i)
        picture.bytes[3 * (std::size_t(y) * width + std::size_t(x)) + i] =
            static_cast<std::uint8_t>(std::clamp(c[i], 0.0, 255.0));
    }
  return picture;
}

/// Six bars from below, on a bench.
Rgb8 bars_from_below() {
  return painted([](double x, double y) -> Color {
    const double bar = (x - 0.08) / 0.84 * (bars_drawn - 1), off = std::abs(bar - std::round(bar));
    const bool on_bar = off < 0.09 && bar > -0.2 && bar < bars_drawn - 0.8 && y > 0.08 && y < 0.92;
    const bool on_rail = std::abs(y - 0.5) < 0.035 && x > 0.05 && x < 0.95;
    if (on_bar) {
      const double chip = std::abs(std::remainder(18 * (y - 0.08) / 0.84, 1.0));
      return off < 0.03 && chip < 0.25 ? Color{250, 236, 190} : Color{206, 209, 207};
    }
    if (on_rail) return {92, 99, 102};
    return {58 + 14 * y, 52 + 12 * y, 46 + 10 * y};
  });
}

/// A driver between bars as a thermal camera sees it, from cool to hot.
Rgb8 driver_by_heat() {
  return painted([](double x, double y) -> Color {
    const double driver = std::exp(-std::pow((x - 0.5) / 0.2, 4) - std::pow((y - 0.5) / 0.09, 4));
    const double bars = 0.55 * std::exp(-std::pow(std::remainder(bars_drawn * x, 1.0) / 0.16, 2));
    const double heat = std::max(driver, bars);
    return {40 + 205 * heat, 44 + 130 * heat * heat, 70 + 90 * heat * (1 - heat)};
  });
}

/// A tray of seedlings from above.
Rgb8 tray_from_above() {
  return painted([](double x, double y) -> Color {
    const double leaf = std::hypot(std::remainder(8 * x, 1.0), std::remainder(5.5 * y, 1.0));
    return leaf < 0.34 ? Color{70 + 60 * leaf, 120 + 70 * leaf, 60} : Color{64, 50, 40};
  });
}

template <typename Row>
Row described(Edit& edit, const Rgb8& pixels, const char* kind, const char* caption, const char* at) {
  const auto file = pictures::clean_picture(pictures::jpeg_of(pixels, 88)).value();
  Row row;
  row.kind = kind;
  row.caption = caption;
  row.digest = edit.keep_picture(file.bytes);
  row.media_type = file.media_type;
  row.width_px = file.width_px;
  row.height_px = file.height_px;
  row.size_bytes = static_cast<int>(file.bytes.size());
  row.origin = "drawn by a program";
  row.added_at = at;
  return row;
}

}  // namespace

void add_sample_pictures(Edit& edit, const Test& test, Id driver_temperature, Id growth_note) {
  auto bars = described<FixturePicture>(edit, bars_from_below(), "photograph", "the six bars from below (drawn)",
                                        "2026-03-14T08:10:00.000Z");
  bars.fixture_id = test.fixture_id;
  edit.add(bars);
  auto heat = described<Picture>(edit, driver_by_heat(), "thermal", "the driver after 72 minutes (drawn)",
                                 "2026-03-14T08:58:00.000Z");
  heat.test_id = test.id;
  heat.temperature_id = driver_temperature;
  edit.add(heat);
  auto tray = described<Picture>(edit, tray_from_above(), "photograph", "basil under it, week five (drawn)",
                                 "2026-05-02T10:00:00.000Z");
  tray.test_id = test.id;
  tray.growth_note_id = growth_note;
  edit.add(tray);
}

}  // namespace sunbreak::book
