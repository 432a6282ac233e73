#include "desktop/paint/painter_canvas.h"

#include <QGlyphRun>
#include <QImage>
#include <QPainterPath>
#include <QTextLayout>
#include <map>
#include <unordered_map>

#include "desktop/paint/map_fit.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"
#include "drawing/hatching.h"

namespace sunbreak::desktop {

using drawing::Align;
using drawing::Box;
using drawing::Dash;
using drawing::Hatch;
using drawing::Ink;
using drawing::Point;
using drawing::Stroke;

namespace {

constexpr std::size_t most_shaped = 4096;

drawing::Rgb rgb(const QColor& c) {
  return {static_cast<std::uint8_t>(c.red()), static_cast<std::uint8_t>(c.green()),
          static_cast<std::uint8_t>(c.blue())};
}

QColor color_of(const Ink& ink) {
  QColor color(ink.color.red, ink.color.green, ink.color.blue);
  if (ink.opacity < 1) color.setAlphaF(static_cast<float>(ink.opacity));
  return color;
}

QPointF point(const Point& p) { return {p.x, p.y}; }

/// A text in a font, ready to be painted.
struct Shaped {
  double width = 0, ascent = 0;  ///< px; the ascent is that of its own line
  QList<QGlyphRun> runs;
};

Shaped shape(const QString& words, const QFont& font) {
  QTextLayout layout(words, font);
  layout.beginLayout();
  const QTextLine line = layout.createLine();
  layout.endLayout();
  return {QFontMetricsF(font).horizontalAdvance(words), line.isValid() ? line.ascent() : 0, layout.glyphRuns()};
}

/// The same few hundred texts are painted again and again; to shape one takes longer than to paint it.
const Shaped& shaped(const std::string& words, int pixels, bool bold) {
  static std::map<std::pair<int, bool>, std::unordered_map<std::string, Shaped>> known;
  auto& texts = known[{pixels, bold}];
  if (const auto found = texts.find(words); found != texts.end()) return found->second;
  if (texts.size() >= most_shaped) texts.clear();
  return texts[words] = shape(text_of(words), text_font(pixels, bold));
}

/// A tile that repeats without seams.
QBrush tile(Hatch kind) {
  const bool dim = kind == Hatch::TooDim;
  const int side = dim ? drawing::hatch_pitch : drawing::dot_pitch;
  QImage image(side * 2, side * 2, QImage::Format_ARGB32_Premultiplied);
  image.fill(Qt::transparent);
  image.setDevicePixelRatio(2);
  QPainter p(&image);
  p.setRenderHint(QPainter::Antialiasing);
  if (dim) {
    p.setPen(QPen(color_of(drawing::hatch_ink(kind)), drawing::hatch_width));
    for (const int shift : {-side, 0, side}) p.drawLine(QPointF(shift, side), QPointF(side + shift, 0));
  } else {
    p.setPen(Qt::NoPen);
    p.setBrush(color_of(drawing::hatch_ink(kind)));
    p.drawEllipse(QPointF(side / 2.0, side / 2.0), drawing::dot_radius, drawing::dot_radius);
  }
  p.end();
  return QBrush(image);
}

}  // namespace

QColor qcolor(const drawing::Rgb& c) { return {c.red, c.green, c.blue}; }

drawing::Palette palette_of_look() {
  const Theme& t = theme();
  return {rgb(t.ground), rgb(t.panel), rgb(t.ink),  rgb(t.quiet),
          rgb(t.rule),   rgb(t.ember), rgb(t.lake), t.look == Look::Loft};
}

PainterCanvas::PainterCanvas(QPainter& p, bool in_vectors) : p_(p), in_vectors_(in_vectors) {
  palette_ = palette_of_look();
  p_.save();
  p_.setRenderHint(QPainter::Antialiasing);
  p_.setBrush(Qt::NoBrush);
}

PainterCanvas::~PainterCanvas() { p_.restore(); }

double PainterCanvas::pixels_a_point() const { return in_vectors_ ? 2 : p_.device()->devicePixelRatioF(); }

void PainterCanvas::set_font(int pixels, bool bold) const {
  if (pixels == font_pixels_ && bold == font_bold_) return;
  p_.setFont(text_font(font_pixels_ = pixels, font_bold_ = bold));
}

double PainterCanvas::text_width(const std::string& words, int pixels, bool bold) const {
  return shaped(words, pixels, bold).width;
}

void PainterCanvas::set_pen(const Stroke& stroke) {
  constexpr Qt::PenStyle styles[] = {Qt::SolidLine, Qt::DashLine, Qt::DotLine, Qt::DashDotLine};
  p_.setPen(QPen(color_of(stroke.ink), stroke.width, styles[static_cast<int>(stroke.dash)]));
}

void PainterCanvas::fill(const Box& box, const Ink& ink) {
  p_.setRenderHint(QPainter::Antialiasing, false);
  p_.fillRect(rect_of(box), color_of(ink));
  p_.setRenderHint(QPainter::Antialiasing);
}

void PainterCanvas::outline(const Box& box, const Stroke& stroke) {
  set_pen(stroke);
  p_.drawRect(rect_of(box));
}

void PainterCanvas::line(const Point& from, const Point& to, const Stroke& stroke) {
  set_pen(stroke);
  p_.drawLine(point(from), point(to));
}

void PainterCanvas::lines(const std::vector<Point>& points, const Stroke& stroke) {
  QPolygonF polygon;
  polygon.reserve(static_cast<qsizetype>(points.size()));
  for (const Point& p : points) polygon << point(p);
  set_pen(stroke);
  p_.drawPolyline(polygon);
}

void PainterCanvas::ellipse(const Box& box, const Stroke& stroke) {
  set_pen(stroke);
  p_.drawEllipse(rect_of(box));
}

void PainterCanvas::hatch(const Box& box, Hatch kind) {
  if (!in_vectors_) {
    QBrush& brush = tiles_[kind == Hatch::TooDim ? 0 : 1];
    if (brush.style() == Qt::NoBrush) brush = tile(kind);
    return p_.fillRect(rect_of(box), brush);
  }
  if (kind == Hatch::TooDim) {
    set_pen({drawing::hatch_ink(kind), drawing::hatch_width});
    return drawing::for_diagonals(box, [&](const Point& a, const Point& b) { p_.drawLine(point(a), point(b)); });
  }
  p_.setPen(Qt::NoPen);
  p_.setBrush(color_of(drawing::hatch_ink(kind)));
  drawing::for_dots(box, [&](const Point& at) { p_.drawEllipse(point(at), drawing::dot_radius, drawing::dot_radius); });
  p_.setBrush(Qt::NoBrush);
}

void PainterCanvas::text(const Box& room, Align align, const std::string& words, const drawing::Lettering& lettering) {
  set_font(lettering.pixels, lettering.bold);
  p_.setPen(color_of(lettering.ink));
  const Shaped& text = shaped(words, lettering.pixels, lettering.bold);
  const double spare = room.width - text.width;
  const double left = room.left + (align == Align::Left ? 0 : align == Align::Right ? spare : spare / 2);
  const QFontMetricsF metrics = p_.fontMetrics();
  const double top = room.top + (room.height - metrics.height()) / 2;
  const double baseline = top + metrics.ascent();
  if (in_vectors_) return p_.drawText(QPointF(left, baseline), text_of(words));  // that it stays text
  for (const QGlyphRun& run : text.runs) p_.drawGlyphRun(QPointF(left, baseline - text.ascent), run);
}

void PainterCanvas::pixels(const Box& box, const drawing::Pixels& pixels) {
  const QImage image(reinterpret_cast<const uchar*>(pixels.argb.data()), pixels.columns, pixels.rows,
                     QImage::Format_ARGB32_Premultiplied);
  p_.drawImage(rect_of(box), in_vectors_ ? image.copy() : image);  // a picture in vectors keeps it for later
}

void PainterCanvas::clip(const Box& box) {
  p_.save();
  p_.setClipRect(rect_of(box), Qt::IntersectClip);
}

void PainterCanvas::unclip() {
  p_.restore();
  font_pixels_ = 0;
}

}  // namespace sunbreak::desktop
