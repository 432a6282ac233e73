#include "desktop/read/change_chart.h"

#include <QPainter>
#include <algorithm>
#include <array>

#include "desktop/paint/round_steps.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

constexpr double names_px = 108, change_row_px = 20, between_px = 10, axis_height = 24, above_px = 6, thick_px = 7,
                 values_px = 116;
constexpr std::size_t most_sweeps = 12;

using Change = evaluation::FigureChange evaluation::RetestedSweep::*;

}  // namespace

ChangeChart::ChangeChart(QWidget* parent) : QWidget(parent) {
  setObjectName("changeChart");
  setAccessibleName(tr("Changes since the earlier test"));
}

void ChangeChart::show_changes(std::vector<evaluation::RetestedSweep> sweeps, UnitSystem units) {
  sweeps_ = std::move(sweeps), units_ = units;
  if (sweeps_.size() > most_sweeps) sweeps_.resize(most_sweeps);
  setFixedHeight(static_cast<int>(above_px + axis_height +
                                  static_cast<double>(sweeps_.size()) * (3 * change_row_px + between_px)));
  setVisible(!sweeps_.empty());
  update();
}

void ChangeChart::paintEvent(QPaintEvent*) {
  const Theme& t = theme();
  const std::array<std::pair<QString, Change>, 3> figures{{{tr("light"), &evaluation::RetestedSweep::mean},
                                                           {tr("watts"), &evaluation::RetestedSweep::power},
                                                           {tr("per watt"), &evaluation::RetestedSweep::efficacy}}};
  double low = -1, high = 1;
  for (const evaluation::RetestedSweep& s : sweeps_)
    for (const auto& [name, figure] : figures)
      if (const evaluation::FigureChange& c = s.*figure; c.known()) {
        low = std::min(low, c.percent() - 100 * c.ratio * c.expanded);
        high = std::max(high, c.percent() + 100 * c.ratio * c.expanded);
      }
  const double margin = 0.05 * (high - low);
  low -= margin, high += margin;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const double left = names_px + 64, right = width() - values_px;
  const auto x_of = [&](double percent) { return left + (right - left) * (percent - low) / (high - low); };
  const double foot = height() - axis_height;
  p.setFont(text_font(11));
  for (const double tick : round_steps(low, high, 8)) {
    p.setPen(QPen(tick == 0 ? t.quiet : t.rule, tick == 0 ? 1.4 : 1));
    p.drawLine(QPointF(x_of(tick), above_px), QPointF(x_of(tick), foot));
    p.setPen(t.quiet);
    p.drawText(QRectF(x_of(tick) - 30, foot + 4, 60, 16), Qt::AlignCenter,
               tr("%1 %").arg(tick > 0 ? QStringLiteral("+") + QString::number(tick)
                                       : QString::number(tick).replace('-', QChar(0x2212))));
  }
  double y = above_px;
  for (const evaluation::RetestedSweep& s : sweeps_) {
    p.setPen(t.ink);
    p.setFont(text_font(13, true));
    p.drawText(QRectF(0, y, names_px, change_row_px), Qt::AlignLeft | Qt::AlignVCenter,
               tr("%1 · %2 %").arg(text_of(length_text(s.height_m, units_)), show_number(s.percent)));
    p.setFont(text_font(12));
    for (const auto& [name, figure] : figures) {
      const evaluation::FigureChange& c = s.*figure;
      p.setPen(t.quiet);
      p.drawText(QRectF(names_px, y, 60, change_row_px), Qt::AlignRight | Qt::AlignVCenter, name);
      if (c.known()) {
        const QColor color = c.beyond() ? t.ember : t.lake;
        const double middle = y + change_row_px / 2, sure = 100 * c.ratio * c.expanded;
        QColor bar = color;
        bar.setAlpha(90);
        p.fillRect(QRectF(QPointF(x_of(c.percent() - sure), middle - thick_px / 2),
                          QPointF(x_of(c.percent() + sure), middle + thick_px / 2)),
                   bar);
        p.setPen(QPen(color, 2.5));
        p.drawLine(QPointF(x_of(c.percent()), middle - thick_px), QPointF(x_of(c.percent()), middle + thick_px));
        p.setPen(t.ink);
        p.drawText(QRectF(right + 8, y, values_px - 8, change_row_px), Qt::AlignRight | Qt::AlignVCenter,
                   text_of(evaluation::change_text(c)));
      }
      y += change_row_px;
    }
    y += between_px;
  }
}

}  // namespace sunbreak::desktop
