#include "desktop/warmup/temperature_panel.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <set>

#include "desktop/desk/desk.h"
#include "desktop/warmup/temperature_dialog.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/stabilization.h"
#include "evaluation/stair_records.h"

namespace sunbreak::desktop {

TemperaturePanel::TemperaturePanel(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(6);
  layout->addWidget(heading_label(tr("Temperatures"), this));
  empty_ =
      wrapped_label(tr("Driver, bar top and underside, canopy, air. What compares is the rise over air, long after "
                       "switch-on. Surfaces over 60 °C (140 °F) burn: do not touch."),
                    this);
  empty_->setProperty("quiet", true);
  layout->addWidget(empty_);
  table_ = new FiguresTable({tr("Place"), tr("Read"), tr("True"), tr("Rise"), tr("After")}, tr("Temperatures"), this);
  table_->setObjectName("temperatureTable");
  table_->set_spare_columns({1});
  table_->installEventFilter(this);
  layout->addWidget(table_);
  words_ = wrapped_label({}, this);
  words_->setObjectName("temperatureWords");
  set_tone(words_, "attention");
  layout->addWidget(words_);
  auto* row = new QHBoxLayout;
  auto* button = new QPushButton(tr("Add a temperature…"), this);
  button->setObjectName("addTemperature");
  button->setToolTip(tr("T; Delete takes the chosen one out"));
  connect(button, &QPushButton::clicked, this, &TemperaturePanel::add);
  row->addWidget(button);
  row->addStretch();
  layout->addLayout(row);
  layout->addStretch();
  connect(&desk_, &Desk::changed, this, &TemperaturePanel::refresh);
  refresh();
}

void TemperaturePanel::refresh() {
  if (!desk_.test()) return;
  const record::TestRecord& test = *desk_.test();
  empty_->setVisible(test.temperatures.empty());
  std::vector<std::vector<FigureCell>> rows;
  shown_.clear();
  QStringList words;
  std::set<std::string> said;
  const auto degrees = [this](double c) { return QString::number(shown_temperature(c, desk_.units()), 'f', 1); };
  const QString unit = text_of(std::string(temperature_unit(desk_.units())));
  table_->horizontalHeaderItem(1)->setText(tr("Read %1").arg(unit));
  table_->horizontalHeaderItem(2)->setText(tr("True %1").arg(unit));
  table_->horizontalHeaderItem(3)->setText(tr("Rise %1").arg(text_of(std::string(rise_unit(desk_.units())))));
  for (const record::Temperature& t : test.temperatures) {
    const TemperatureShot shot = evaluation::shot_of(test, t, desk_.units());
    const auto surface = surface_temperature_c(shot);
    const auto checks = temperature_checks(shot);
    QStringList tips;
    for (const Finding& c : checks) {
      tips << text_of(c.saw + ": " + c.effect + "; " + c.remedy + ".");
      if (said.insert(c.id).second) words << marked_attention(text_of(t.place)) + ": " + tips.last();
    }
    if (!surface) tips << text_of(surface.problem().sentence());
    const auto lamp = evaluation::lamp_at(test.lamp_events, record::seconds_of(t.taken_at));
    const bool is_air = t.place == "air";
    const bool rises = surface && shot.air_c && !is_air;
    rows.push_back(
        {{text_of(t.place), tips.join("\n"), !checks.empty() || !surface},
         {degrees(t.read_c), {}, false},
         {surface ? degrees(surface.value()) : QStringLiteral("–"), tips.join("\n"), false},
         {rises ? QString::number(shown_rise(surface.value() - *shot.air_c, desk_.units()), 'f', 1)
                : QStringLiteral("–"),
          {},
          false},
         {lamp.on_since_s ? tr("%1 min").arg((record::seconds_of(t.taken_at) - *lamp.on_since_s) / 60, 0, 'f', 0)
                          : QStringLiteral("–"),
          tr("since switch-on"), false}});
    shown_.push_back(t.id);
  }
  table_->show_rows(rows);
  words_->setText(words.join("\n"));
  words_->setVisible(!words.isEmpty());
}

bool TemperaturePanel::add() {
  if (!desk_.test()) return false;
  TemperatureDialog dialog(desk_, this);
  return dialog.exec() == QDialog::Accepted;
}

bool TemperaturePanel::eventFilter(QObject* watched, QEvent* event) {
  if (watched == table_ && event->type() == QEvent::KeyPress &&
      static_cast<QKeyEvent*>(event)->key() == Qt::Key_Delete) {
    const int row = table_->currentRow();
    if (row >= 0 && row < static_cast<int>(shown_.size()) &&
        desk_.edits().make(tr("take out a temperature"),
                           [&](book::Edit& e) { e.erase<record::Temperature>(shown_[row]); }))
      desk_.say(tr("The temperature is out. Ctrl+Z brings it back."));
    return true;
  }
  return QWidget::eventFilter(watched, event);
}

}  // namespace sunbreak::desktop
