#include "desktop/warmup/wall_form.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include "core/limits/light_limits.h"
#include "desktop/desk/desk.h"
#include "desktop/desk/test_log.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "record/configurations.h"

namespace sunbreak::desktop {

WallForm::WallForm(Desk& desk, TestLog& log, QWidget* parent) : QWidget(parent), desk_(desk), log_(log) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  auto* row = new QHBoxLayout;
  row->setSpacing(12);
  watts_ = add_field(row, tr("Watts"), tr("W"), "typedWatts", 72);
  light_ = add_field(row, tr("Light"), tr("µmol/m²/s"), "typedLight", 72);
  volts_ = add_field(row, tr("Volts"), tr("V"), "typedVolts", 56);
  amperes_ = add_field(row, tr("Amperes"), tr("A"), "typedAmperes", 56);
  volt_amperes_ = add_field(row, tr("Apparent"), tr("VA"), "typedVoltAmperes", 56);
  factor_ = add_field(row, tr("PF"), {}, "typedFactor", 44);
  hertz_ = add_field(row, tr("Mains"), tr("Hz"), "typedHertz", 44);
  minutes_ = add_field(row, tr("After switch-on"), tr("min"), "typedMinutes", 56);
  minutes_->setPlaceholderText(tr("now"));
  auto* take = new QPushButton(tr("Keep"), this);
  take->setObjectName("keepWall");
  connect(take, &QPushButton::clicked, this, &WallForm::keep);
  row->addWidget(take, 0, Qt::AlignBottom);
  row->addStretch();
  layout->addLayout(row);
  words_ = wrapped_label({}, this);
  words_->setObjectName("wallWords");
  words_->hide();
  layout->addWidget(words_);
}

QLineEdit* WallForm::add_field(QHBoxLayout* row, const QString& name, const QString& unit, const char* object,
                               int width) {
  auto* column = new QVBoxLayout;
  column->setSpacing(0);
  auto* label = quiet_label(unit.isEmpty() ? name : tr("%1, %2").arg(name, unit), this);
  label->setStyleSheet("font-size: 11px;");
  auto* field = new QLineEdit(this);
  field->setObjectName(object);
  field->setAccessibleName(label->text());
  field->setMinimumWidth(width);
  field->setMaximumWidth(width + 40);
  label->setBuddy(field);
  column->addWidget(label);
  column->addWidget(field);
  row->addLayout(column);
  connect(field, &QLineEdit::returnPressed, this, &WallForm::keep);
  return field;
}

void WallForm::begin() {
  watts_->setFocus();
  watts_->selectAll();
}

void WallForm::say(const QString& words, const char* tone) {
  words_->setText(words);
  words_->setVisible(!words.isEmpty());
  set_tone(words_, tone);
}

void WallForm::keep() {
  if (!desk_.test()) return;
  record::WallReading reading;
  reading.test_id = desk_.test()->test.id;
  reading.configuration_id = record::configuration_of(*desk_.test());
  QString problem;
  const auto read = [&](QLineEdit* field, double low, double high, std::optional<double>& value) {
    if (!problem.isEmpty()) return;
    problem = parse_number_field({low, high}, [&](std::optional<double> v) {
      value = v;
      return QString();
    })(field->text().trimmed());
    if (!problem.isEmpty()) field->setFocus();
  };
  std::optional<double> minutes;
  read(watts_, -10, 100'000, reading.power_w);
  read(light_, least_live, most_ppfd, reading.light_raw);
  read(volts_, 0, 1000, reading.voltage_v);
  read(amperes_, 0, 1000, reading.current_a);
  read(volt_amperes_, 0, 100'000, reading.apparent_va);
  read(factor_, 0, 1.5, reading.power_factor);
  read(hertz_, 0, 1000, reading.frequency_hz);
  read(minutes_, 0, 100'000, minutes);
  if (!problem.isEmpty()) return say(problem, "bad");
  if (!reading.power_w && !reading.light_raw)
    return say(tr("Type the watts or the light, or both; Enter keeps them."), "attention");
  const evaluation::LampState lamp = log_.lamp();
  if (minutes && !lamp.on_since_s)
    return say(tr("Minutes after switch-on need the moment of switch-on: press O when the light goes on, or leave them "
                  "empty."),
               "attention");
  reading.taken_at = minutes ? record::utc_text(*lamp.on_since_s + 60 * *minutes) : desk_.clock().utc_text();
  if (!desk_.edits().make(tr("reading of the meters"), [&](book::Edit& e) { e.add(reading); })) return;
  const auto checks = wall_checks({reading.voltage_v, reading.current_a, reading.power_w, reading.apparent_va,
                                   reading.power_factor, reading.frequency_hz});
  QStringList words;
  for (const Finding& c : checks) words << marked_attention(text_of(c.saw + ": " + c.effect + "; " + c.remedy + "."));
  say(words.isEmpty() ? tr("Kept.") : tr("Kept as typed. ") + words.join(" "), words.isEmpty() ? "good" : "attention");
  for (QLineEdit* field : {watts_, light_, volts_, amperes_, volt_amperes_, factor_, hertz_, minutes_})
    field->setText({});
  begin();
}

}  // namespace sunbreak::desktop
