#include "desktop/warmup/temperature_panel.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <set>

#include "desktop/desk/desk.h"
#include "desktop/pictures/picture_strip.h"
#include "desktop/warmup/heat_chart.h"
#include "desktop/warmup/temperature_dialog.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/form.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/heat_by_state.h"
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
  table_ = new FiguresTable({tr("Place"), tr("Read"), tr("True"), tr("Rise"), tr("After"), tr("State")},
                            tr("Temperatures"), this);
  table_->setObjectName("temperatureTable");
  table_->set_spare_columns({1, 5});
  table_->installEventFilter(this);
  layout->addWidget(table_);
  words_ = wrapped_label({}, this);
  words_->setObjectName("temperatureWords");
  set_tone(words_, "attention");
  layout->addWidget(words_);
  verdicts_ = wrapped_label({}, this);
  verdicts_->setObjectName("heatVerdicts");
  layout->addWidget(verdicts_);
  chart_ = new HeatChart(this);
  layout->addWidget(chart_);
  auto* row = new QHBoxLayout;
  auto* button = new QPushButton(tr("Add a temperature…"), this);
  button->setObjectName("addTemperature");
  button->setToolTip(tr("T; Delete takes the chosen one out"));
  connect(button, &QPushButton::clicked, this, &TemperaturePanel::add);
  row->addWidget(button);
  row->addStretch();
  layout->addLayout(row);
  limits_ = new Form(this);
  limits_->section(tr("Your limits"), "heatLimits");
  add_limit(tr("Surface, at most"), &record::Test::surface_limit_c, "surfaceLimit", false);
  add_limit(tr("Canopy over air, at most"), &record::Test::canopy_rise_limit_c, "canopyLimit", true);
  layout->addWidget(limits_);
  of_chosen_ = quiet_label({}, this);
  layout->addWidget(of_chosen_);
  pictures_ = new PictureStrip(desk_, PictureOf::temperature(0), this);
  layout->addWidget(pictures_);
  connect(table_, &QTableWidget::currentCellChanged, this, &TemperaturePanel::show_pictures);
  layout->addStretch();
  connect(&desk_, &Desk::changed, this, &TemperaturePanel::refresh);
  refresh();
}

/// A line over a limit that the tester sets, shown and typed in the screen's unit.
void TemperaturePanel::add_limit(const QString& name, std::optional<double> record::Test::*member, const char* object,
                                 bool rise) {
  const auto shown = [this, rise](double kept) {
    return rise ? shown_rise(kept, desk_.units()) : shown_temperature(kept, desk_.units());
  };
  const auto kept = [this, rise](double typed) {
    return rise ? typed / shown_rise(1, desk_.units()) : celsius_of_shown(typed, desk_.units());
  };
  limits_
      ->line(
          name,
          [=, this] {
            const auto value = desk_.test() ? desk_.test()->test.*member : std::nullopt;
            return value ? show_number(shown(*value), 1) : QString();
          },
          parse_number_field({0, 400},
                             [=, this](std::optional<double> v) -> QString {
                               if (!desk_.test()) return {};
                               record::Test test = desk_.test()->test;
                               test.*member = v ? std::optional(kept(*v)) : std::nullopt;
                               return desk_.edits().make(tr("limit of heat"), [&](book::Edit& e) { e.save(test); })
                                          ? QString()
                                          : tr("Not kept.");
                             }),
          [this, rise] {
            return text_of(std::string(rise ? rise_unit(desk_.units()) : temperature_unit(desk_.units())));
          })
      ->setObjectName(object);
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
  const QString unit = text_of(std::string(temperature_unit(desk_.units()))), none = QStringLiteral("–");
  table_->name_column(1, tr("Read %1").arg(unit));
  table_->name_column(2, tr("True %1").arg(unit));
  table_->name_column(3, tr("Rise %1").arg(text_of(std::string(rise_unit(desk_.units())))));
  auto heat = evaluation::heat_rows(test, desk_.units());
  for (std::size_t i = 0; i < heat.size(); ++i) {
    const record::Temperature& t = test.temperatures[i];
    const evaluation::HeatRow& h = heat[i];
    const auto checks = temperature_checks(evaluation::shot_of(test, t, desk_.units()));
    QStringList tips;
    for (const Finding& c : checks) {
      tips << text_of(c.saw + ": " + c.effect + "; " + c.remedy + ".");
      if (said.insert(c.id).second) words << marked_attention(text_of(t.place)) + ": " + tips.last();
    }
    if (!h.surface_c) tips << text_of(h.surface_c.problem().sentence());
    QStringList state;
    if (h.height_m) state << text_of(length_text(*h.height_m, desk_.units()));
    if (h.percent) state << tr("%1 %").arg(show_number(*h.percent));
    const bool over = h.over_limit && *h.over_limit > 0;
    QString spread;
    if (h.coldest_c && h.hottest_c)
      spread = tr("picture: %1 to %2 %3").arg(degrees(*h.coldest_c), degrees(*h.hottest_c), unit);
    rows.push_back(
        {{text_of(h.place), tips.join("\n"), !checks.empty() || !h.surface_c},
         {degrees(t.read_c), {}, false},
         {h.surface_c ? degrees(h.surface_c.value()) : none, spread.isEmpty() ? tips.join("\n") : spread, over},
         {h.rise_k ? QString::number(shown_rise(*h.rise_k, desk_.units()), 'f', 1) : none, {}, over && h.canopy},
         {h.minutes_on ? tr("%1 min").arg(*h.minutes_on, 0, 'f', 0) : none, tr("since switch-on"), false},
         {state.isEmpty() ? none : state.join(QStringLiteral(" · ")), tr("height and dimmer"), false}});
    shown_.push_back(t.id);
  }
  table_->show_rows(rows);
  words_->setText(words.join("\n"));
  words_->setVisible(!words.isEmpty());
  QStringList verdicts;
  for (const std::string& v : evaluation::heat_verdicts(test, desk_.units())) verdicts << text_of(v);
  verdicts_->setText(verdicts.join("\n"));
  verdicts_->setVisible(!verdicts.isEmpty());
  const bool any_over = std::ranges::any_of(heat, [](const auto& h) { return h.over_limit && *h.over_limit > 0; });
  set_tone(verdicts_, any_over ? "attention" : "good");
  limits_->refresh();
  limits_->set_editable(!desk_.read_only());
  chart_->show_heat(std::move(heat), test.test.surface_limit_c, desk_.units());
  show_pictures();
}

/// The pictures of the temperature that is chosen in the table.
void TemperaturePanel::show_pictures() {
  const int row = table_->currentRow();
  const bool chosen = row >= 0 && row < static_cast<int>(shown_.size());
  of_chosen_->setVisible(chosen);
  pictures_->setVisible(chosen);
  if (!chosen) return;
  of_chosen_->setText(tr("Pictures of the chosen one, %1").arg(table_->item(row, 0)->text()));
  pictures_->show_of(PictureOf::temperature(shown_[static_cast<std::size_t>(row)]));
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
