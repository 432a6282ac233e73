#include "desktop/paint/contour_lines.h"

#include <QFontMetricsF>
#include <algorithm>
#include <cmath>

#include "core/sweep/isolines.h"
#include "desktop/theme/theme.h"

namespace sunbreak::desktop {
namespace {

constexpr int label_pixels = 11, most_levels = 9;
constexpr double shortest_labeled = 70, label_each = 700;

QPolygonF polygon_of(const Isoline& line, const MapFit& fit) {
  QPolygonF polygon;
  for (const Place& p : line.places) polygon << fit.pixel(p.x_m, p.y_m);
  return polygon;
}

double length(const QPolygonF& line) {
  double sum = 0;
  for (int i = 1; i < line.size(); ++i) sum += std::hypot(line[i].x() - line[i - 1].x(), line[i].y() - line[i - 1].y());
  return sum;
}

/// How flat a line runs at one of its points: 1 along x, 0 along y.
double flatness(const QPolygonF& line, qsizetype i) {
  const QPointF run = line[std::min<qsizetype>(i + 2, line.size() - 1)] - line[std::max<qsizetype>(0, i - 2)];
  const double size = std::hypot(run.x(), run.y());
  return size > 0 ? std::abs(run.x()) / size : 0;
}

void place_labels(ContourLines& contour, const QPolygonF& line, const MapFit& fit, const QSizeF& size,
                  std::vector<QRectF>& taken) {
  const double whole = length(line);
  if (whole < shortest_labeled) return;
  for (int wanted = 1 + static_cast<int>(whole / label_each); wanted > 0; --wanted) {
    QRectF best;
    double flattest = -1;
    const qsizetype stride = std::max<qsizetype>(1, line.size() / 48);
    for (qsizetype i = 0; i < line.size(); i += stride) {
      QRectF box(QPointF(), size);
      box.moveCenter(line[i]);
      if (!fit.frame.adjusted(2, 2, -2, -2).contains(box)) continue;
      if (std::any_of(taken.begin(), taken.end(),
                      [&](const QRectF& t) { return t.adjusted(-6, -6, 6, 6).intersects(box); }))
        continue;
      if (const double flat = flatness(line, i); flat > flattest) flattest = flat, best = box;
    }
    if (flattest < 0) return;
    taken.push_back(best);
    contour.labels.push_back(best);
  }
}

}  // namespace

std::vector<ContourLines> contour_lines(const Field& field, const MapFit& fit, const ValueText& text) {
  std::vector<ContourLines> all;
  if (!field.exists()) return all;
  double lowest = INFINITY, highest = -INFINITY;
  const int columns = static_cast<int>(field.xs_m().size()), rows = static_cast<int>(field.ys_m().size());
  for (int row = 0; row < rows; ++row)
    for (int column = 0; column < columns; ++column)
      if (const double v = field.at_station(column, row); !std::isnan(v))
        lowest = std::min(lowest, v), highest = std::max(highest, v);
  if (!(highest > lowest)) return all;
  const double step = report::round_step(highest - lowest, most_levels);
  const QFontMetricsF metrics(text_font(label_pixels, true));
  std::vector<QRectF> taken;
  const double cell = fit.floor.width() / std::max(1, columns);
  const int pieces = std::clamp(static_cast<int>(cell / 8), 1, 8);
  for (double level = std::ceil(lowest / step) * step; level <= highest; level += step) {
    ContourLines contour;
    contour.level = std::abs(level) < step / 1e6 ? 0 : level;
    const QSizeF size(metrics.horizontalAdvance(text.text(contour.level)) + 8, metrics.height());
    for (const Isoline& line : isolines(field, contour.level, pieces)) {
      const QPolygonF polygon = polygon_of(line, fit);
      contour.path.addPolygon(polygon);
      place_labels(contour, polygon, fit, size, taken);
    }
    all.push_back(std::move(contour));
  }
  return all;
}

void paint_contours(QPainter& p, const std::vector<ContourLines>& lines, const ValueScale& scale,
                    const ValueText& text) {
  p.save();
  p.setFont(text_font(label_pixels, true));
  p.setBrush(Qt::NoBrush);
  for (const ContourLines& contour : lines) {
    QColor ink = qcolor(report::ink_on(scale.color(contour.level)));
    ink.setAlpha(200);
    // One pixel wide is what screens draw fast.
    p.setPen(QPen(ink, contour.level == 0 && text.with_sign ? 2 : 1));
    p.drawPath(contour.path);
  }
  for (const ContourLines& contour : lines)
    for (const QRectF& label : contour.labels) {
      const report::Rgb ground = scale.color(contour.level);
      p.fillRect(label, qcolor(ground));
      p.setPen(qcolor(report::ink_on(ground)));
      p.drawText(label, Qt::AlignCenter, text.text(contour.level));
    }
  p.restore();
}

}  // namespace sunbreak::desktop
