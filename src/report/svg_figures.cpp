#include "report/svg_figures.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/bench/station_box.h"
#include "core/figures/area_curve.h"

namespace sunbreak::report {
namespace {

constexpr const char* ink = "#1E2A2F";
constexpr const char* quiet = "#5C686C";
constexpr const char* rule = "#D8D2C4";
constexpr const char* lake = "#1D6470";
constexpr const char* ember = "#B4471B";

std::string text(double x, double y, const std::string& words, double size, const std::string& color,
                 const char* anchor = "middle", bool bold = false) {
  return fmt::format(
      "<text x=\"{:.1f}\" y=\"{:.1f}\" font-size=\"{:.1f}\" fill=\"{}\" text-anchor=\"{}\"{}>{}</text>\n", x, y, size,
      color, anchor, bold ? " font-weight=\"bold\"" : "", words);
}

std::string rect(double x, double y, double w, double h, const std::string& fill, const std::string& more = {}) {
  return fmt::format("<rect x=\"{:.2f}\" y=\"{:.2f}\" width=\"{:.2f}\" height=\"{:.2f}\" fill=\"{}\"{}/>\n", x, y, w, h,
                     fill, more);
}

std::string line(double x1, double y1, double x2, double y2, const std::string& color, double width,
                 const char* more = "") {
  return fmt::format(
      "<line x1=\"{:.1f}\" y1=\"{:.1f}\" x2=\"{:.1f}\" y2=\"{:.1f}\" stroke=\"{}\" stroke-width=\"{}\"{}/>\n", x1, y1,
      x2, y2, color, width, more);
}

std::string open_svg(double width, double height, const std::string& label) {
  return fmt::format(
      "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {0:.0f} {1:.0f}\" width=\"{0:.0f}\" height=\"{1:.0f}\" "
      "role=\"img\" aria-label=\"{2}\" font-family=\"B612, 'DejaVu Sans', sans-serif\">\n",
      width, height, label);
}

/// Ticks at round places along a length, in the surface unit.
template <typename Mark>
void for_ticks(double length_m, UnitSystem units, Mark mark) {
  const double unit = meters_per(surface_unit(units)), step = round_step(length_m / unit, 6);
  for (double at = 0; at <= length_m / unit + 1e-9; at += step) mark(at * unit, short_number(at, 1));
}

/// A wall as the bench states it: double line where reflective or white, single where dark, dashes where open.
std::string wall(double x1, double y1, double x2, double y2, double out_x, double out_y, const std::string& kind) {
  if (kind == "open") return line(x1, y1, x2, y2, quiet, 1, " stroke-dasharray=\"2 5\"");
  std::string svg = line(x1 + out_x * 2, y1 + out_y * 2, x2 + out_x * 2, y2 + out_y * 2, quiet, 1.5);
  if (kind != "dark") svg += line(x1 + out_x * 6, y1 + out_y * 6, x2 + out_x * 6, y2 + out_y * 6, quiet, 1.5);
  return svg;
}

/// Diagonals of one ruled sheet, cut to a box: neighboring boxes continue each other. Plain strokes, since not every
/// SVG viewer knows patterns.
void hatch(std::string& path, double x, double y, double w, double h) {
  constexpr double pitch = 9;
  for (double k = std::ceil((x + y) / pitch) * pitch; k < x + y + w + h; k += pitch) {
    const double x1 = std::max(x, k - (y + h)), x2 = std::min(x + w, k - y);
    if (x2 > x1) path += fmt::format("M{:.1f} {:.1f}L{:.1f} {:.1f}", x1, k - x1, x2, k - x2);
  }
}

/// Dots of one ruled sheet that lie in a box.
void dots(std::string& path, double x, double y, double w, double h) {
  constexpr double pitch = 7;
  for (double dy = std::ceil(y / pitch) * pitch; dy < y + h; dy += pitch)
    for (double dx = std::ceil(x / pitch) * pitch; dx < x + w; dx += pitch)
      path += fmt::format("M{:.1f} {:.1f}h1.6v1.6h-1.6z", dx, dy);
}

}  // namespace

std::string map_svg(const record::TestRecord& bundle, const evaluation::SweepView& view,
                    const std::optional<Band>& band, const ScaleRange& range, UnitSystem units) {
  const Footprint& fp = view.layout.footprint;
  const double scale = 560 / std::max(fp.width_m, fp.depth_m), width = fp.width_m * scale, depth = fp.depth_m * scale;
  const double left = 46, top = 16;
  const auto px = [&](double x_m) { return left + x_m * scale; };
  const auto py = [&](double y_m) { return top + (fp.depth_m - y_m) * scale; };
  std::string svg = open_svg(left + width + 24, top + depth + 96, "PPFD map, far wall at the top");
  std::string dim, bright, numbers;
  svg += rect(left, top, width, depth, "#F4F1EA");

  auto boxes = station_boxes(view.layout);
  for (std::size_t i = boxes.size(); i < view.layout.stations.size(); ++i) {
    const Station& s = view.layout.stations[i];
    boxes.push_back({s.x_m - 0.05, s.y_m - 0.03, 0.10, 0.06});
  }
  const double smallest = boxes.empty() ? 0
                                        : std::min(boxes[boxes.size() / 2].width_m * scale / 3.2,
                                                   boxes[boxes.size() / 2].depth_m * scale / 1.6);
  const double font = std::min(14.0, smallest);
  for (std::size_t i = 0; i < boxes.size(); ++i) {
    const Rectangle& b = boxes[i];
    const double x = px(b.left_m), y = py(b.front_m + b.depth_m), w = b.width_m * scale, h = b.depth_m * scale,
                 ppfd = view.ppfd[i];
    if (std::isnan(ppfd)) {
      svg += rect(x, y, w, h, "#FFFFFF", fmt::format(" stroke=\"{}\" stroke-width=\"0.6\"", rule));
      svg += line(x + w * 0.35, y + h / 2, x + w * 0.65, y + h / 2, quiet, 1);
      continue;
    }
    const Rgb ground = light_color(range.share(ppfd));
    svg += rect(x, y, w, h, ground.hex());
    if (band && ppfd < band->low) hatch(dim, x, y, w, h);
    if (band && ppfd > band->high) dots(bright, x, y, w, h);
    if (font >= 7) numbers += text(x + w / 2, y + h / 2 + font * 0.36, ppfd_text(ppfd), font, ink_on(ground).hex());
  }
  if (!dim.empty())
    svg += fmt::format(
        "<path d=\"{}\" stroke=\"#FFFDF6\" stroke-opacity=\"0.5\" stroke-width=\"0.8\" fill=\"none\"/>\n", dim);
  if (!bright.empty()) svg += fmt::format("<path d=\"{}\" fill=\"#141B1F\" fill-opacity=\"0.6\"/>\n", bright);
  svg += numbers;
  svg += wall(left, top, left + width, top, 0, -1, bundle.bench.wall_back) +
         wall(left, top + depth, left + width, top + depth, 0, 1, bundle.bench.wall_front) +
         wall(left, top, left, top + depth, -1, 0, bundle.bench.wall_left) +
         wall(left + width, top, left + width, top + depth, 1, 0, bundle.bench.wall_right);
  for_ticks(fp.width_m, units,
            [&](double at, const std::string& label) { svg += text(px(at), top + depth + 24, label, 11, quiet); });
  for_ticks(fp.depth_m, units,
            [&](double at, const std::string& label) { svg += text(left - 12, py(at) + 4, label, 11, quiet, "end"); });
  svg +=
      text(left + width / 2, top + depth + 42, fmt::format("door side · {}", symbol(surface_unit(units))), 11, quiet);

  const double key_y = top + depth + 58, key_width = std::min(width, 320.0);
  for (int i = 0; i < 64; ++i)
    svg += rect(left + i * key_width / 64, key_y, key_width / 64 + 0.5, 10, light_color((i + 0.5) / 64).hex());
  svg += text(left, key_y + 24, short_number(range.low, 1), 11, quiet, "start") +
         text(left + key_width, key_y + 24, short_number(range.high, 1) + " µmol/m²/s", 11, quiet, "end");
  return svg + "</svg>\n";
}

std::string rings_svg(const SweepFigures& figures, const ScaleRange& range, UnitSystem units) {
  double longest = 1;
  for (const Ring& ring : figures.rings)
    if (ring.read > 0) longest = std::max(longest, ring.mean_ppfd);
  std::string svg = open_svg(420, 18.0 * static_cast<double>(figures.rings.size()) + 8,
                             "Mean PPFD of each ring from the wall inwards");
  double y = 4;
  for (const Ring& ring : figures.rings) {
    const double unit = meters_per(surface_unit(units));
    svg += text(70, y + 11, short_number(ring.outer_m / unit, 1) + "–" + short_number(ring.inner_m / unit, 1), 11,
                quiet, "end");
    if (ring.read > 0) {
      const double length = std::max(1.0, 280 * ring.mean_ppfd / longest);
      svg += rect(80, y, length, 13, light_color(range.share(ring.mean_ppfd)).hex(),
                  fmt::format(" stroke=\"{}\" stroke-width=\"0.5\"", quiet));
      svg += text(88 + length, y + 11, ppfd_text(ring.mean_ppfd), 12, ink, "start", true);
    } else {
      svg += text(80, y + 11, "not read", 11, quiet, "start");
    }
    y += 18;
  }
  return svg + "</svg>\n";
}

std::string area_curve_svg(const evaluation::SweepView& view, const std::optional<Band>& band, UnitSystem units) {
  const Field field(view.layout, view.ppfd);
  const Raster raster = field.raster();
  const AreaCurve curve(raster);
  double highest = 1;
  for (const double ppfd : view.ppfd)
    if (!std::isnan(ppfd)) highest = std::max(highest, ppfd);
  const ScaleRange range = round_range(0, highest);
  const double left = 60, top = 10, width = 340, height = 130, area = std::max(view.layout.measured.area_m2(), 1e-9);
  std::string svg = open_svg(420, 180, "Area at or above each PPFD");
  svg += rect(left, top, width, height, "#F4F1EA");
  std::string points;
  for (int i = 0; i <= 120; ++i) {
    const double ppfd = range.high * i / 120;
    points += fmt::format("{:.1f},{:.1f} ", left + width * i / 120,
                          top + height * (1 - curve.area_m2_at_or_above(ppfd) / area));
  }
  svg += fmt::format("<polyline points=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"2\"/>\n", points, lake);
  if (band && band->low < range.high) {
    const double x = left + width * band->low / range.high;
    svg += line(x, top, x, top + height, ember, 1, " stroke-dasharray=\"4 3\"");
    const bool right_half = x > left + width / 2;
    svg +=
        text(x + (right_half ? -6 : 6), top + 14,
             fmt::format("{} ≥ {}", area_text(curve.area_m2_at_or_above(band->low), units), short_number(band->low, 0)),
             11, ink, right_half ? "end" : "start", true);
  }
  const double step = round_step(range.high, 5);
  for (double at = 0; at <= range.high + 1e-9; at += step)
    svg += text(left + width * at / range.high, top + height + 16, short_number(at, 0), 11, quiet);
  svg += text(left + width / 2, top + height + 34, "µmol/m²/s", 11, quiet);
  svg += text(left - 8, top + 10, area_text(area, units), 11, quiet, "end") +
         text(left - 8, top + height, "0", 11, quiet, "end");
  return svg + "</svg>\n";
}

}  // namespace sunbreak::report
