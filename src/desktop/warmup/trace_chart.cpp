#include "desktop/warmup/trace_chart.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

#include "core/power/thinned.h"
#include "core/quantity/display.h"
#include "desktop/desk/desk.h"
#include "desktop/theme/theme.h"
#include "drawing/light_scale.h"

namespace sunbreak::desktop {
namespace {

constexpr double left_room = 64, right_room = 72, axis_room = 20, gap = 6, top_room = 16;
constexpr double shortest_view_s = 20, least_span_share = 0.004, column_px = 1.5;
/// Values further apart than this are not joined by a line: nothing was logged between them.
constexpr double least_gap_s = 90;
constexpr std::size_t few_columns = 400;

QString clock_text(double seconds) {
  const qint64 s = std::llround(std::abs(seconds));
  const QString text =
      s >= 3600 ? QString("%1:%2:%3").arg(s / 3600).arg(s / 60 % 60, 2, 10, QChar('0')).arg(s % 60, 2, 10, QChar('0'))
                : QString("%1:%2").arg(s / 60).arg(s % 60, 2, 10, QChar('0'));
  return seconds < -0.5 ? "−" + text : text;
}

/// A step for a time axis that people count in.
double time_step_s(double span_s, int most) {
  for (const double step : {5, 10, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200, 10800, 21600, 43200, 86400})
    if (span_s / step <= most) return step;
  return 86400 * std::ceil(span_s / 86400 / most);
}

}  // namespace

TraceChart::TraceChart(QWidget* parent) : QWidget(parent) {
  setObjectName("traceChart");
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setMinimumHeight(180);
  setAccessibleName(tr("Light and watts against time"));
}

std::pair<double, double> TraceChart::extent() const {
  double first = INFINITY, last = -INFINITY;
  for (const auto& log : {light_, watts_})
    if (!log.empty()) first = std::min(first, log.front().time_s), last = std::max(last, log.back().time_s);
  for (const TraceBand& b : bands_) first = std::min(first, b.from_s), last = std::max(last, b.to_s);
  return first < last ? std::pair(first, last) : std::pair(zero_s_, zero_s_ + 60);
}

void TraceChart::show_log(std::span<const TimedValue> light, std::span<const TimedValue> watts, double zero_s) {
  light_ = light, watts_ = watts, zero_s_ = zero_s;
  if (all_) view_all();
  describe();
  update();
}

void TraceChart::show_marks(std::vector<TraceBand> bands, std::vector<TraceMark> marks) {
  bands_ = std::move(bands), marks_ = std::move(marks);
  if (all_) view_all();
  update();
}

void TraceChart::view(double from_s, double to_s) {
  const auto [first, last] = extent();
  const double span = std::clamp(to_s - from_s, shortest_view_s, std::max(last - first, shortest_view_s));
  const double from = std::clamp(from_s, first, std::max(first, last - span));
  from_s_ = from, to_s_ = from + span;
  all_ = span >= last - first;
  update();
}

void TraceChart::view_all() {
  std::tie(from_s_, to_s_) = extent();
  all_ = true;
  update();
}

QRectF TraceChart::plot(int index) const {
  const double tall = (height() - axis_room - top_room - gap) / 2;
  return {left_room, top_room + index * (tall + gap), width() - left_room - right_room, tall};
}

double TraceChart::x_of(double time_s) const {
  const QRectF box = plot(0);
  return box.left() + box.width() * (time_s - from_s_) / (to_s_ - from_s_);
}

double TraceChart::time_at(double x) const {
  const QRectF box = plot(0);
  return from_s_ + (to_s_ - from_s_) * (x - box.left()) / box.width();
}

void TraceChart::paintEvent(QPaintEvent*) {
  QPainter p(this);
  const Theme& t = theme();
  for (int i = 0; i < 2; ++i) p.fillRect(plot(i), t.ground);
  draw_marks(p);
  if (!light_.empty() || !watts_.empty() || !bands_.empty()) draw_time_axis(p);
  draw_trace(p, {light_, tr("Light, reference"), tr("µmol/m²/s"), t.ember, 1}, plot(0));
  draw_trace(p, {watts_, tr("At the wall"), tr("W"), t.lake, 1}, plot(1));
  if (hasFocus()) {
    p.setPen(QPen(t.ember, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(QRectF(0.5, 0.5, width() - 1, height() - 1));
  }
}

void TraceChart::draw_marks(QPainter& p) const {
  const Theme& t = theme();
  const QRectF whole = plot(0).united(plot(1));
  p.save();
  p.setClipRect(whole.adjusted(0, -top_room, right_room, 0));
  p.setFont(text_font(11));
  double taken_until = whole.left();
  const auto label = [&](double x, const QString& words, const QColor& color) {
    const double wide = QFontMetricsF(p.font()).horizontalAdvance(words);
    if (x + 3 < taken_until) return;
    p.setPen(color);
    p.drawText(QRectF(x + 3, 0, wide + 4, top_room), Qt::AlignLeft | Qt::AlignVCenter, words);
    taken_until = x + 3 + wide + 6;
  };
  for (const TraceBand& band : bands_) {
    const double from = x_of(band.from_s), to = std::max(x_of(band.to_s), from + 2);
    if (to < whole.left() || from > whole.right()) continue;
    QColor shade = band.stabilized ? t.good : t.attention;
    shade.setAlpha(46);
    const QRectF bar(from, whole.top(), to - from, whole.height());
    p.fillRect(bar.intersected(whole), shade);
    if (!band.stabilized) p.fillRect(bar.intersected(whole), QBrush(shade, Qt::BDiagPattern));
    label(std::max(from, whole.left()), (band.stabilized ? QString() : QStringLiteral("◣ ")) + band.name,
          band.stabilized ? t.good : t.attention);
  }
  for (const TraceMark& mark : marks_) {
    const double x = x_of(mark.at_s);
    if (x < whole.left() - 1 || x > whole.right() + 1) continue;
    p.setPen(QPen(mark.good ? t.good : t.quiet, 1, Qt::DashLine));
    p.drawLine(QPointF(x, whole.top()), QPointF(x, whole.bottom()));
    label(x, mark.name, mark.good ? t.good : t.quiet);
  }
  p.restore();
}

void TraceChart::draw_time_axis(QPainter& p) const {
  const Theme& t = theme();
  const QRectF low = plot(1);
  p.setFont(text_font(11));
  const double step = time_step_s(to_s_ - from_s_, static_cast<int>(low.width() / 80));
  for (double at = std::ceil((from_s_ - zero_s_) / step) * step; at + zero_s_ <= to_s_; at += step) {
    const double x = x_of(at + zero_s_);
    p.setPen(QPen(t.rule, 1));
    for (int i = 0; i < 2; ++i) p.drawLine(QPointF(x, plot(i).top()), QPointF(x, plot(i).bottom()));
    p.setPen(t.quiet);
    p.drawText(QRectF(x - 40, low.bottom() + 3, 80, 14), Qt::AlignCenter, clock_text(at));
  }
  p.drawText(QRectF(low.right() + 28, low.bottom() + 3, right_room - 28, 14), Qt::AlignLeft | Qt::AlignVCenter,
             to_s_ - from_s_ >= 3600 ? tr("h:min:s") : tr("min:s"));
}

void TraceChart::draw_trace(QPainter& p, const Trace& trace, const QRectF& box) const {
  const Theme& t = theme();
  p.setFont(text_font(11));
  p.setPen(t.quiet);
  const auto columns = thinned(trace.log, from_s_, to_s_, std::max(1, static_cast<int>(box.width() / column_px)));
  if (columns.empty()) {
    p.drawText(box, Qt::AlignCenter,
               trace.log.empty() ? tr("%1: nothing logged yet").arg(trace.name) : tr("nothing in this stretch"));
    return;
  }
  double low = INFINITY, high = -INFINITY;
  for (const ThinColumn& c : columns) low = std::min(low, c.low), high = std::max(high, c.high);
  const double least = std::max(std::abs(high) * least_span_share, 1e-6), middle = (low + high) / 2;
  low = std::min(low, middle - least / 2), high = std::max(high, middle + least / 2);
  const double margin = (high - low) * 0.08;
  low -= margin, high += margin;
  const auto y_of = [&](double v) { return box.bottom() - box.height() * (v - low) / (high - low); };
  const double step = drawing::round_step(high - low, std::max(2, static_cast<int>(box.height() / 16)));
  const int decimals = std::max(0, static_cast<int>(std::ceil(-std::log10(step) - 1e-9)));
  for (double at = std::ceil(low / step) * step; at <= high; at += step) {
    p.setPen(QPen(t.rule, 1));
    p.drawLine(QPointF(box.left(), y_of(at)), QPointF(box.right(), y_of(at)));
    p.setPen(t.quiet);
    p.drawText(QRectF(0, y_of(at) - 7, left_room - 6, 14), Qt::AlignRight | Qt::AlignVCenter,
               QString::number(at, 'f', decimals));
  }
  p.save();
  p.setClipRect(box);
  draw_line(p, columns, trace.color, y_of);
  p.restore();
  p.setPen(t.quiet);
  p.drawText(QRectF(box.right() - 326, box.top() + 2, 320, 14), Qt::AlignRight | Qt::AlignVCenter,
             tr("%1 [%2]").arg(trace.name, trace.unit));
  const auto shown =
      pointed_s_ ? std::min_element(columns.begin(), columns.end(),
                                    [&](auto& a, auto& b) {
                                      return std::abs(a.first_s - *pointed_s_) < std::abs(b.first_s - *pointed_s_);
                                    })
                 : columns.end() - 1;
  p.setPen(trace.color);
  p.setFont(text_font(13, true));
  p.drawText(
      QRectF(box.right() + 6, std::clamp(y_of(shown->last) - 9, box.top(), box.bottom() - 18), right_room - 6, 18),
      Qt::AlignLeft | Qt::AlignVCenter, QString::number(shown->last, 'f', trace.decimals));
  if (pointed_s_) {
    p.setPen(QPen(t.quiet, 1));
    p.drawLine(QPointF(x_of(shown->first_s), box.top()), QPointF(x_of(shown->first_s), box.bottom()));
  }
}

/// Where a pixel column holds many values it is one upright stroke from its lowest to its highest, joined to the next;
/// a hairline, since wider ones take the painter ten times as long.
void TraceChart::draw_line(QPainter& p, const std::vector<ThinColumn>& columns, const QColor& color,
                           const std::function<double(double)>& y_of) const {
  const bool sparse = columns.size() < few_columns;
  p.setRenderHint(QPainter::Antialiasing, sparse);
  p.setPen(QPen(color, sparse ? 1.5 : 1));
  const double joined_s = std::max(least_gap_s, 6 * (to_s_ - from_s_) / static_cast<double>(columns.size()));
  QVector<QLineF> strokes;
  const ThinColumn* before = nullptr;
  for (const ThinColumn& c : columns) {
    const double x = x_of(c.first_s);
    const bool joined = before && c.first_s - before->last_s <= joined_s;
    if (joined) strokes << QLineF(x_of(before->last_s), y_of(before->last), x, y_of(c.first));
    if (c.low != c.high)
      strokes << QLineF(x, y_of(c.low), x, y_of(c.high));
    else if (!joined)
      p.drawEllipse(QPointF(x, y_of(c.first)), 1.5, 1.5);
    before = &c;
  }
  p.drawLines(strokes);
}

void TraceChart::zoom(double factor, double around_s) {
  view(around_s - (around_s - from_s_) * factor, around_s + (to_s_ - around_s) * factor);
}

void TraceChart::keyPressEvent(QKeyEvent* event) {
  const double span = to_s_ - from_s_, middle = (from_s_ + to_s_) / 2;
  switch (event->key()) {
    case Qt::Key_Left:
      return view(from_s_ - span / 4, to_s_ - span / 4);
    case Qt::Key_Right:
      return view(from_s_ + span / 4, to_s_ + span / 4);
    case Qt::Key_Plus:
    case Qt::Key_Equal:
      return zoom(0.5, middle);
    case Qt::Key_Minus:
      return zoom(2, middle);
    case Qt::Key_Home:
      return view_all();
    case Qt::Key_End: {
      const double last = extent().second;
      return view(last - span, last);
    }
    default:
      QWidget::keyPressEvent(event);
  }
}

void TraceChart::wheelEvent(QWheelEvent* event) {
  zoom(std::pow(0.999, event->angleDelta().y()), time_at(event->position().x()));
}

void TraceChart::mousePressEvent(QMouseEvent* event) {
  setFocus();
  dragged_x_ = event->position().x();
}

void TraceChart::mouseMoveEvent(QMouseEvent* event) {
  const double x = event->position().x();
  if (dragged_x_) {
    const double by = time_at(*dragged_x_) - time_at(x);
    view(from_s_ + by, to_s_ + by);
    dragged_x_ = x;
  }
  const bool inside = x >= plot(0).left() && x <= plot(0).right();
  pointed_s_ = inside ? std::optional(time_at(x)) : std::nullopt;
  update();
}

void TraceChart::mouseReleaseEvent(QMouseEvent*) { dragged_x_.reset(); }

void TraceChart::leaveEvent(QEvent*) {
  pointed_s_.reset();
  update();
}

void TraceChart::describe() {
  const auto last = [](std::span<const TimedValue> log) {
    return log.empty() ? QStringLiteral("–") : QString::number(log.back().value, 'f', 1);
  };
  setAccessibleDescription(tr("light %1 µmol/m²/s, %2 W").arg(last(light_), last(watts_)));
}

}  // namespace sunbreak::desktop
