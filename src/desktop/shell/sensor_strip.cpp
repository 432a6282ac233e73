#include "desktop/shell/sensor_strip.h"

#include <QAccessible>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QTimer>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "desktop/desk/desk.h"
#include "desktop/desk/test_log.h"
#include "desktop/instruments/instrument_hub.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {
constexpr int strip_tick_ms = 2000;
}

SensorStrip::SensorStrip(Desk& desk, InstrumentHub& hub, TestLog& log, QWidget* parent)
    : QWidget(parent), desk_(desk), hub_(hub), log_(log) {
  setObjectName("sensorStrip");
  setAttribute(Qt::WA_StyledBackground);
  setFixedHeight(60);
  setAccessibleName(tr("Sensor strip"));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(16, 4, 16, 4);
  row->setSpacing(32);
  reading_ = add_figure(row, tr("Last reading"), tr("µmol/m²/s"), &reading_name_);
  watts_ = add_figure(row, tr("At the wall"), tr("W"), &watts_name_);
  progress_ = add_figure(row, tr("This sweep"), tr("stations"));
  since_ = add_figure(row, tr("Since switch-on"), tr("min"), &since_name_);
  since_->setObjectName("sinceFigure");
  message_ = new QLabel(this);
  message_->setWordWrap(true);
  message_->setObjectName("message");
  row->addWidget(message_, 1);
  instruments_ = new QPushButton(this);
  instruments_->setObjectName("instrumentsButton");
  instruments_->setProperty("plain", true);
  instruments_->setToolTip(tr("Instruments (Ctrl+I)"));
  connect(instruments_, &QPushButton::clicked, this, &SensorStrip::wants_instruments);
  row->addWidget(instruments_);
  fade_ = new QTimer(this);
  fade_->setSingleShot(true);
  connect(fade_, &QTimer::timeout, this, &SensorStrip::forget);
  connect(&desk_, &Desk::changed, this, &SensorStrip::refresh);
  connect(&desk_, &Desk::said, this, &SensorStrip::say);
  connect(&hub_, &InstrumentHub::said, this, &SensorStrip::say);
  connect(&hub_, &InstrumentHub::changed, this, &SensorStrip::refresh);
  connect(&log_, &TestLog::judged, this, &SensorStrip::refresh_stabilization);
  auto* tick = new QTimer(this);
  connect(tick, &QTimer::timeout, this, &SensorStrip::refresh_stabilization);
  tick->start(strip_tick_ms);
  refresh();
}

QLabel* SensorStrip::add_figure(QHBoxLayout* row, const QString& name, const QString& unit, QLabel** name_label) {
  auto* column = new QVBoxLayout;
  column->setSpacing(0);
  auto* title = quiet_label(name, this);
  if (name_label) *name_label = title;
  column->addWidget(title);
  auto* line = new QHBoxLayout;
  line->setSpacing(6);
  auto* value = figure_label(24, this);
  value->setAccessibleName(name);
  value->setMinimumWidth(64);
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
  refresh_live();
  refresh_stabilization();
  if (!desk_.sweep() || !desk_.view() ||
      hub_.channel(instruments::Measures::Light).state != instruments::LinkState::Off)
    return;
  const auto& states = desk_.view()->states;
  const auto latest = std::ranges::max_element(states, {}, &evaluation::StationState::reading_id);
  if (latest != states.end() && latest->kind == evaluation::StationState::Read)
    reading_->setText(text_of(ppfd_text(desk_.view()->ppfd[static_cast<std::size_t>(latest - states.begin())])));
}

/// A connected device takes the place of what is on record. An old value is never shown as the present one: it is named
/// old, and a lost device shows none.
void SensorStrip::refresh_live() {
  using instruments::LinkState;
  using instruments::Measures;
  const auto show = [&](Measures what, QLabel* name, QLabel* value, const QString& on_record, const QString& live,
                        int decimals) {
    const Channel& c = hub_.channel(what);
    name->setText(c.state == LinkState::Off     ? on_record
                  : c.impossible()              ? tr("◣ cannot be")
                  : c.state == LinkState::Live  ? live
                  : c.state == LinkState::Stale ? tr("◣ old, now silent")
                  : c.state == LinkState::Lost  ? tr("◣ lost")
                                                : tr("connecting"));
    const bool sound = c.state == LinkState::Off || (c.state == LinkState::Live && !c.impossible());
    set_tone(value, sound ? "" : "attention");
    if (c.state == LinkState::Off) return;
    const bool has_value = c.last && (c.state == LinkState::Live || c.state == LinkState::Stale);
    value->setText(has_value ? QString::number(c.last->value, 'f', decimals) : QStringLiteral("–"));
  };
  show(Measures::Light, reading_name_, reading_, tr("Last reading"), tr("Sensor now"), 1);
  show(Measures::Power, watts_name_, watts_, tr("At the wall"), tr("At the wall now"), 1);
  const bool any =
      hub_.channel(Measures::Light).state != LinkState::Off || hub_.channel(Measures::Power).state != LinkState::Off;
  instruments_->setText(hub_.simulated() ? tr("Instruments: simulated bench")
                        : any            ? tr("Instruments")
                                         : tr("Connect instruments…"));
}

/// Since when the lamp is on, and whether light and watts have stabilized since.
void SensorStrip::refresh_stabilization() {
  const evaluation::LampState lamp = log_.lamp();
  since_->setText(
      lamp.on_since_s
          ? QString::number(std::floor(std::max(0.0, desk_.clock().now_s() - *lamp.on_since_s) / 60), 'f', 0)
          : QStringLiteral("–"));
  const bool judged = lamp.on_since_s && !log_.log().samples.empty();
  since_name_->setText(!judged                                                        ? tr("Since switch-on")
                       : log_.stabilization().state == StabilizationState::Stabilized ? tr("On, settled")
                                                                                      : tr("On, not settled"));
}

void SensorStrip::forget() {
  fade_->stop();
  message_->clear();
  message_->setToolTip({});
}

void SensorStrip::say(const QString& words, bool bad) {
  if (words.isEmpty()) return forget();
  message_->setText((bad ? QStringLiteral("◣ ") : QString()) + words);
  message_->setToolTip(words);  // a narrow window may not have room for all of it
  message_->setStyleSheet(bad ? "color: #E5796F;" : QString());
  fade_->start(bad ? 20000 : 8000);
  QAccessibleEvent event(message_, QAccessible::Alert);
  QAccessible::updateAccessibility(&event);
}

}  // namespace sunbreak::desktop
