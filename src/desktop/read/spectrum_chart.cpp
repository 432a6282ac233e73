#include "desktop/read/spectrum_chart.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "desktop/paint/painter_canvas.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

drawing::Box room_of(const QWidget& widget) {
  return {0, 0, static_cast<double>(widget.width()), static_cast<double>(widget.height())};
}

}  // namespace

SpectrumChart::SpectrumChart(QWidget* parent) : QWidget(parent) {
  setObjectName("spectrumChart");
  setMinimumSize(360, 240);
  setMouseTracking(true);
  setAccessibleName(tr("Spectra on a scale of photons"));
}

void SpectrumChart::show_lines(std::vector<drawing::SpectrumLine> lines, const drawing::SpectrumScale& scale,
                               const QString& empty_words) {
  lines_ = std::move(lines), scale_ = scale, empty_words_ = empty_words;
  QStringList names;
  for (const drawing::SpectrumLine& line : lines_) names << text_of(line.name);
  setAccessibleDescription(names.isEmpty() ? empty_words_ : names.join("; "));
  update();
}

void SpectrumChart::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = theme();
  if (lines_.empty()) {
    p.setFont(text_font(14));
    p.setPen(t.quiet);
    p.drawText(rect().adjusted(40, 20, -40, -20), Qt::AlignCenter | Qt::TextWordWrap, empty_words_);
    return;
  }
  {
    PainterCanvas canvas(p);
    drawing::draw_spectra(canvas, room_of(*this), lines_, scale_);
  }
  if (!pointed_x_) return;
  const auto area = drawing::spectrum_plot_area(room_of(*this), lines_);
  if (*pointed_x_ < area.box.left || *pointed_x_ > area.box.right()) return;
  const double nm = area.nm_at(*pointed_x_);
  QStringList words{tr("%1 nm").arg(nm, 0, 'f', 0)};
  for (const drawing::SpectrumLine& line : lines_) {
    const double value = scale_.shown_for_one * SpectralCurve(line.light).photons(nm);
    words << (std::isnan(value) ? QStringLiteral("–") : QString::number(value, 'g', 3));
  }
  p.setPen(QPen(t.ember, 1));
  p.drawLine(QPointF(*pointed_x_, area.box.top), QPointF(*pointed_x_, area.box.bottom()));
  p.setPen(t.ink);
  p.setFont(text_font(12, true));
  const QString text = words.join(QStringLiteral("  "));
  const double wide = QFontMetricsF(p.font()).horizontalAdvance(text) + 8;
  p.drawText(QRectF(std::clamp(*pointed_x_ + 6, area.box.left, std::max(area.box.left, area.box.right() - wide)),
                    area.box.top + 2, wide, 16),
             Qt::AlignLeft | Qt::AlignVCenter, text);
}

void SpectrumChart::mouseMoveEvent(QMouseEvent* event) {
  pointed_x_ = event->position().x();
  update();
}

void SpectrumChart::leaveEvent(QEvent*) {
  pointed_x_.reset();
  update();
}

}  // namespace sunbreak::desktop
