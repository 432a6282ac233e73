#include "drawing/contour_lines.h"

#include <algorithm>
#include <cmath>

#include "core/sweep/isolines.h"

namespace sunbreak::drawing {
namespace {

constexpr int label_pixels = 11, most_levels = 9;
constexpr double shortest_labeled = 70, label_each = 700, line_opacity = 200 / 255.0;

using Line = std::vector<Point>;

double length(const Line& line) {
  double sum = 0;
  for (std::size_t i = 1; i < line.size(); ++i) sum += std::hypot(line[i].x - line[i - 1].x, line[i].y - line[i - 1].y);
  return sum;
}

/// How flat a line runs at one of its points: 1 along x, 0 along y.
double flatness(const Line& line, std::size_t i) {
  const Point run = line[std::min(i + 2, line.size() - 1)] - line[i < 2 ? 0 : i - 2];
  const double size = std::hypot(run.x, run.y);
  return size > 0 ? std::abs(run.x) / size : 0;
}

void place_labels(ContourLines& contour, const Line& line, const MapFit& fit, double label_width,
                  std::vector<Box>& taken) {
  const double whole = length(line);
  if (whole < shortest_labeled) return;
  for (int wanted = 1 + static_cast<int>(whole / label_each); wanted > 0; --wanted) {
    Box best;
    double flattest = -1;
    const std::size_t stride = std::max<std::size_t>(1, line.size() / 48);
    for (std::size_t i = 0; i < line.size(); i += stride) {
      const Box box = Box::about(line[i], label_width, line_height(label_pixels));
      if (!fit.frame.grown(-2).contains(box)) continue;
      if (std::any_of(taken.begin(), taken.end(), [&](const Box& t) { return t.grown(6).intersects(box); })) continue;
      if (const double flat = flatness(line, i); flat > flattest) flattest = flat, best = box;
    }
    if (flattest < 0) return;
    taken.push_back(best);
    contour.labels.push_back(best);
  }
}

}  // namespace

std::vector<ContourLines> contour_lines(const Canvas& canvas, const Field& field, const MapFit& fit,
                                        const ValueText& text) {
  std::vector<ContourLines> all;
  if (!field.exists()) return all;
  double lowest = INFINITY, highest = -INFINITY;
  const int columns = static_cast<int>(field.xs_m().size()), rows = static_cast<int>(field.ys_m().size());
  for (int row = 0; row < rows; ++row)
    for (int column = 0; column < columns; ++column)
      if (const double v = field.at_station(column, row); !std::isnan(v))
        lowest = std::min(lowest, v), highest = std::max(highest, v);
  if (!(highest > lowest)) return all;
  const double step = round_step(highest - lowest, most_levels);
  std::vector<Box> taken;
  const double cell = fit.floor.width / std::max(1, columns);
  const int pieces = std::clamp(static_cast<int>(cell / 8), 1, 8);
  for (double level = std::ceil(lowest / step) * step; level <= highest; level += step) {
    ContourLines contour;
    contour.level = std::abs(level) < step / 1e6 ? 0 : level;
    const double label_width = canvas.text_width(text.text(contour.level), label_pixels, true) + 8;
    for (const Isoline& isoline : isolines(field, contour.level, pieces)) {
      Line line;
      for (const Place& p : isoline.places) line.push_back(fit.pixel(p.x_m, p.y_m));
      place_labels(contour, line, fit, label_width, taken);
      contour.lines.push_back(std::move(line));
    }
    all.push_back(std::move(contour));
  }
  return all;
}

void draw_contours(Canvas& canvas, const std::vector<ContourLines>& lines, const ValueScale& scale,
                   const ValueText& text) {
  for (const ContourLines& contour : lines) {
    const Ink ink(ink_on(scale.color(contour.level, canvas.colors())), line_opacity);
    for (const Line& line : contour.lines) canvas.lines(line, {ink, contour.level == 0 && text.with_sign ? 2.0 : 1.0});
  }
  for (const ContourLines& contour : lines) {
    const Rgb ground = scale.color(contour.level, canvas.colors());
    for (const Box& label : contour.labels) {
      canvas.fill(label, ground);
      canvas.text(label, Align::Center, text.text(contour.level), {label_pixels, true, ink_on(ground)});
    }
  }
}

}  // namespace sunbreak::drawing
