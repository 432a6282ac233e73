#include "desktop/paint/map_painter.h"

#include <algorithm>
#include <cmath>

#include "core/bench/station_box.h"
#include "desktop/desk/desk.h"
#include "desktop/paint/contour_lines.h"
#include "desktop/paint/field_image.h"
#include "desktop/paint/map_frame.h"
#include "desktop/theme/theme.h"

namespace sunbreak::desktop {
namespace {

constexpr double loose_half_m = 0.06;
constexpr int least_pixels = 9, thinned_pixels = 11;

class MapPainter {
 public:
  MapPainter(QPainter& p, const MapFit& fit, const MapScene& scene)
      : p_(p),
        fit_(fit),
        s_(scene),
        layout_(scene.view->layout),
        values_(scene.values ? *scene.values : scene.view->ppfd),
        boxes_(station_boxes(layout_)) {
    for (std::size_t i = boxes_.size(); i < layout_.stations.size(); ++i)
      boxes_.push_back({layout_.stations[i].x_m - loose_half_m, layout_.stations[i].y_m - loose_half_m,
                        2 * loose_half_m, 2 * loose_half_m});
  }

  void paint() {
    p_.save();
    if (!s_.plain_paths) p_.setClipRect(fit_.frame);
    p_.fillRect(fit_.frame, theme().look == Look::Paper ? theme().panel : theme().ground);
    if (s_.contours)
      field();
    else
      stations();
    unread_stations();
    if (s_.contours) paint_contours(p_, contours_, s_.scale, s_.text);
    if (s_.numbers) numbers();
    current();
    p_.restore();
    if (!s_.rulers) return;
    paint_surroundings(p_, fit_, *s_.bench, s_.units);
    if (s_.key) paint_key(p_, fit_, s_.scale, s_.text, s_.band.has_value());
  }

 private:
  QRectF box(std::size_t i) const { return fit_.box(boxes_[i]); }
  bool known(std::size_t i) const { return !std::isnan(values_[i]); }
  bool shown(std::size_t i) const { return fit_.frame.intersects(box(i)); }

  void field() {
    const Field light(layout_, values_);
    const double pixels = s_.plain_paths ? 2 : p_.device()->devicePixelRatio();
    if (const FieldImage f = field_image(light, fit_, s_.scale, s_.band, pixels); !f.image.isNull())
      p_.drawImage(f.place, f.image);
    contours_ = contour_lines(light, fit_, s_.text);
  }

  void stations() {
    p_.setRenderHint(QPainter::Antialiasing, false);
    for (std::size_t i = 0; i < boxes_.size(); ++i)
      if (known(i) && shown(i)) p_.fillRect(box(i).adjusted(0, 0, 0.5, 0.5), qcolor(s_.scale.color(values_[i])));
    p_.setRenderHint(QPainter::Antialiasing, true);
    if (s_.band) out_of_band();
  }

  /// Below the band 1, above it 2, else 0.
  int side_of_band(std::size_t i) const {
    return !known(i) || s_.band->contains(values_[i]) ? 0 : values_[i] < s_.band->low ? 1 : 2;
  }

  /// Hatch and dots, one rectangle for each run of stations that want the same.
  void out_of_band() {
    const QBrush dim = hatch(true), bright = hatch(false);
    for (std::size_t i = 0; i < boxes_.size();) {
      const int side = side_of_band(i);
      QRectF run = box(i);
      const int row = layout_.stations[i].row;
      for (++i; i < boxes_.size() && layout_.is_lattice() && layout_.stations[i].row == row && side_of_band(i) == side;
           ++i)
        run |= box(i);
      if (side == 0 || !fit_.frame.intersects(run)) continue;
      if (s_.plain_paths)
        hatch_box(p_, run, side == 1);
      else
        p_.fillRect(run, side == 1 ? dim : bright);
    }
  }

  void unread_stations() {
    p_.setBrush(Qt::NoBrush);
    p_.setPen(QPen(theme().quiet, 1.2));
    for (std::size_t i = 0; i < boxes_.size(); ++i) {
      if (s_.view->states[i].kind == evaluation::StationState::Read || !shown(i)) continue;
      const QRectF b = box(i);
      const double r = std::clamp(std::min(b.width(), b.height()) * 0.12, 1.0, 4.0);
      if (s_.view->states[i].kind == evaluation::StationState::Missing) {
        p_.drawLine(b.center() + QPointF(-r, -r) * 1.6, b.center() + QPointF(r, r) * 1.6);
        p_.drawLine(b.center() + QPointF(-r, r) * 1.6, b.center() + QPointF(r, -r) * 1.6);
      } else {
        p_.drawEllipse(b.center(), r, r);
      }
    }
  }

  /// Values where they fit: all of them, or every so many columns and rows; lowest and highest stay whatever else goes.
  void numbers() {
    if (boxes_.empty()) return;
    const QRectF one = box(boxes_.size() / 2);
    const double widest = longest_text();
    // Digits are a little over half as wide as the font is high.
    int pixels = static_cast<int>(std::min({16.0, (one.width() - 9) / (0.62 * widest), one.height() / 1.7}));
    int across = 1, deep = 1;
    if (pixels < least_pixels) {
      if (!s_.rulers) return;
      pixels = thinned_pixels;
      const QFontMetricsF metrics(text_font(pixels));
      across = static_cast<int>(std::ceil((0.62 * widest * pixels + 8) / one.width()));
      deep = static_cast<int>(std::ceil(metrics.height() * 1.6 / one.height()));
    }
    std::vector<QRectF> taken;
    for (const ContourLines& c : contours_) taken.insert(taken.end(), c.labels.begin(), c.labels.end());
    if (across > 1 || deep > 1 || s_.contours) extremes(pixels, taken);
    p_.setFont(text_font(pixels));
    for (std::size_t i = 0; i < boxes_.size(); ++i) {
      if (!known(i) || !shown(i)) continue;
      const Station& s = layout_.stations[i];
      if (layout_.is_lattice() &&
          (s.column % across != (layout_.columns - 1) % across / 2 || s.row % deep != (layout_.rows - 1) % deep / 2))
        continue;
      const QString words = s_.text.text(values_[i]);
      const QRectF room = number_box(i, words);
      if (std::any_of(taken.begin(), taken.end(), [&](const QRectF& t) { return t.intersects(room); })) continue;
      p_.setPen(qcolor(report::ink_on(s_.scale.color(values_[i]))));
      p_.drawText(room, Qt::AlignCenter, words);
    }
  }

  /// Characters of the longest value; of a dense sweep some of them tell.
  double longest_text() const {
    qsizetype longest = 1;
    const std::size_t stride = std::max<std::size_t>(1, values_.size() / 128);
    for (std::size_t i = 0; i < values_.size(); i += stride)
      if (known(i)) longest = std::max(longest, s_.text.text(values_[i]).size());
    return static_cast<double>(longest);
  }

  QRectF number_box(std::size_t i, const QString& words) const {
    const QFontMetricsF metrics(p_.font());
    QRectF room(QPointF(), QSizeF(metrics.horizontalAdvance(words) + 2, metrics.height()));
    room.moveCenter(box(i).center());
    return room;
  }

  /// Lowest and highest in frames of their own, moved inside the map where they lie at its edge.
  void extremes(int pixels, std::vector<QRectF>& taken) {
    std::ptrdiff_t lowest = -1, highest = -1;
    for (std::size_t i = 0; i < values_.size(); ++i) {
      if (!known(i)) continue;
      if (lowest < 0 || values_[i] < values_[lowest]) lowest = static_cast<std::ptrdiff_t>(i);
      if (highest < 0 || values_[i] > values_[highest]) highest = static_cast<std::ptrdiff_t>(i);
    }
    p_.setFont(text_font(pixels, true));
    for (const std::ptrdiff_t i : {lowest, highest}) {
      if (i < 0 || !shown(static_cast<std::size_t>(i))) continue;
      const QString words = (i == lowest ? QStringLiteral("▾ ") : QStringLiteral("▴ ")) + s_.text.text(values_[i]);
      QRectF room = number_box(static_cast<std::size_t>(i), words).adjusted(-3, -1, 3, 1);
      room.moveLeft(std::clamp(room.left(), fit_.frame.left() + 1, fit_.frame.right() - room.width() - 1));
      room.moveTop(std::clamp(room.top(), fit_.frame.top() + 1, fit_.frame.bottom() - room.height() - 1));
      p_.fillRect(room, theme().panel);
      p_.setPen(QPen(theme().ember, 1));
      p_.drawRect(room);
      p_.setPen(theme().ink);
      p_.drawText(room, Qt::AlignCenter, words);
      taken.push_back(room);
    }
  }

  void current() {
    if (s_.current < 0 || s_.current >= static_cast<int>(boxes_.size())) return;
    p_.setBrush(Qt::NoBrush);
    p_.setPen(QPen(theme().panel, 6));
    p_.drawRect(box(static_cast<std::size_t>(s_.current)));
    p_.setPen(QPen(theme().ember, 3));
    p_.drawRect(box(static_cast<std::size_t>(s_.current)));
  }

  QPainter& p_;
  const MapFit& fit_;
  const MapScene& s_;
  const Layout& layout_;
  const std::vector<double>& values_;
  std::vector<Rectangle> boxes_;
  std::vector<ContourLines> contours_;
};

}  // namespace

void paint_map(QPainter& p, const MapFit& fit, const MapScene& scene) {
  p.save();
  p.setRenderHint(QPainter::Antialiasing);
  MapPainter(p, fit, scene).paint();
  p.restore();
}

}  // namespace sunbreak::desktop
