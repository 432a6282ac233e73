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
#include "desktop/instruments/light_meter.h"
#include "desktop/paint/station_words.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "record/configurations.h"

namespace sunbreak::desktop {

using instruments::LinkState;
using instruments::Measurement;
using instruments::Measures;

namespace {

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
    if (course_ && course_->phase() == Phase::Light) course_->sensor_is_there();
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
  light_ = add_value(values, tr("Light"), light_unit(desk_), "stairLight");
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
    course_->next();
    follow_course();
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

std::optional<double> StairRun::live(Measures what) const {
  return what == Measures::Light ? live_reading(desk_, hub_) : hub_.channel(what).live();
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
  const Layout& layout = desk_.view()->layout;
  std::vector<int> stations{reference_station(layout)};
  if (where_->currentData().toInt() > 1)
    for (const int s : opening_probe(layout))
      if (s != stations.front()) stations.push_back(s);
  course_.emplace(*stops, stations);
  return true;
}

void StairRun::follow_course() {
  if (course_->phase() == Phase::Read) return keep_stop();
  problem_->clear();
  watts_->clear();
  light_->clear();
  if (course_->phase() == Phase::Set && desk_.rung())
    hub_.hang_simulated(desk_.rung()->height_m, *course_->setting_pct());
  if (course_->phase() == Phase::Light) aim();
  describe();
  if (course_->phase() == Phase::Watts && !live(Measures::Power))
    watts_->setFocus();
  else if (course_->phase() == Phase::Light && !live(Measures::Light))
    light_->setFocus();
  else
    next_->setFocus();
}

void StairRun::aim() {
  const Station& s = desk_.view()->layout.stations[course_->station()];
  if (hub_.carriage_state() == LinkState::Live)
    hub_.send_carriage({s.x_m, s.y_m});
  else if (course_->single_station())
    course_->sensor_is_there();  // to further ones someone has to carry it, and says when it is there
}

void StairRun::set_dial() {
  if (const double percent = *course_->setting_pct(); percent > 0)
    desk_.edits().make(tr("dimmer set"), [&](book::Edit& e) {
      e.add(record::LampEvent{0, desk_.test()->test.id, "stop", percent, desk_.clock().utc_text(),
                              record::configuration_of(*desk_.test())});
    });
  course_->dial_is_set();
  follow_course();
}

void StairRun::go_on() {
  const auto typed = [this](QLineEdit* field, double low, double high) -> std::optional<double> {
    std::optional<double> value;
    const QString problem = parse_number_field({low, high, false}, [&](std::optional<double> v) {
      value = v;
      return QString();
    })(field->text().trimmed());
    problem_->setText(problem);
    return value;
  };
  if (!course_) {
    if (read_plan()) follow_course();
    return;
  }
  switch (course_->phase()) {
    case Phase::Set:
      return set_dial();
    case Phase::Watts: {
      std::optional<double> watts = live(Measures::Power);
      if (!watts_->text().trimmed().isEmpty()) {
        if (!(watts = typed(watts_, 0, 100'000))) return;
      } else if (!watts) {
        return problem_->setText(tr("No wall meter is connected: type what it shows."));
      }
      course_->take_watts(*watts, {});
      return follow_course();
    }
    case Phase::Light:
      if (!light_->text().trimmed().isEmpty()) {
        const auto light = typed(light_, -50, most_light(desk_));
        if (!light) return;
        course_->take_light({*light, 1, 0});
        return follow_course();
      }
      if (!live(Measures::Light))
        return problem_->setText(tr("No sensor of this test is connected: type what it shows."));
      course_->sensor_is_there();
      return describe();
    case Phase::Read:
      return keep_stop();
    case Phase::Done:
      return accept();
  }
}

void StairRun::measured(Measures what, const Measurement& m) {
  if (!course_) return;
  bool taken = false;
  if (what == Measures::Power)
    taken = course_->feed_watts(desk_.clock().now_s(), m.value,
                                m.wall.power_factor > 0 ? std::optional(m.wall.power_factor) : std::nullopt);
  if (what == Measures::Light && live(what)) taken = course_->feed_light(m.value);
  taken ? follow_course() : describe();
}

void StairRun::keep_stop() {
  const ReadSetting& step = course_->step();
  const char* live_source = hub_.computed(Measures::Light) ? "simulated" : "live";
  const bool kept = desk_.edits().make(tr("stop of the dimmer's stair"), [&](book::Edit& e) {
    record::StairStop stop;
    stop.test_id = desk_.test()->test.id;
    stop.configuration_id = record::configuration_of(*desk_.test());
    stop.percent = step.percent;
    stop.power_w = step.power_w;
    stop.power_factor = step.power_factor;
    stop.taken_at = desk_.clock().utc_text();
    const record::Id id = e.add(stop);
    for (const ReadSetting::Light& light : step.light) {
      record::StairReading reading;
      reading.stair_stop_id = id;
      reading.station = light.station;
      reading.raw = light.raw.value;
      reading.samples = light.raw.samples;
      if (light.raw.samples > 1) reading.spread = light.raw.spread;
      reading.source = light.raw.samples > 1 ? live_source : "typed";
      e.add(reading);
    }
  });
  if (kept) {
    ++kept_;
    course_->next();
  } else {
    course_->read_again();
  }
  follow_course();
}

void StairRun::describe() {
  const auto show = [&](QLineEdit* field, Measures what, bool wanted) {
    const auto value = live(what);
    field->setPlaceholderText(value ? QString::number(*value, 'f', 1) : QStringLiteral("–"));
    field->setReadOnly(!wanted);
  };
  const bool watts = course_ && course_->phase() == Phase::Watts, light = course_ && course_->phase() == Phase::Light;
  show(watts_, Measures::Power, watts);
  show(light_, Measures::Light, light);
  plan_->setReadOnly(course_.has_value());
  where_->setEnabled(!course_);
  skip_->setVisible(asked_for().has_value());
  progress_->setVisible(watts || light);
  if (!course_) {
    title_->setText(tr("Ready to walk the stair"));
    doing_->setText(
        tr("Let the fixture settle at full first. Each setting is read once its watts hold; full is read again at the "
           "end, for what drifted."));
    return next_->setText(tr("Begin"));
  }
  const QString setting =
      asked_for() ? (*asked_for() > 0 ? tr("%1 %").arg(*asked_for()) : tr("standby (0 %)")) : QString();
  const QString of = tr("%1 of %2").arg(course_->setting_at() + 1).arg(course_->settings());
  switch (course_->phase()) {
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
      break;
    case Phase::Light: {
      title_->setText(tr("%1: light").arg(setting));
      const QString place = station_words(desk_.view()->layout, course_->station());
      doing_->setText(!live(Measures::Light)                     ? tr("Type the light at %1, then Enter.").arg(place)
                      : course_->gathering()                     ? tr("Reading at %1…").arg(place)
                      : hub_.carriage_state() == LinkState::Live ? tr("The carriage is on its way to %1.").arg(place)
                                                                 : tr("Sensor to %1, then Enter.").arg(place));
      next_->setText(tr("Read it"));
      break;
    }
    case Phase::Read:
      break;
    case Phase::Done:
      title_->setText(tr("The stair is walked"));
      doing_->setText(tr("%1 kept. Set the dimmer back to what the next sweep asks for; light and watts settle anew.")
                          .arg(counted(kept_, tr("setting"), tr("settings"))));
      next_->setText(tr("Look at it"));
      break;
  }
  progress_->setValue(static_cast<int>(100 * course_->progress()));
}

}  // namespace sunbreak::desktop
