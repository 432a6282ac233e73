#include "desktop/warmup/target_finder.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <cmath>

#include "book/target_shelf.h"
#include "desktop/instruments/instrument_hub.h"
#include "desktop/instruments/light_meter.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "record/configurations.h"

namespace sunbreak::desktop {

using instruments::Measures;

namespace {
constexpr double near_enough = 0.01, far_off = 0.15;
}

TargetFinder::TargetFinder(Desk& desk, InstrumentHub& hub, QWidget* parent) : QDialog(parent), desk_(desk), hub_(hub) {
  setObjectName("targetFinder");
  setWindowTitle(tr("Turn until a place reads what the crop asks for"));
  resize(640, 400);
  build();
  connect(&hub_, &InstrumentHub::changed, this, &TargetFinder::describe);
  show_target();
}

void TargetFinder::build() {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(24, 16, 24, 16);
  layout->setSpacing(10);
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(12);
  const auto line = [&](int row, int column, const QString& name, QWidget* widget, const char* object) {
    widget->setObjectName(object);
    widget->setAccessibleName(name);
    grid->addWidget(quiet_label(name, this), 2 * row, column);
    grid->addWidget(widget, 2 * row + 1, column);
  };
  target_ = new QComboBox(this);
  const record::Test& test = desk_.test()->test;
  target_->addItem(text_of(test.target_name), test.target_low_ppfd);
  const auto shelf = book::crop_targets(desk_.book());
  const auto present = evaluation::target_of(shelf, test);
  for (const record::CropTarget& t : shelf)
    if (t.name != test.target_name && t.set_name == (present ? present->set_name : shelf.front().set_name))
      target_->addItem(text_of(t.name), evaluation::band_of(t, t.photoperiod_h).low);
  place_ = new QComboBox(this);
  for (const auto& [text, value] :
       {std::pair{tr("the corners"), "corners"}, {tr("the edge"), "edge"}, {tr("the center"), "center"}})
    place_->addItem(text, value);
  wanted_ = new QLineEdit(this);
  light_ = new QLineEdit(this);
  watts_ = new QLineEdit(this);
  dial_ = new QLineEdit(this);
  line(0, 0, tr("Crop target"), target_, "finderTarget");
  line(0, 1, tr("Place"), place_, "finderPlace");
  line(0, 2, tr("Wanted there, µmol/m²/s"), wanted_, "finderWanted");
  line(1, 0, tr("Light there now, %1").arg(light_unit(desk_)), light_, "finderLight");
  line(1, 1, tr("At the wall, W"), watts_, "finderWatts");
  line(1, 2, tr("Dial shows, % (if it does)"), dial_, "finderDial");
  for (QLineEdit* big : {light_, watts_}) big->setStyleSheet("font-size: 32px; font-weight: bold;");
  layout->addLayout(grid);
  turn_ = figure_label(24, this);
  turn_->setObjectName("finderTurn");
  turn_->setWordWrap(true);
  layout->addWidget(turn_);
  problem_ = wrapped_label({}, this);
  problem_->setObjectName("finderProblem");
  set_tone(problem_, "attention");
  layout->addWidget(problem_);
  layout->addStretch();
  auto* buttons = new QHBoxLayout;
  auto* leave = new QPushButton(tr("Done"), this);
  leave->setAutoDefault(false);
  auto* take = primary_button(tr("Keep this setting"), this);
  take->setObjectName("finderKeep");
  take->setDefault(true);
  buttons->addStretch();
  buttons->addWidget(leave);
  buttons->addWidget(take);
  layout->addLayout(buttons);
  connect(leave, &QPushButton::clicked, this, &QDialog::accept);
  connect(take, &QPushButton::clicked, this, &TargetFinder::keep);
  connect(target_, &QComboBox::activated, this, &TargetFinder::show_target);
  for (QLineEdit* field : {wanted_, light_}) connect(field, &QLineEdit::textEdited, this, &TargetFinder::describe);
}

void TargetFinder::show_target() {
  wanted_->setText(show_number(target_->currentData().toDouble()));
  describe();
}

std::optional<double> TargetFinder::number_in(QLineEdit* field, double high, QString* problem) const {
  std::optional<double> value;
  *problem = parse_number_field({0, high}, [&](std::optional<double> v) {
    value = v;
    return QString();
  })(field->text().trimmed());
  return value;
}

/// The sensor's reading as it is corrected in the figures, since that is what the target speaks of.
void TargetFinder::describe() {
  const auto live = live_reading(desk_, hub_), watts = hub_.channel(Measures::Power).live();
  light_->setPlaceholderText(live ? QString::number(*live, 'f', 1) : QStringLiteral("–"));
  watts_->setPlaceholderText(watts ? QString::number(*watts, 'f', 1) : QStringLiteral("–"));
  QString problem;
  const auto typed = number_in(light_, most_light(desk_), &problem);
  const auto wanted = number_in(wanted_, 20'000, &problem);
  const auto raw = typed ? typed : live;
  if (!raw || !wanted || *wanted <= 0) {
    turn_->setText(tr("Put the sensor there: which way to turn is said by what it reads."));
    return set_tone(turn_, "");
  }
  const double reads = corrected_ppfd(*raw, record::correction_of(*desk_.test()));
  const double off = reads / *wanted - 1;
  set_tone(turn_, std::abs(off) <= near_enough ? "good" : "");
  if (std::abs(off) <= near_enough)
    turn_->setText(tr("It reads %1: there. Enter keeps the watts.").arg(reads, 0, 'f', 0));
  else
    turn_->setText(tr("It reads %1, %2 % too %3: turn %4%5.")
                       .arg(reads, 0, 'f', 0)
                       .arg(100 * std::abs(off), 0, 'f', 0)
                       .arg(off > 0 ? tr("bright") : tr("dim"), off > 0 ? tr("down") : tr("up"),
                            std::abs(off) < far_off ? tr(" a little") : QString()));
}

void TargetFinder::keep() {
  record::TargetSetting setting;
  QString problem;
  const auto wanted = number_in(wanted_, 20'000, &problem);
  auto light = problem.isEmpty() ? number_in(light_, most_light(desk_), &problem) : std::nullopt;
  setting.power_w = problem.isEmpty() ? number_in(watts_, 100'000, &problem) : std::nullopt;
  setting.percent = problem.isEmpty() ? number_in(dial_, 200, &problem) : std::nullopt;
  if (!light) light = live_reading(desk_, hub_);
  if (!setting.power_w) setting.power_w = hub_.channel(Measures::Power).live();
  if (problem.isEmpty() && (!wanted || !light || !setting.power_w))
    problem = tr("Light and watts are both needed: connect the instruments, or type what they show.");
  problem_->setText(problem);
  if (!problem.isEmpty()) return;
  setting.test_id = desk_.test()->test.id;
  setting.configuration_id = record::configuration_of(*desk_.test());
  setting.target_name = text_of(target_->currentText());
  setting.place = text_of(place_->currentData().toString());
  setting.wanted_ppfd = *wanted;
  setting.raw = *light;
  if (desk_.rung()) setting.height_m = desk_.rung()->height_m;
  setting.taken_at = desk_.clock().utc_text();
  if (!desk_.edits().make(tr("setting found for a crop"), [&](book::Edit& e) { e.add(setting); })) return;
  problem_->setText(tr("Kept: %1 W for %2. Choose the next crop, or press Done.")
                        .arg(*setting.power_w, 0, 'f', 1)
                        .arg(target_->currentText()));
  for (QLineEdit* field : {light_, watts_, dial_}) field->clear();
}

}  // namespace sunbreak::desktop
