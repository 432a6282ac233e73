#include "paper/still_frame.h"

#include <cairo.h>
#include <fmt/format.h>

#include <algorithm>

#include "drawing/map_drawing.h"
#include "drawing/png.h"
#include "evaluation/provenance.h"
#include "paper/cairo_canvas.h"

namespace sunbreak::paper {

using namespace drawing;

namespace {

/// A picture of what `draw` puts on a canvas of the frame's points.
Result<std::string> picture(const StillFrame& frame, const Palette& palette, const std::function<void(Canvas&)>& draw) {
  const StillSize size = size_of(frame.shape);
  cairo_surface_t* surface = cairo_image_surface_create(CAIRO_FORMAT_RGB24, size.width, size.height);
  cairo_t* target = cairo_create(surface);
  const double scale = size.height / still_height;
  cairo_scale(target, scale, scale);
  {
    CairoCanvas canvas(target, scale, palette);
    canvas.fill({0, 0, frame.width + 1, still_height + 1}, palette.panel);
    draw(canvas);
  }
  cairo_destroy(target);
  cairo_surface_flush(surface);
  const cairo_status_t status = cairo_surface_status(surface);
  Pixels pixels{size.width, size.height};
  if (status == CAIRO_STATUS_SUCCESS) {
    const auto* rows = reinterpret_cast<const std::uint32_t*>(cairo_image_surface_get_data(surface));
    const int stride = cairo_image_surface_get_stride(surface) / 4;
    pixels.argb.reserve(static_cast<std::size_t>(size.width) * static_cast<std::size_t>(size.height));
    for (int row = 0; row < size.height; ++row)
      for (int column = 0; column < size.width; ++column)
        pixels.argb.push_back(rows[std::ptrdiff_t(row) * stride + column] | 0xFF000000u);
  }
  cairo_surface_destroy(surface);
  if (status != CAIRO_STATUS_SUCCESS)
    return Problem{fmt::format("a picture could not be made: {}", cairo_status_to_string(status)),
                   "nothing was written", "close other programs, and try again"};
  return png(pixels);
}

}  // namespace

Result<Still> still(const StillFrame& frame, const Palette& palette, std::string name, std::string alt,
                    const std::string& foot, const std::function<void(Canvas&)>& draw) {
  auto png = picture(frame, palette, [&](Canvas& c) {
    draw(c);
    c.text({still_edge, still_height - still_foot - 4, frame.inner_width(), still_foot}, Align::Left,
           fitted(c, foot, least_points, false, frame.inner_width()), {least_points, false, c.colors().quiet});
  });
  if (!png) return png.problem();
  return Still{std::move(name), std::move(png.value()), std::move(alt)};
}

std::string still_foot_words(const record::TestRecord& b) {
  std::string words = evaluation::provenance_note(b.test, b.test.simulated);
  if (!b.test.simulated && !b.test.tested_by.empty()) words += (words.empty() ? "" : " · ") + b.test.tested_by;
  if (!b.test.tested_on.empty()) words += (words.empty() ? "" : " · ") + b.test.tested_on;
  return words;
}

/// A heading in as many lines as it takes, and a line below; returns where they end.
double draw_still_heading(Canvas& c, const StillFrame& frame, const std::string& title, const std::string& below) {
  const int points = frame.tall() ? 15 : 20;
  const double width = frame.width - 2 * still_edge;
  double y = still_edge;
  c.text({still_edge, y, width, points * 1.3}, Align::Left, fitted(c, title, points, true, width),
         {points, true, c.colors().ink});
  y += points * 1.4;
  const int small = frame.tall() ? 10 : 12;
  for (const std::string& line : wrapped(c, below, small, width)) {
    c.text({still_edge, y, width, small * 1.3}, Align::Left, line, {small, false, c.colors().quiet});
    y += small * 1.35;
  }
  return y + 4;
}

/// The light scale as a bar with its ends.
void draw_still_scale(Canvas& c, const Box& room, const ScaleRange& range) {
  const std::string low = fmt::format("{:g}", range.low), high = fmt::format("{:g} µmol/m²/s", range.high);
  const double left = c.text_width(low, least_points, false) + 5, right = c.text_width(high, least_points, false) + 5;
  const Box bar{room.left + left, room.top + 2, std::max(20.0, room.width - left - right), room.height - 4};
  constexpr int steps = 64;
  for (int i = 0; i < steps; ++i)
    c.fill({bar.left + bar.width * i / steps, bar.top, bar.width / steps + 0.4, bar.height},
           light_color((i + 0.5) / steps));
  c.text({room.left, room.top, left, room.height}, Align::Left, low, {least_points, false, c.colors().quiet});
  c.text({bar.right() + 5, room.top, right, room.height}, Align::Left, high, {least_points, false, c.colors().quiet});
}

void draw_still_map(Canvas& c, const Box& room, const record::Bench& bench, const evaluation::SweepView& view,
                    const ScaleRange& range, bool numbers, UnitSystem units) {
  MapScene scene;
  scene.view = &view;
  scene.bench = &bench;
  scene.scale.range = range;
  scene.units = units;
  scene.rulers = scene.key = false;
  scene.numbers = numbers;
  scene.room_right = room.right();
  draw_map(c, fit_map(room, view.layout.footprint, false, 0), scene);
}

void draw_still_table(Canvas& c, const Box& room, const std::vector<std::string>& heads,
                      const std::vector<std::vector<std::string>>& rows) {
  constexpr double gap = 10, head_height = 16;
  const int points = room.width < 300 ? least_points : room.width < 450 ? 12 : 16;
  const double row_height = 2 * points;
  std::vector<double> widths(heads.size(), 0);
  for (std::size_t k = 1; k < heads.size(); ++k) {
    widths[k] = c.text_width(heads[k], least_points, false);
    for (const auto& row : rows)
      if (k < row.size()) widths[k] = std::max(widths[k], c.text_width(row[k], points, true));
    widths[k] += gap;
  }
  double others = 0;
  for (std::size_t k = 1; k < widths.size(); ++k) others += widths[k];
  // Columns that leave too little for the first one go, the last first.
  std::size_t shown = widths.size();
  while (shown > 2 && room.width - others < room.width * 0.24) others -= widths[--shown];
  widths[0] = room.width - others;
  const double step = rows.empty()
                          ? row_height
                          : std::min(row_height + 6, (room.height - head_height) / static_cast<double>(rows.size()));
  const auto line = [&](const std::vector<std::string>& cells, double y, double high, bool head) {
    double x = room.left;
    for (std::size_t k = 0; k < shown && k < cells.size(); ++k) {
      const bool bold = !head && k > 0;
      const int size = head ? least_points : points;
      c.text({x, y, widths[k], high}, k == 0 ? Align::Left : Align::Right,
             fitted(c, cells[k], size, bold, widths[k] - (k == 0 ? gap / 2 : 0)),
             {size, bold, head ? c.colors().quiet : c.colors().ink});
      x += widths[k];
    }
  };
  line(heads, room.top, head_height, true);
  double y = room.top + head_height;
  for (const auto& row : rows) {
    if (y + least_points > room.bottom()) break;
    c.line({room.left, y}, {room.right(), y}, {c.colors().rule, 0.6});
    line(row, y, std::min(step, row_height), false);
    y += step;
  }
}

}  // namespace sunbreak::paper
