#include "desktop/warmup/stair_run.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>
#include <set>

#include "core/bench/walk_order.h"
#include "desktop/instruments/instrument_hub.h"
#include "desktop/paint/station_words.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/takers.h"

namespace sunbreak::desktop {

using instruments::LinkState;
using instruments::Measurement;
using instruments::Measures;

namespace {

constexpr HoldRule watts_hold{0.005, 8, 4};
constexpr std::size_t light_values = 5;
constexpr double least_watts = 2;  ///< below, half a percent is less than a meter resolves

/// The plan's own settings and a ladder down to standby, with full again at the end for the drift.
QString proposed_stops(const record::TestRecord& test) {
  std::set<double, std::greater<>> stops{100, 80, 60, 40, 20, 10, 0};
  for (const record::Stop& s : test.stops) stops.insert(s.percent);
  QStringList texts;
  if (*stops.begin() > 100) texts << "100";
  for (const double s : stops) texts << show_number(s);
  return texts.join(", ") + ", 100";
}

}  // namespace

StairRun::StairRun(Desk& desk, InstrumentHub& hub, QWidget* parent) : QDialog(parent), desk_(desk), hub_(hub) {
  setObjectName("stairRun");
  setWindowTitle(tr("Dimmer stair"));
  resize(720, 440);
  build();
  connect(&hub_, &InstrumentHub::measured, this, &StairRun::measured);
  connect(&hub_, &InstrumentHub::changed, this, &StairRun::describe);
  connect(&hub_, &InstrumentHub::carriage_arrived, this, [this] {
    if (phase_ == Phase::Light) gathering_ = true, passing_ = 1;
  });
  describe();
}

void StairRun::build() {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(24, 16, 24, 16);
  layout->setSpacing(10);
  auto* plan = new QHBoxLayout;
  plan->addWidget(quiet_label(tr("Settings, in this order"), this));
  plan_ = new QLineEdit(proposed_stops(*desk_.test()), this);
  plan_->setObjectName("stairStops");
  plan_->setCursorPosition(0);
  plan_->setAccessibleName(tr("Settings, in this order"));
  plan->addWidget(plan_, 1);
  plan->addWidget(quiet_label(tr("% of the dial · light at"), this));
  where_ = new QComboBox(this);
  where_->setObjectName("stairStations");
  where_->addItem(tr("the center"), 1);
  where_->addItem(tr("center and corners"), 5);
  plan->addWidget(where_);
  layout->addLayout(plan);
  layout->addWidget(thin_rule(this));
  title_ = figure_label(32, this);
  title_->setObjectName("stairTitle");
  title_->setWordWrap(true);
  layout->addWidget(title_);
  doing_ = wrapped_label({}, this);
  doing_->setObjectName("stairDoing");
  layout->addWidget(doing_);
  progress_ = new QProgressBar(this);
  progress_->setTextVisible(false);
  progress_->setRange(0, 100);
  progress_->setFixedHeight(8);
  progress_->setAccessibleName(tr("How much of the hold has passed"));
  layout->addWidget(progress_);
  auto* values = new QHBoxLayout;
  values->setSpacing(32);
  watts_ = add_value(values, tr("At the wall"), tr("W"), "stairWatts");
  light_ = add_value(values, tr("Light"), tr("µmol/m²/s"), "stairLight");
  layout->addLayout(values);
  problem_ = wrapped_label({}, this);
  problem_->setObjectName("stairProblem");
  set_tone(problem_, "attention");
  layout->addWidget(problem_);
  layout->addStretch();
  auto* caution = wrapped_label(
      tr("Do not look into the lit fixture. Turn the dimmer from outside; leave its wiring alone."), this);
  caution->setProperty("quiet", true);
  layout->addWidget(caution);
  auto* buttons = new QHBoxLayout;
  auto* leave = new QPushButton(tr("Stop here"), this);
  leave->setAutoDefault(false);
  leave->setToolTip(tr("What was read stays (Esc)"));
  skip_ = new QPushButton(tr("Leave this one out"), this);
  skip_->setObjectName("stairSkip");
  skip_->setAutoDefault(false);
  next_ = primary_button({}, this);
  next_->setObjectName("stairNext");
  next_->setDefault(true);
  buttons->addWidget(leave);
  buttons->addStretch();
  buttons->addWidget(skip_);
  buttons->addWidget(next_);
  layout->addLayout(buttons);
  connect(leave, &QPushButton::clicked, this, &QDialog::accept);
  connect(next_, &QPushButton::clicked, this, &StairRun::go_on);
  connect(skip_, &QPushButton::clicked, this, [this] {
    ++stop_at_;
    enter(stop_at_ < stops_.size() ? Phase::Set : Phase::Done);
  });
}

QLineEdit* StairRun::add_value(QHBoxLayout* row, const QString& name, const QString& unit, const char* object) {
  auto* column = new QVBoxLayout;
  column->addWidget(quiet_label(tr("%1, %2").arg(name, unit), this));
  auto* field = new QLineEdit(this);
  field->setObjectName(object);
  field->setAccessibleName(name);
  field->setStyleSheet("font-size: 32px; font-weight: bold;");
  column->addWidget(field);
  row->addLayout(column);
  return field;
}

bool StairRun::live(Measures what) const { return hub_.channel(what).live().has_value(); }

std::optional<double> StairRun::asked_for() const {
  if (phase_ == Phase::Plan || phase_ == Phase::Done || stop_at_ >= stops_.size()) return {};
  return stops_[stop_at_];
}

bool StairRun::read_plan() {
  QString problem;
  const auto stops = number_list(plan_->text(), &problem);
  if (!stops || stops->empty()) {
    problem_->setText(problem.isEmpty() ? tr("Type at least one setting.") : problem);
    return false;
  }
  if (std::any_of(stops->begin(), stops->end(), [](double s) { return s < 0 || s > 200; })) {
    problem_->setText(tr("A dimmer's dial goes from 0 to 100 %, with a boost to 200 % at most: check the settings."));
    return false;
  }
  if (!desk_.view()) {
    problem_->setText(tr("The plan has no stations yet: set its grid on Rig first."));
    return false;
  }
  stops_ = *stops;
  const Layout& layout = desk_.view()->layout;
  stations_ = {reference_station(layout)};
  if (where_->currentData().toInt() > 1)
    for (const int s : opening_probe(layout))
      if (s != stations_.front()) stations_.push_back(s);
  return true;
}

void StairRun::enter(Phase phase) {
  phase_ = phase;
  problem_->clear();
  watts_->clear();
  light_->clear();
  gathering_ = false;
  gathered_.clear();
  if (phase == Phase::Set) {
    stop_ = {};
    stop_.test_id = desk_.test()->test.id;
    stop_.percent = stops_[stop_at_];
    readings_.clear();
    station_at_ = 0;
    if (desk_.rung()) hub_.hang_simulated(desk_.rung()->height_m, stop_.percent);
  }
  if (phase == Phase::Watts) hold_ = HoldDetector(watts_hold), passing_ = 2;
  if (phase == Phase::Light) aim();
  describe();
  if (phase == Phase::Watts && !live(Measures::Power))
    watts_->setFocus();
  else if (phase == Phase::Light && !live(Measures::Light))
    light_->setFocus();
  else
    next_->setFocus();
}

void StairRun::aim() {
  gathered_.clear();
  passing_ = 1;
  const Station& s = desk_.view()->layout.stations[stations_[station_at_]];
  const bool carried = hub_.carriage_state() == LinkState::Live;
  if (carried) hub_.send_carriage({s.x_m, s.y_m});
  // The sensor stands at the first station; to the others someone has to carry it, and says when it is there.
  gathering_ = !carried && stations_.size() == 1;
}

void StairRun::go_on() {
  const auto typed = [this](QLineEdit* field, double low, double high) -> std::optional<double> {
    std::optional<double> value;
    const QString problem = take_number({low, high, false}, [&](std::optional<double> v) {
      value = v;
      return QString();
    })(field->text().trimmed());
    problem_->setText(problem);
    return value;
  };
  switch (phase_) {
    case Phase::Plan:
      if (read_plan()) stop_at_ = 0, enter(Phase::Set);
      return;
    case Phase::Set:
      if (stop_.percent > 0)
        desk_.edits().make(tr("dimmer set"), [&](book::Edit& e) {
          e.add(record::LampEvent{0, desk_.test()->test.id, "stop", stop_.percent, desk_.clock().utc_text()});
        });
      return enter(Phase::Watts);
    case Phase::Watts:
      if (!watts_->text().trimmed().isEmpty()) {
        if (const auto watts = typed(watts_, 0, 100'000)) take_watts(*watts, {});
        return;
      }
      if (const auto watts = hub_.channel(Measures::Power).live()) return take_watts(*watts, {});
      problem_->setText(tr("No wall meter is connected: type what it shows."));
      return;
    case Phase::Light:
      if (!light_->text().trimmed().isEmpty()) {
        if (const auto light = typed(light_, -50, 20'000)) take_light({*light, 1, 0});
        return;
      }
      if (live(Measures::Light)) {
        gathering_ = true;
        return describe();
      }
      problem_->setText(tr("No sensor is connected: type what it shows."));
      return;
    case Phase::Done:
      return accept();
  }
}

void StairRun::measured(Measures what, const Measurement& m) {
  const bool wanted = (phase_ == Phase::Watts && what == Measures::Power) ||
                      (phase_ == Phase::Light && what == Measures::Light && gathering_);
  if (!wanted || (passing_ > 0 && passing_-- > 0)) return;
  if (phase_ == Phase::Watts) {
    // Standby is so little that its last digit is more than half a percent.
    const auto held =
        m.value < least_watts ? std::optional(HeldValue{m.value, 1, 0}) : hold_.feed(desk_.clock().now_s(), m.value);
    if (held)
      return take_watts(held->value, m.wall.power_factor > 0 ? std::optional(m.wall.power_factor) : std::nullopt);
    return describe();
  }
  gathered_.push_back(m.value);
  if (gathered_.size() >= light_values) return take_light(averaged(gathered_));
  describe();
}

void StairRun::take_watts(double watts, std::optional<double> power_factor) {
  stop_.power_w = watts;
  stop_.power_factor = power_factor;
  if (stop_.percent <= 0) return keep_stop();
  enter(Phase::Light);
}

void StairRun::take_light(const HeldValue& light) {
  record::StairReading reading;
  reading.station = stations_[station_at_];
  reading.raw = light.value;
  reading.samples = light.samples;
  if (light.samples > 1) reading.spread = light.spread;
  const bool simulated = hub_.computed(Measures::Light);
  reading.source = light.samples > 1 ? (simulated ? "simulated" : "live") : "typed";
  readings_.push_back(reading);
  if (++station_at_ < stations_.size()) return enter(Phase::Light);
  keep_stop();
}

void StairRun::keep_stop() {
  stop_.taken_at = desk_.clock().utc_text();
  const bool kept = desk_.edits().make(tr("stop of the dimmer's stair"), [&](book::Edit& e) {
    const record::Id id = e.add(stop_);
    for (record::StairReading& r : readings_) {
      r.stair_stop_id = id;
      e.add(r);
    }
  });
  if (!kept) return enter(Phase::Set);
  ++kept_;
  ++stop_at_;
  enter(stop_at_ < stops_.size() ? Phase::Set : Phase::Done);
}

void StairRun::describe() {
  const auto show = [&](QLineEdit* field, Measures what, bool wanted) {
    const auto value = hub_.channel(what).live();
    field->setPlaceholderText(value ? QString::number(*value, 'f', 1) : QStringLiteral("–"));
    field->setReadOnly(!wanted);
  };
  show(watts_, Measures::Power, phase_ == Phase::Watts);
  show(light_, Measures::Light, phase_ == Phase::Light);
  plan_->setReadOnly(phase_ != Phase::Plan);
  where_->setEnabled(phase_ == Phase::Plan);
  skip_->setVisible(phase_ == Phase::Set || phase_ == Phase::Watts || phase_ == Phase::Light);
  const QString setting =
      asked_for() ? (*asked_for() > 0 ? tr("%1 %").arg(*asked_for()) : tr("standby (0 %)")) : QString();
  const QString of = tr("%1 of %2").arg(stop_at_ + 1).arg(stops_.size());
  double share = 0;
  switch (phase_) {
    case Phase::Plan:
      title_->setText(tr("Ready to walk the stair"));
      doing_->setText(
          tr("Let the fixture settle at full first. Each setting is read once its watts hold; full is read again at "
             "the end, for what drifted."));
      next_->setText(tr("Begin"));
      break;
    case Phase::Set:
      title_->setText(tr("Set the dimmer to %1").arg(setting));
      doing_->setText(tr("Setting %1. Press Enter when it is set.").arg(of));
      next_->setText(tr("It is set"));
      break;
    case Phase::Watts:
      title_->setText(tr("%1: watts").arg(setting));
      doing_->setText(live(Measures::Power) ? tr("Waiting until the watts hold still within half a percent…")
                                            : tr("Type the watts once they hold still, then Enter."));
      next_->setText(tr("Take them now"));
      share = hold_.progress();
      break;
    case Phase::Light: {
      title_->setText(tr("%1: light").arg(setting));
      const QString place = station_words(desk_.view()->layout, stations_[station_at_]);
      doing_->setText(gathering_                                 ? tr("Reading at %1…").arg(place)
                      : hub_.carriage_state() == LinkState::Live ? tr("The carriage is on its way to %1.").arg(place)
                      : live(Measures::Light)                    ? tr("Sensor to %1, then Enter.").arg(place)
                                                                 : tr("Type the light at %1, then Enter.").arg(place));
      next_->setText(tr("Read it"));
      share = static_cast<double>(gathered_.size()) / light_values;
      break;
    }
    case Phase::Done:
      title_->setText(tr("The stair is walked"));
      doing_->setText(tr("%1 kept. Set the dimmer back to what the next sweep asks for; light and watts settle anew.")
                          .arg(counted(kept_, tr("setting"), tr("settings"))));
      next_->setText(tr("Look at it"));
      break;
  }
  progress_->setValue(static_cast<int>(100 * share));
  progress_->setVisible(phase_ == Phase::Watts || phase_ == Phase::Light);
}

}  // namespace sunbreak::desktop
