#include "desktop/settle/field_chart.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "desktop/paint/painter_canvas.h"
#include "desktop/paint/round_steps.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/text.h"
#include "evaluation/settle_words.h"

namespace sunbreak::desktop {
namespace {

constexpr double axis_left_px = 46, axis_right_px = 50, axis_top_px = 24, axis_bottom_px = 38;
constexpr double lone_height_m = 0.03, lone_percent = 8;  ///< shown on either side of a single one
constexpr int faded_alpha = 150;

/// Between which two of rising values a place lies; clamped.
struct Bracketed {
  std::size_t low = 0, high = 0;
  float share = 0;
};
Bracketed bracketed(const std::vector<double>& values, double at) {
  if (values.size() < 2 || at <= values.front()) return {};
  if (at >= values.back()) return {values.size() - 1, values.size() - 1, 0};
  const auto high = static_cast<std::size_t>(std::upper_bound(values.begin(), values.end(), at) - values.begin());
  return {high - 1, high, static_cast<float>((at - values[high - 1]) / (values[high] - values[high - 1]))};
}

}  // namespace

FieldChart::FieldChart(Desk& desk, SettleWork& work, QWidget* parent) : QWidget(parent), desk_(desk), work_(work) {
  setObjectName("settleField");
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(320, 220);
  setToolTip(
      tr("Height across, dimmer up. Hatched: too little light for the rule; dotted: too much; clean: met. Squares are "
         "walked sweeps. Arrow keys move the point, with Shift five at a time; Y has the watts up."));
  connect(&work_, &SettleWork::field_changed, this, &FieldChart::renew);
  connect(&work_, &SettleWork::answered, this, &FieldChart::renew);
  connect(&work_, &SettleWork::moved, this, [this] {
    describe();
    update();
  });
}

void FieldChart::renew() {
  margins_.clear();
  if (work_.maps() && watts_up_ && !watts_known()) watts_up_ = false;
  if (const auto& maps = work_.maps())
    for (const auto& height : maps->heights)
      for (const SettleSetting& setting : maps->settings) {
        const AreaLight f = settle_figures(*height, setting, work_.request().band);
        ServingMargins m = margins(work_.request().rule, work_.request().band, f);
        // Where more is allowed by the rule than by the tester.
        if (const auto& most = work_.request().limits.max_ppfd; most && f.highest > *most)
          m.to_too_bright = std::min(m.to_too_bright, *most - f.highest);
        margins_.push_back(m);
      }
  field_ = {};
  describe();
  update();
}

void FieldChart::changeEvent(QEvent* event) {
  if (event->type() == QEvent::StyleChange || event->type() == QEvent::PaletteChange) field_ = {};
  QWidget::changeEvent(event);
}

void FieldChart::describe() {
  const auto& point = work_.point();
  setAccessibleName(point ? tr("Field of heights and settings, at %1: the rule holds with a chance of %2")
                                .arg(text_of(evaluation::settle_place_words(*point, desk_.units())))
                                .arg(text_of(chance_text(point->chance)))
                          : tr("Field of heights and settings, empty"));
}

QRectF FieldChart::plot() const {
  return QRectF(rect()).adjusted(axis_left_px, axis_top_px, -axis_right_px, -axis_bottom_px);
}

std::pair<double, double> FieldChart::heights_m() const {
  const auto& heights = work_.maps()->heights;
  const double low = heights.front()->height_m, high = heights.back()->height_m;
  return low < high ? std::pair(low, high) : std::pair(low - lone_height_m, high + lone_height_m);
}

bool FieldChart::watts_known() const {
  const auto& steps = work_.maps()->steps;
  return std::all_of(steps.begin(), steps.end(), [](const SettleSetting& s) { return s.power_w.has_value(); });
}

double FieldChart::up_of(const SettleSetting& setting) const {
  return watts_up_ ? setting.power_w.value_or(0) : setting.percent;
}

double FieldChart::up_at(double percent) const {
  if (!watts_up_) return percent;
  const auto& steps = work_.maps()->steps;
  return up_of(setting_at(*work_.maps(), std::clamp(percent, steps.front().percent, steps.back().percent))
                   .value_or(steps.back()));
}

std::pair<double, double> FieldChart::ups() const {
  const auto& settings = work_.maps()->settings;
  const double low = up_of(settings.front()), high = up_of(settings.back());
  return low < high ? std::pair(low, high) : std::pair(low - lone_percent, high + lone_percent);
}

QPointF FieldChart::place(double height_m, double percent) const {
  const QRectF r = plot();
  const auto [near_m, far_m] = heights_m();
  const auto [lowest, highest] = ups();
  return {r.left() + (height_m - near_m) / (far_m - near_m) * r.width(),
          r.bottom() - (up_at(percent) - lowest) / (highest - lowest) * r.height()};
}

/// Hatch, clean paper, dots, and what is faded, at the resolution of the screen.
QPixmap FieldChart::painted_field(qreal ratio) const {
  const Theme& t = theme();
  const SettleMaps& maps = *work_.maps();
  const int wide = std::max(1, static_cast<int>(plot().width() * ratio)),
            high = std::max(1, static_cast<int>(plot().height() * ratio));
  std::vector<double> heights, ups;
  for (const auto& h : maps.heights) heights.push_back(h->height_m);
  for (const SettleSetting& s : maps.settings) ups.push_back(up_of(s));
  const std::size_t rows = ups.size();
  const auto [near_m, far_m] = heights_m();
  const auto [lowest_up, highest_up] = this->ups();
  const auto& answers = work_.answers();
  const bool with_chances = answers && answers->maps == work_.maps() && answers->request == work_.request() &&
                            answers->chances.size() == margins_.size() && work_.request().sure > 0.5;
  QImage dim(wide, high, QImage::Format_Alpha8), bright = dim, faded = dim, sure = dim;
  for (QImage* mask : {&dim, &bright, &faded, &sure}) mask->fill(0);
  std::vector<float> dim_line(rows), bright_line(rows), chance_line(rows);
  std::vector<Bracketed> of_y;
  for (int y = 0; y < high; ++y)
    of_y.push_back(bracketed(ups, highest_up - (y + 0.5) / high * (highest_up - lowest_up)));
  struct Lines {
    uchar *dim, *bright, *faded, *sure;
  };
  std::vector<Lines> lines;
  for (int y = 0; y < high; ++y)
    lines.push_back({dim.scanLine(y), bright.scanLine(y), faded.scanLine(y), sure.scanLine(y)});
  for (int x = 0; x < wide; ++x) {
    const double height_m = near_m + (x + 0.5) / wide * (far_m - near_m);
    const Bracketed h = bracketed(heights, height_m);
    const bool beyond = maps.heights[h.share < 0.5f ? h.low : h.high]->beyond;
    for (std::size_t s = 0; s < rows; ++s) {
      const ServingMargins &a = margins_[h.low * rows + s], &b = margins_[h.high * rows + s];
      dim_line[s] = static_cast<float>(std::lerp(a.to_too_dim, b.to_too_dim, h.share));
      bright_line[s] = static_cast<float>(std::lerp(a.to_too_bright, b.to_too_bright, h.share));
      if (with_chances)
        chance_line[s] = std::lerp(answers->chances[h.low * rows + s], answers->chances[h.high * rows + s], h.share);
    }
    for (int y = 0; y < high; ++y) {
      const Bracketed& s = of_y[y];
      const Lines& line_at = lines[y];
      const auto at = [&](const std::vector<float>& line) { return std::lerp(line[s.low], line[s.high], s.share); };
      if (at(dim_line) < 0) line_at.dim[x] = 255;
      if (at(bright_line) < 0) line_at.bright[x] = 255;
      if (beyond) line_at.faded[x] = faded_alpha;
      if (with_chances && at(chance_line) >= work_.request().sure) line_at.sure[x] = 255;
    }
  }
  QPixmap picture(wide, high);
  picture.fill(t.panel);
  QPainter p(&picture);
  const auto masked = [&](const QImage& mask, const std::function<void(QPainter&)>& fill) {
    QImage layer(wide, high, QImage::Format_ARGB32_Premultiplied);
    layer.fill(Qt::transparent);
    QPainter on(&layer);
    on.scale(ratio, ratio);
    fill(on);
    on.resetTransform();
    on.setCompositionMode(QPainter::CompositionMode_DestinationIn);
    on.drawImage(0, 0, mask);
    on.end();
    p.drawImage(0, 0, layer);
  };
  const drawing::Box all{0, 0, wide / ratio, high / ratio};
  // The map's diagonals, in an ink that shows on paper.
  masked(dim, [&](QPainter& on) {
    constexpr double apart_px = 7;
    QColor ink = t.quiet;
    ink.setAlpha(150);
    on.setRenderHint(QPainter::Antialiasing);
    on.setPen(QPen(ink, 1));
    for (double x = -all.height; x < all.width; x += apart_px)
      on.drawLine(QPointF(x, all.height), QPointF(x + all.height, 0));
  });
  masked(bright, [&](QPainter& on) { PainterCanvas(on).hatch(all, drawing::Hatch::TooBright); });
  masked(faded, [&](QPainter& on) { on.fillRect(QRectF(0, 0, all.width, all.height), t.ground); });
  // Edges of what is met, and of where it is as sure as asked.
  const auto outline = [&](const auto& inside, const QColor& color, bool dashed) {
    p.setPen(Qt::NoPen);
    std::vector<QRectF> edge;
    for (int y = 1; y < high; ++y)
      for (int x = 1; x < wide; ++x)
        if ((inside(x, y) != inside(x - 1, y) || inside(x, y) != inside(x, y - 1)) && (!dashed || (x + y) / 5 % 2 == 0))
          edge.emplace_back(x - ratio / 2, y - ratio / 2, ratio, ratio);
    p.setBrush(color);
    p.drawRects(edge.data(), static_cast<int>(edge.size()));
  };
  outline([&](int x, int y) { return lines[y].dim[x] == 0 && lines[y].bright[x] == 0; }, t.ink, false);
  if (with_chances) outline([&](int x, int y) { return lines[y].sure[x] != 0; }, t.good, true);
  p.end();
  picture.setDevicePixelRatio(ratio);
  return picture;
}

void FieldChart::paint_axes(QPainter& p) const {
  const Theme& t = theme();
  const QRectF r = plot();
  const auto [near_m, far_m] = heights_m();
  const auto [lowest, highest] = ups();
  const auto& steps = work_.maps()->steps;
  const double any_percent = steps.front().percent;
  p.setFont(text_font(11));
  p.setPen(t.quiet);
  const LengthUnit unit = surface_unit(desk_.units());
  for (const double at : round_steps(from_m(near_m, unit), from_m(far_m, unit), 9)) {
    const double x = place(to_m(at, unit), any_percent).x();
    p.drawLine(QPointF(x, r.bottom()), QPointF(x, r.bottom() + 4));
    p.drawText(QRectF(x - 24, r.bottom() + 5, 48, 14), Qt::AlignCenter, text_of(short_number(at, 1)));
  }
  p.drawText(QRectF(r.left(), r.bottom() + 20, r.width(), 16), Qt::AlignCenter,
             tr("hanging height, %1").arg(text_of(symbol(unit))));
  for (const double at : round_steps(lowest, highest, 8)) {
    const double y = r.bottom() - (at - lowest) / (highest - lowest) * r.height();
    p.drawLine(QPointF(r.left() - 4, y), QPointF(r.left(), y));
    p.drawText(QRectF(0, y - 8, r.left() - 7, 16), Qt::AlignRight | Qt::AlignVCenter, show_number(at, 1));
  }
  p.drawText(QRectF(2, 2, 120, 18), Qt::AlignLeft | Qt::AlignVCenter, watts_up_ ? tr("watts") : tr("dimmer, %"));
  if (!watts_known()) return;
  // Lines of equal watts, or, where watts are up, of equal settings, at round ones.
  p.drawText(QRectF(r.right() - 60, 2, 60 + axis_right_px - 4, 18), Qt::AlignRight | Qt::AlignVCenter,
             watts_up_ ? tr("dimmer") : tr("watts"));
  const auto name = [&](double y, const QString& words) {
    p.setPen(QPen(t.rule, 1));
    p.drawLine(QPointF(r.left(), y), QPointF(r.right() + 4, y));
    p.setPen(t.quiet);
    p.drawText(QRectF(r.right() + 6, y - 8, axis_right_px - 6, 16), Qt::AlignLeft | Qt::AlignVCenter, words);
  };
  if (watts_up_) {
    for (const double percent : round_steps(steps.front().percent, steps.back().percent, 7))
      name(place(near_m, percent).y(), tr("%1 %").arg(show_number(percent, 0)));
  } else if (*steps.back().power_w - *steps.front().power_w < 1) {
    name(r.center().y(), tr("%1 W").arg(*steps.back().power_w, 0, 'f', 0));
  } else {
    for (const double watts : round_steps(*steps.front().power_w, *steps.back().power_w, 7))
      if (const auto setting = setting_of_power(*work_.maps(), watts))
        name(place(near_m, setting->percent).y(), tr("%1 W").arg(watts, 0, 'f', 0));
  }
}

/// What the tester's limits leave out.
void FieldChart::paint_limits(QPainter& p) const {
  const QRectF r = plot();
  const SettleLimits& limits = work_.request().limits;
  QColor veil = theme().ground;
  veil.setAlpha(190);
  const auto [near_m, far_m] = heights_m();
  const double dim = work_.maps()->steps.front().percent;
  p.setPen(QPen(theme().quiet, 1, Qt::DashLine));
  const auto leave_out = [&](const QRectF& part, const QPointF& from, const QPointF& to) {
    p.fillRect(part & r, veil);
    p.drawLine(from, to);
  };
  if (limits.min_height_m && *limits.min_height_m > near_m) {
    const double x = std::min(place(*limits.min_height_m, dim).x(), r.right());
    leave_out({r.left(), r.top(), x - r.left(), r.height()}, {x, r.top()}, {x, r.bottom()});
  }
  if (limits.max_height_m && *limits.max_height_m < far_m) {
    const double x = std::max(place(*limits.max_height_m, dim).x(), r.left());
    leave_out({x, r.top(), r.right() - x, r.height()}, {x, r.top()}, {x, r.bottom()});
  }
  if (limits.max_power_w)
    if (const auto setting = setting_of_power(*work_.maps(), *limits.max_power_w)) {
      const double y = place(near_m, setting->percent).y();
      leave_out({r.left(), r.top(), r.width(), y - r.top()}, {r.left(), y}, {r.right(), y});
    }
}

/// The walked sweeps as the mast's squares.
void FieldChart::paint_marks(QPainter& p) const {
  const Theme& t = theme();
  constexpr double half_px = 3.5;
  for (const record::Sweep& sweep : desk_.test()->sweeps) {
    const record::Rung* rung = desk_.test()->rung(sweep.rung_id);
    const record::Stop* stop = desk_.test()->stop(sweep.stop_id);
    const evaluation::SweepDigest* digest = desk_.digest_of(sweep.id);
    if (!rung || !stop || !digest || digest->read == 0) continue;
    const QPointF at = place(rung->height_m, stop->percent);
    const QRectF square(at - QPointF(half_px, half_px), at + QPointF(half_px, half_px));
    if (!plot().adjusted(-1, -1, 1, 1).contains(at)) continue;
    p.setPen(QPen(t.ink, 1.5));
    p.setBrush(sweep.confirms ? QBrush(t.panel) : QBrush(t.ink));
    p.drawRect(square);
  }
  p.setBrush(Qt::NoBrush);
}

void FieldChart::paint_answers(QPainter& p) const {
  const auto& answers = work_.answers();
  if (!answers || answers->maps != work_.maps() || !(answers->request == work_.request())) return;
  const Theme& t = theme();
  // Those that lie at one place share a name.
  std::vector<std::pair<QPointF, QString>> named;
  constexpr double together_px = 16;
  for (const auto& [best, name] :
       {std::pair{&answers->best.fewest_watts, tr("fewest watts")}, std::pair{&answers->best.widest, tr("widest")},
        std::pair{&answers->best.most_even, tr("most even")}}) {
    if (!*best) continue;
    const QPointF at = place(best->value().height->height_m, best->value().setting.percent);
    const auto same = std::find_if(named.begin(), named.end(),
                                   [&](const auto& other) { return QLineF(other.first, at).length() < together_px; });
    if (same == named.end())
      named.emplace_back(at, name);
    else
      same->second += " · " + name;
  }
  const QRectF r = plot();
  p.setFont(text_font(12, true));
  const QFontMetricsF metrics(p.font());
  std::vector<QRectF> taken;
  for (const auto& [at, name] : named) {
    const double wide = metrics.horizontalAdvance(name) + 8, high = metrics.height();
    // Beside the point, up or down from it, where it does not cover another.
    QRectF room;
    bool free = false;
    for (const double dy : {12.0, -26.0, 34.0, -48.0, 56.0, 78.0})
      for (const double dx : {14.0, -wide - 14, 60.0, -wide - 60}) {
        if (free) break;
        room = QRectF(at.x() + dx, at.y() + dy, wide, high);
        free = r.contains(room) && std::none_of(taken.begin(), taken.end(), [&](const QRectF& other) {
                 return other.adjusted(-4, -4, 4, 4).intersects(room);
               });
      }
    room.moveLeft(std::clamp(room.left(), r.left(), std::max(r.left(), r.right() - wide)));
    room.moveTop(std::clamp(room.top(), r.top(), r.bottom() - high));
    taken.push_back(room);
    p.setPen(QPen(t.lake, 1.2));
    p.drawLine(
        at, QPointF(std::clamp(at.x(), room.left(), room.right()), at.y() < room.top() ? room.top() : room.bottom()));
    p.setBrush(t.panel);
    p.drawEllipse(at, 5, 5);
    p.fillRect(room, t.panel);
    p.setBrush(Qt::NoBrush);
    p.setPen(t.lake);
    p.drawText(room, Qt::AlignCenter, name);
  }
}

void FieldChart::paintEvent(QPaintEvent*) {
  const Theme& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  if (!work_.maps() || work_.maps()->heights.empty() || !desk_.test() || margins_.empty()) {
    p.setPen(t.quiet);
    p.drawRect(plot());
    return;
  }
  const QRectF r = plot();
  if (field_.isNull() || field_.deviceIndependentSize().toSize() != QSizeF(r.size()).toSize())
    field_ = painted_field(devicePixelRatioF());
  p.drawPixmap(r.topLeft(), field_);
  paint_axes(p);
  p.setPen(QPen(t.ink, 1));
  p.drawRect(r);
  paint_limits(p);
  paint_marks(p);
  paint_answers(p);
  if (const auto& point = work_.point()) {
    const QPointF at = place(point->height->height_m, point->setting.percent);
    p.setPen(QPen(t.ember, 1, Qt::DashLine));
    p.drawLine(QPointF(at.x(), r.top()), QPointF(at.x(), r.bottom()));
    p.drawLine(QPointF(r.left(), at.y()), QPointF(r.right(), at.y()));
    p.setPen(QPen(t.ember, 2.5));
    p.drawEllipse(at, 8, 8);
  }
  if (work_.filling()) {
    p.setPen(t.quiet);
    p.setFont(text_font(11));
    p.drawText(QRectF(r.left(), 2, r.width(), 18), Qt::AlignCenter, tr("more heights are being worked out…"));
  }
}

void FieldChart::keyPressEvent(QKeyEvent* event) {
  const int by = event->modifiers() & Qt::ShiftModifier ? 5 : 1;
  switch (event->key()) {
    case Qt::Key_Left:
      return work_.step(-by, 0);
    case Qt::Key_Right:
      return work_.step(by, 0);
    case Qt::Key_Up:
      return work_.step(0, by);
    case Qt::Key_Down:
      return work_.step(0, -by);
    case Qt::Key_Y:
      if (!work_.maps() || !watts_known()) return;
      watts_up_ = !watts_up_;
      return renew();
    default:
      QWidget::keyPressEvent(event);
  }
}

void FieldChart::put_at(const QPointF& at) {
  if (!work_.maps() || work_.maps()->heights.empty()) return;
  const QRectF r = plot();
  const auto [near_m, far_m] = heights_m();
  const auto [lowest, highest] = ups();
  const double x = std::clamp((at.x() - r.left()) / r.width(), 0.0, 1.0),
               y = std::clamp((r.bottom() - at.y()) / r.height(), 0.0, 1.0);
  const double up = lowest + y * (highest - lowest);
  const auto setting = watts_up_ ? setting_of_power(*work_.maps(), up) : std::nullopt;
  work_.stand_at(near_m + x * (far_m - near_m), watts_up_ ? (setting ? setting->percent : 100) : up);
}

void FieldChart::mousePressEvent(QMouseEvent* event) {
  setFocus(Qt::MouseFocusReason);
  if (event->button() == Qt::LeftButton) put_at(event->position());
}

void FieldChart::mouseMoveEvent(QMouseEvent* event) {
  if (event->buttons() & Qt::LeftButton) put_at(event->position());
}

}  // namespace sunbreak::desktop
