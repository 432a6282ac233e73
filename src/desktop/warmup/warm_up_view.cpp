#include "desktop/warmup/warm_up_view.h"

#include <QApplication>
#include <QClipboard>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QStyle>
#include <QVBoxLayout>
#include <cmath>

#include "core/bench/walk_order.h"
#include "desktop/desk/desk.h"
#include "desktop/desk/test_log.h"
#include "desktop/instruments/instrument_hub.h"
#include "desktop/warmup/cost_panel.h"
#include "desktop/warmup/log_import.h"
#include "desktop/warmup/log_recording.h"
#include "desktop/warmup/stair_panel.h"
#include "desktop/warmup/stair_run.h"
#include "desktop/warmup/target_finder.h"
#include "desktop/warmup/temperature_panel.h"
#include "desktop/warmup/trace_chart.h"
#include "desktop/warmup/wall_form.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "record/configurations.h"

namespace sunbreak::desktop {

using instruments::LinkState;
using instruments::Measures;

namespace {

constexpr int tick_ms = 1000;

QPushButton* key_button(const QString& text, const char* name, const QString& tip, QWidget* parent) {
  auto* button = new QPushButton(text, parent);
  button->setObjectName(name);
  button->setToolTip(tip);
  button->setFocusPolicy(Qt::TabFocus);
  return button;
}

QString duration(double seconds) {
  const qint64 minutes = std::llround(std::floor(seconds / 60));
  return minutes < 60 ? WarmUpView::tr("%1 min").arg(minutes)
                      : WarmUpView::tr("%1 h %2 min").arg(minutes / 60).arg(minutes % 60);
}

}  // namespace

WarmUpView::WarmUpView(Desk& desk, InstrumentHub& hub, TestLog& log, QWidget* parent)
    : StageView(parent), desk_(desk), hub_(hub), log_(log) {
  setObjectName("ground");
  setAttribute(Qt::WA_StyledBackground);
  recording_ = new LogRecording(desk_, hub_, log_, this);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(24, 12, 24, 0);
  layout->setSpacing(8);
  layout->addWidget(build_head());
  traces_ = new TraceChart(this);
  layout->addWidget(traces_, 3);
  form_ = new WallForm(desk_, log_, this);
  layout->addWidget(form_);
  layout->addWidget(build_lower(), 4);
  connect(&desk_, &Desk::changed, this, &WarmUpView::refresh);
  connect(&log_, &TestLog::grown, this, &WarmUpView::refresh_traces);
  connect(&log_, &TestLog::judged, this, &WarmUpView::refresh);
  connect(&desk_.worked_out(), &WorkedOut::progressed, this, [this] {
    if (isVisible()) refresh();
  });
  connect(recording_, &LogRecording::changed, this, &WarmUpView::refresh);
  connect(&hub_, &InstrumentHub::carriage_arrived, this, [this] {
    if (isVisible() && !recording_->light_counts()) recording_->set_light_counts(true);
  });
  tick_.setInterval(tick_ms);
  connect(&tick_, &QTimer::timeout, this, &WarmUpView::refresh_verdict);
  refresh();
}

QWidget* WarmUpView::build_head() {
  auto* head = new QWidget(this);
  auto* row = new QHBoxLayout(head);
  row->setContentsMargins(0, 0, 0, 0);
  auto* words = new QVBoxLayout;
  words->setSpacing(2);
  verdict_ = figure_label(20, head);
  verdict_->setObjectName("settlingVerdict");
  verdict_->setWordWrap(true);
  words->addWidget(verdict_);
  detail_ = wrapped_label({}, head);
  detail_->setObjectName("settlingDetail");
  detail_->setMinimumHeight(34);
  detail_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  words->addWidget(detail_);
  row->addLayout(words, 1);
  clock_ = quiet_label({}, head);
  clock_->setObjectName("sinceSwitchOn");
  auto* side = new QVBoxLayout;
  side->setSpacing(4);
  auto* buttons = new QHBoxLayout;
  lamp_ = key_button({}, "lampSwitched", tr("The moment counts from here: O on, X off"), head);
  record_ = key_button({}, "recordLog", tr("Record what the instruments show (R)"), head);
  record_->setCheckable(true);
  back_ = key_button(tr("Sensor is back"), "sensorBack",
                     tr("The sensor stands at the reference station again: its light counts (B)"), head);
  auto* bring =
      key_button(tr("Bring in a log…"), "bringLog", tr("A logger's table of time, watts, light (Ctrl+O)"), head);
  for (QPushButton* b : {lamp_, record_, back_, bring}) buttons->addWidget(b);
  side->addLayout(buttons);
  side->addWidget(clock_, 0, Qt::AlignRight);
  row->addLayout(side);
  connect(lamp_, &QPushButton::clicked, this, [this] { mark_lamp(log_.lamp().on_since_s ? "off" : "on"); });
  connect(record_, &QPushButton::clicked, this, &WarmUpView::toggle_recording);
  connect(back_, &QPushButton::clicked, this, &WarmUpView::bring_sensor_back);
  connect(bring, &QPushButton::clicked, this, &WarmUpView::wants_file);
  return head;
}

QWidget* WarmUpView::build_lower() {
  auto* scroll = new QScrollArea(this);
  scroll->setAccessibleName(tr("Stair, temperatures, cost and heat"));
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* inside = new QWidget(scroll->viewport());
  inside->setObjectName("ground");
  auto* row = new QHBoxLayout(inside);
  row->setContentsMargins(0, 8, 8, 12);
  row->setSpacing(16);
  stair_ = new StairPanel(desk_, inside);
  temperatures_ = new TemperaturePanel(desk_, inside);
  auto* cost = new CostPanel(desk_, log_, inside);
  for (QWidget* panel :
       {static_cast<QWidget*>(stair_), static_cast<QWidget*>(temperatures_), static_cast<QWidget*>(cost)}) {
    panel->setMinimumWidth(panel == stair_ ? 264 : panel == cost ? 208 : 248);
    row->addWidget(panel, panel == cost ? 3 : 4);
  }
  scroll->setWidget(inside);
  connect(stair_, &StairPanel::run_wanted, this, &WarmUpView::run_stair);
  connect(stair_, &StairPanel::find_wanted, this, &WarmUpView::find_target);
  return scroll;
}

void WarmUpView::refresh() {
  if (!desk_.test()) return;
  const bool on = log_.lamp().on_since_s.has_value();
  lamp_->setText(on ? tr("Switched off") : tr("Switched on now"));
  if (lamp_->property("primary").toBool() == on) {
    lamp_->setProperty("primary", !on);
    lamp_->style()->unpolish(lamp_);
    lamp_->style()->polish(lamp_);
  }
  record_->setChecked(recording_->on());
  record_->setText(recording_->on() ? tr("Stop recording") : tr("Record"));
  back_->setVisible(recording_->on() && !recording_->light_counts());
  form_->setEnabled(!desk_.read_only());
  refresh_traces();
  refresh_verdict();
}

void WarmUpView::refresh_traces() {
  if (!desk_.test() || !isVisible()) return;
  const evaluation::LampState lamp = log_.lamp();
  const evaluation::WallLog& log = log_.log();
  std::vector<TraceBand> bands;
  for (const record::Sweep& sweep : desk_.test()->sweeps) {
    const evaluation::WalkedState* walked = desk_.worked_out().walked(sweep.id);
    const record::Rung* rung = desk_.test()->rung(sweep.rung_id);
    const record::Stop* stop = desk_.test()->stop(sweep.stop_id);
    if (!walked || walked->began_s <= 0 || !rung || !stop) continue;
    bands.push_back({walked->began_s, walked->ended_s,
                     tr("%1, %2 %").arg(text_of(length_text(rung->height_m, desk_.units()))).arg(stop->percent),
                     walked->kind == evaluation::WalkedState::Stabilized});
  }
  std::sort(bands.begin(), bands.end(), [](auto& a, auto& b) { return a.from_s < b.from_s; });
  const double begins = !log.samples.empty() ? log.samples.front().time_s
                        : !bands.empty()     ? bands.front().from_s
                                             : desk_.clock().now_s();
  double zero = lamp.on_since_s.value_or(begins);
  std::vector<TraceMark> marks;
  for (const record::LampEvent& e : desk_.test()->lamp_events) {
    const double at = record::seconds_of(e.at);
    if (e.kind == "on" && !lamp.on_since_s && at <= begins) zero = at;
    marks.push_back({at,
                     e.kind == "on"    ? tr("on")
                     : e.kind == "off" ? tr("off")
                                       : tr("%1 %").arg(e.percent.value_or(0)),
                     false});
  }
  if (const auto since = log_.stabilized_since_s()) marks.push_back({*since, tr("settled"), true});
  std::sort(marks.begin(), marks.end(), [](auto& a, auto& b) { return a.at_s < b.at_s; });
  traces_->show_log(log.light, log.watts, zero);
  traces_->show_marks(std::move(bands), std::move(marks));
}

void WarmUpView::refresh_verdict() {
  if (!desk_.test() || !isVisible()) return;
  const evaluation::Stabilization& s = log_.stabilization();
  const double now = desk_.clock().now_s();
  const evaluation::LampState lamp = log_.lamp();
  QStringList facts;
  const char* tone = "";
  if (log_.log().samples.empty() && !lamp.off) {
    verdict_->setText(lamp.on_since_s ? tr("The light is on: record or type what the meters show")
                                      : tr("Switch the light on, and say so with O"));
    facts << tr(
        "Light at the reference station and watts tell when a sweep may be walked. A time since switch-on alone "
        "never does. Dry hands and floor; the load within what the outlet and meter are rated for.");
  } else if (s.state == StabilizationState::Stabilized) {
    const auto since = log_.stabilized_since_s();
    verdict_->setText(since && log_.recording() ? tr("Settled, %1 ago").arg(duration(std::max(0.0, now - *since)))
                                                : tr("Settled"));
    tone = "good";
    facts << text_of(s.words);
  } else {
    verdict_->setText(lamp.off                                  ? words_when_off()
                      : s.state == StabilizationState::Dark     ? tr("Nothing to judge yet")
                      : s.state == StabilizationState::TooShort ? tr("Too early to say")
                                                                : tr("Not settled yet"));
    tone = s.state == StabilizationState::Moving ? "attention" : "";
    if (!lamp.off) facts << text_of(s.words);
  }
  if (lamp.off)
    for (const record::Sweep& sweep : desk_.test()->sweeps)
      if (const auto* walked = desk_.worked_out().walked(sweep.id);
          walked && walked->kind == evaluation::WalkedState::NotStabilized) {
        facts << text_of(walked->words);
        break;
      }
  if (const auto fall = log_.fall())
    facts << (*fall >= 0 ? tr("From switch-on to settled light fell by %1 %.")
                         : tr("From switch-on to settled light rose by %1 %."))
                 .arg(100 * std::abs(*fall), 0, 'f', 1);
  if (!log_.log().samples.empty())
    for (const Finding& c : wall_checks(evaluation::wall_sample(log_.log().samples.back())))
      facts << marked_attention(text_of(c.saw + ": " + c.effect + "."));
  if (log_.log().impossible > 0)
    facts << marked_attention(tr("%1 of the log hold what no meter can show and are left out.")
                                  .arg(counted(log_.log().impossible, tr("sample"), tr("samples"))));
  if (log_.log().unreadable > 0) facts << marked_attention(tr("A stretch of the log is damaged and left out."));
  if (recording_->on() && !recording_->light_counts())
    facts << tr("The sensor is away from the reference station: only watts are recorded.");
  set_tone(verdict_, tone);
  detail_->setText(facts.join(" "));
  clock_->setText(lamp.on_since_s ? tr("Since switch-on: %1").arg(duration(std::max(0.0, now - *lamp.on_since_s)))
                                  : QString());
}

/// With the lamp off what matters is how the sweeps were walked.
QString WarmUpView::words_when_off() const {
  qsizetype stabilized = 0, not_stabilized = 0;
  for (const record::Sweep& sweep : desk_.test()->sweeps)
    if (const evaluation::WalkedState* walked = desk_.worked_out().walked(sweep.id)) {
      stabilized += walked->kind == evaluation::WalkedState::Stabilized;
      not_stabilized += walked->kind == evaluation::WalkedState::NotStabilized;
    }
  if (stabilized + not_stabilized == 0) return tr("The lamp is off");
  if (not_stabilized == 0)
    return tr("The lamp is off. Walked settled: %1").arg(counted(stabilized, tr("sweep"), tr("sweeps")));
  return tr("The lamp is off. Walked before it had settled: %1 of %2")
      .arg(not_stabilized)
      .arg(counted(stabilized + not_stabilized, tr("sweep"), tr("sweeps")));
}

void WarmUpView::mark_lamp(const char* kind) {
  if (!desk_.test()) return;
  const bool on = std::string_view(kind) == "on";
  std::optional<double> percent;
  if (on && desk_.stop()) percent = desk_.stop()->percent;
  if (!desk_.edits().make(on ? tr("switched on") : tr("switched off"), [&](book::Edit& e) {
        e.add(record::LampEvent{0, desk_.test()->test.id, kind, percent, desk_.clock().utc_text(),
                                record::configuration_of(*desk_.test())});
      }))
    return;
  if (on) hub_.switch_simulated(true), bring_sensor_back();
  if (!on) hub_.switch_simulated(false);
  const bool connected =
      hub_.channel(Measures::Light).state != LinkState::Off || hub_.channel(Measures::Power).state != LinkState::Off;
  if (on && connected) recording_->set_on(true);
  desk_.say(on ? tr("Switched on. Do not look into the lit fixture.") : tr("Switched off. It stays hot for a while."));
}

void WarmUpView::toggle_recording() {
  recording_->set_on(!recording_->on());
  refresh();
}

void WarmUpView::bring_sensor_back() {
  if (hub_.carriage_state() == LinkState::Live && desk_.view()) {
    const Station& s = desk_.view()->layout.stations[reference_station(desk_.view()->layout)];
    recording_->set_light_counts(false);
    return hub_.send_carriage({s.x_m, s.y_m});
  }
  recording_->set_light_counts(true);
}

void WarmUpView::run_stair() {
  if (!desk_.test()) return;
  if (desk_.read_only()) return desk_.warn(tr("This window is read-only: nothing can be recorded."));
  recording_->set_light_counts(false);  // on the stair the sensor may be carried about
  StairRun run(desk_, hub_, this);
  run.exec();
  bring_sensor_back();
  refresh();
}

void WarmUpView::find_target() {
  if (!desk_.test()) return;
  recording_->set_light_counts(false);
  TargetFinder finder(desk_, hub_, this);
  finder.exec();
  bring_sensor_back();
  refresh();
}

void WarmUpView::keyPressEvent(QKeyEvent* event) {
  if (event->modifiers() != Qt::NoModifier) return StageView::keyPressEvent(event);
  switch (event->key()) {
    case Qt::Key_O:
      return mark_lamp("on");
    case Qt::Key_X:
      return mark_lamp("off");
    case Qt::Key_R:
      return toggle_recording();
    case Qt::Key_W:
      return form_->begin();
    case Qt::Key_D:
      return run_stair();
    case Qt::Key_G:
      return find_target();
    case Qt::Key_T:
      temperatures_->add();
      return;
    case Qt::Key_B:
      return bring_sensor_back();
    case Qt::Key_Escape:
      return traces_->setFocus();
    default:
      StageView::keyPressEvent(event);
  }
}

void WarmUpView::hideEvent(QHideEvent* event) {
  tick_.stop();
  // Elsewhere the sensor is carried from station to station: what it reads is not the reference's light.
  const bool pauses = recording_->on() && recording_->light_counts();
  recording_->set_light_counts(false);
  if (pauses)
    desk_.say(
        tr("The log of light rests while the sensor is carried about; watts go on. It goes on here, with the "
           "sensor back in its place."));
  StageView::hideEvent(event);
}

void WarmUpView::arrive() {
  tick_.start();
  refresh();
  traces_->setFocus(Qt::OtherFocusReason);
  if (recording_->on()) bring_sensor_back();
}

std::vector<KeyHint> WarmUpView::keys() const {
  return {{"O", tr("the light was switched on just now")},
          {"X", tr("switched off")},
          {"R", tr("record, or stop recording")},
          {"W", tr("type what the meters show; Enter keeps it, Esc leaves the fields")},
          {"D", tr("walk the dimmer's stair")},
          {"G", tr("turn until a place reads what a crop asks for")},
          {"T", tr("add a temperature")},
          {"B", tr("the sensor is back at the reference station")},
          {tr("Left, Right"), tr("earlier, later")},
          {tr("+, −"), tr("nearer, further")},
          {tr("Home, End"), tr("the whole log, its end")}};
}

QString WarmUpView::copy() {
  if (log_.log().samples.empty()) return {};
  QString text = "time_s\tlight_raw\tpower_w\tvoltage_v\tcurrent_a\tapparent_va\tpower_factor\tfrequency_hz\n";
  const double zero = log_.lamp().on_since_s.value_or(log_.log().samples.front().time_s);
  for (const record::LogSample& s : log_.log().samples) {
    text += QString::number(s.time_s - zero, 'f', 1);
    for (const double v :
         {s.light_raw, s.power_w, s.voltage_v, s.current_a, s.apparent_va, s.power_factor, s.frequency_hz})
      text += "\t" + (std::isfinite(v) ? QString::number(v, 'g', 10) : QString());
    text += "\n";
  }
  QApplication::clipboard()->setText(text);
  return tr("The log is on the clipboard as a table.");
}

bool WarmUpView::take_table(const std::string& bytes, const QString& origin, const std::string&) {
  auto draft = exchange::read_log_table(bytes);
  if (!draft) {
    desk_.warn(origin + ": " + text_of(draft.problem().sentence()));
    return true;
  }
  LogImport dialog(desk_, log_, std::move(draft.value()), origin, window());
  if (dialog.exec() == QDialog::Accepted) desk_.say(tr("The log is in. Ctrl+Z takes it out again."));
  return true;
}

}  // namespace sunbreak::desktop
