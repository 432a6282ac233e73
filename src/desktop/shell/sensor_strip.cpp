#include "desktop/shell/sensor_strip.h"

#include <QAccessible>
#include <QHBoxLayout>
#include <QLabel>
#include <QTimer>
#include <QVBoxLayout>
#include <cmath>

#include "desktop/shell/desk.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/takers.h"

namespace sunbreak::desktop {

SensorStrip::SensorStrip(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("sensorStrip");
  setAttribute(Qt::WA_StyledBackground);
  setFixedHeight(60);
  setAccessibleName(tr("Sensor strip"));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(16, 4, 16, 4);
  row->setSpacing(32);
  reading_ = add_figure(row, tr("Last reading"), tr("µmol/m²/s"));
  watts_ = add_figure(row, tr("At the wall"), tr("W"));
  progress_ = add_figure(row, tr("This sweep"), tr("stations"));
  message_ = new QLabel(this);
  message_->setWordWrap(true);
  message_->setObjectName("message");
  row->addWidget(message_, 1);
  instruments_ = quiet_label(tr("no instrument connected:\nreadings are typed or brought in"), this);
  instruments_->setStyleSheet("font-size: 11px;");
  row->addWidget(instruments_);
  fade_ = new QTimer(this);
  fade_->setSingleShot(true);
  connect(fade_, &QTimer::timeout, message_, &QLabel::clear);
  connect(&desk_, &Desk::changed, this, &SensorStrip::refresh);
  connect(&desk_, &Desk::said, this, &SensorStrip::say);
  refresh();
}

QLabel* SensorStrip::add_figure(QHBoxLayout* row, const QString& name, const QString& unit) {
  auto* column = new QVBoxLayout;
  column->setSpacing(0);
  column->addWidget(quiet_label(name, this));
  auto* line = new QHBoxLayout;
  line->setSpacing(6);
  auto* value = figure_label(24, this);
  value->setAccessibleName(name);
  line->addWidget(value);
  line->addWidget(quiet_label(unit, this), 0, Qt::AlignBottom);
  line->addStretch();
  column->addLayout(line);
  row->addLayout(column);
  return value;
}

void SensorStrip::refresh() {
  const QString none = QStringLiteral("–");
  reading_->setText(none);
  watts_->setText(desk_.sweep() && desk_.sweep()->power_w ? show_number(desk_.sweep()->power_w, 1) : none);
  progress_->setText(
      desk_.test() && desk_.view() ? tr("%1/%2").arg(desk_.view()->read()).arg(desk_.view()->states.size()) : none);
  if (!desk_.sweep() || !desk_.view()) return;
  book::Id latest = 0;
  for (std::size_t i = 0; i < desk_.view()->states.size(); ++i) {
    const book::StationState& state = desk_.view()->states[i];
    if (state.kind != book::StationState::Read || state.reading_id <= latest) continue;
    latest = state.reading_id;
    reading_->setText(text_of(ppfd_text(desk_.view()->ppfd[i])));
  }
}

void SensorStrip::say(const QString& words, bool bad) {
  message_->setText((bad ? QStringLiteral("◣ ") : QString()) + words);
  message_->setStyleSheet(bad ? "color: #E5796F;" : QString());
  fade_->start(bad ? 20000 : 8000);
  QAccessibleEvent event(message_, QAccessible::Alert);
  QAccessible::updateAccessibility(&event);
}

}  // namespace sunbreak::desktop
