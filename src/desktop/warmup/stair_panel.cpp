#include "desktop/warmup/stair_panel.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include "core/quantity/uncertain_text.h"
#include "desktop/desk/desk.h"
#include "desktop/instruments/light_meter.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/stair_records.h"

namespace sunbreak::desktop {

/// Light factor and watts against the dial, with the straight line a linear dial would give.
class StairChart : public QWidget {
 public:
  explicit StairChart(QWidget* parent) : QWidget(parent) {
    setFixedHeight(132);
    setAccessibleName(StairPanel::tr("Light and watts against the dimmer's dial, in percent of full"));
  }
  void show_stair(const DimmingCurve& stair) {
    stair_ = stair;
    update();
  }

 protected:
  void paintEvent(QPaintEvent*) override {
    if (stair_.rows.empty()) return;
    QPainter p(this);
    const Theme& t = theme();
    const QRectF box(36, 8, width() - 36 - 56, height() - 30);
    const double top = std::max(100.0, stair_.rows.front().dial_pct);
    const auto at = [&](double dial, double share) {
      return QPointF(box.left() + box.width() * dial / top, box.bottom() - box.height() * share * 100 / top);
    };
    p.fillRect(box, t.ground);
    p.setFont(text_font(11));
    for (int pct = 0; pct <= top; pct += 25) {
      p.setPen(QPen(t.rule, 1));
      p.drawLine(at(pct, 0), at(pct, top / 100));
      p.drawLine(at(0, pct / 100.0), at(top, pct / 100.0));
      p.setPen(t.quiet);
      p.drawText(QRectF(at(pct, 0).x() - 20, box.bottom() + 3, 40, 14), Qt::AlignCenter, QString::number(pct));
      p.drawText(QRectF(0, at(0, pct / 100.0).y() - 7, 32, 14), Qt::AlignRight | Qt::AlignVCenter,
                 QString::number(pct));
    }
    p.drawText(QRectF(box.right() + 16, box.bottom() + 3, 44, 14), Qt::AlignLeft | Qt::AlignVCenter,
               StairPanel::tr("dial %"));
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(t.quiet, 1, Qt::DashLine));
    p.drawLine(at(0, 0), at(top, top / 100));
    const double full_w = stair_.power_at(stair_.full_dial_pct).value_or(0);
    draw(
        p, t.lake, StairPanel::tr("watts"), box, at,
        [&](double dial) -> std::optional<double> {
          const auto w = stair_.power_at(dial);
          return w && full_w > 0 ? std::optional(*w / full_w) : std::nullopt;
        },
        &DimmingPoint::power_share, 14);
    draw(
        p, t.ember, StairPanel::tr("light"), box, at, [&](double dial) { return stair_.light_factor_at(dial); },
        &DimmingPoint::light_factor, 0);
  }

 private:
  template <typename At, typename Curve>
  void draw(QPainter& p, const QColor& color, const QString& name, const QRectF& box, At at, Curve curve,
            std::optional<double> DimmingPoint::*value, double lower) const {
    QPolygonF line;
    for (double dial = 0; dial <= stair_.rows.front().dial_pct + 0.01; dial += 1)
      if (const auto share = curve(dial)) line << at(dial, *share);
    p.setPen(QPen(color, 1.5));
    p.setBrush(Qt::NoBrush);
    p.drawPolyline(line);
    p.setBrush(color);
    for (const DimmingPoint& row : stair_.rows)
      if (row.*value) p.drawEllipse(at(row.dial_pct, *(row.*value)), 2.5, 2.5);
    p.setBrush(Qt::NoBrush);
    p.drawText(QRectF(box.right() + 4, box.top() + lower - 4, 52, 14), Qt::AlignLeft | Qt::AlignVCenter, name);
  }
  DimmingCurve stair_;
};

StairPanel::StairPanel(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(6);
  layout->addWidget(heading_label(tr("Dimmer stair"), this));
  empty_ = wrapped_label(tr("Watts and light at each setting of the dimmer, read one after the other: what a stop "
                            "really gives is not what the dial says."),
                         this);
  empty_->setProperty("quiet", true);
  layout->addWidget(empty_);
  chart_ = new StairChart(this);
  layout->addWidget(chart_);
  table_ = new FiguresTable({tr("Dial %"), tr("Light"), tr("W"), tr("PF"), tr("Per W"), tr("Off line")},
                            tr("Dimmer stair"), this);
  table_->setObjectName("stairTable");
  table_->set_spare_columns({3, 5});
  layout->addWidget(table_);
  words_ = wrapped_label({}, this);
  words_->setObjectName("stairWords");
  layout->addWidget(words_);
  targets_ =
      new FiguresTable({tr("Crop, place"), tr("PPFD"), tr("W"), tr("Dial %")}, tr("Settings found for crops"), this);
  targets_->setObjectName("targetTable");
  layout->addWidget(targets_);
  auto* row = new QHBoxLayout;
  auto* run = new QPushButton(tr("Walk the stair…"), this);
  run->setObjectName("runStair");
  run->setToolTip(tr("Set, wait, read; then the next setting (D)"));
  auto* find = new QPushButton(tr("Turn until…"), this);
  find->setObjectName("findTarget");
  find->setToolTip(tr("Turn the dimmer until a place reads what a crop asks for, and note the watts (G)"));
  row->addWidget(run);
  row->addWidget(find);
  row->addStretch();
  layout->addLayout(row);
  layout->addStretch();
  connect(run, &QPushButton::clicked, this, &StairPanel::run_wanted);
  connect(find, &QPushButton::clicked, this, &StairPanel::find_wanted);
  connect(&desk_, &Desk::changed, this, [this] {
    if (isVisible()) refresh();
  });
  refresh();
}

void StairPanel::showEvent(QShowEvent* event) {
  refresh();
  QWidget::showEvent(event);
}

void StairPanel::refresh() {
  if (!desk_.test()) return;
  const auto found = evaluation::stair_of(*desk_.test());
  empty_->setVisible(!found.ok());
  chart_->setVisible(found.ok());
  words_->setVisible(found.ok());
  std::vector<std::vector<FigureCell>> rows;
  if (found) {
    const DimmingCurve& stair = found.value();
    chart_->show_stair(stair);
    const auto number = [](const std::optional<double>& v, int decimals, double times = 1) {
      return FigureCell{v ? QString::number(*v * times, 'f', decimals) : QStringLiteral("–"), {}, false};
    };
    for (const DimmingPoint& r : stair.rows) {
      FigureCell light = number(r.light_factor, 3);
      if (r.spread && *r.spread > one_pattern_spread)
        light.attention = true, light.tip = tr("The stations differ by %1 %.").arg(100 * *r.spread, 0, 'f', 1);
      FigureCell off = number(r.off_linear, 1, 100);
      if (r.off_linear) off.text = text_of(uncertain_difference(100 * *r.off_linear, unread, 1, "%"));
      rows.push_back({{show_number(r.dial_pct), {}, false},
                      light,
                      number(r.power_w, 1),
                      number(r.power_factor, 2),
                      number(r.relative_efficacy, 3),
                      off});
    }
    QStringList words;
    if (stair.lowest_pct) words << tr("Lowest setting with light: %1 %.").arg(*stair.lowest_pct);
    if (stair.standby_w) words << tr("Standby: %1 W.").arg(*stair.standby_w, 0, 'f', 1);
    if (stair.drift) words << tr("Full drifted by %1 % over the stair, taken out.").arg(100 * *stair.drift, 0, 'f', 1);
    for (const auto& note : {stair.full_is_guessed, stair.pattern_changes})
      if (note) words << marked_attention(text_of(*note));
    words_->setText(words.join(" "));
    set_tone(words_, stair.pattern_changes || stair.full_is_guessed ? "attention" : "");
  }
  table_->show_rows(rows);
  std::vector<std::vector<FigureCell>> targets;
  for (const record::TargetSetting& s : desk_.test()->target_settings)
    targets.push_back(
        {{text_of(s.target_name + ", " + s.place), {}, false},
         {text_of(ppfd_text(s.wanted_ppfd)), tr("read %1 %2").arg(s.raw, 0, 'f', 1).arg(light_unit(desk_)), false},
         {s.power_w ? QString::number(*s.power_w, 'f', 1) : QStringLiteral("–"), {}, false},
         {s.percent ? show_number(s.percent) : QStringLiteral("–"), {}, false}});
  targets_->show_rows(targets);
}

}  // namespace sunbreak::desktop
