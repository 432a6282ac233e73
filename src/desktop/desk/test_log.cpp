#include "desktop/desk/test_log.h"

#include <fmt/format.h>

#include "desktop/desk/desk.h"
#include "evaluation/lux_walk.h"

namespace sunbreak::desktop {
namespace {

constexpr int keep_every_ms = 10'000, judge_after_ms = 400;

/// Names everything of the test's log but what is being recorded.
std::string records_of(const record::TestRecord& test, record::Id live_part) {
  std::string text;
  const Correction sensor = evaluation::live_correction(test);
  text += fmt::format("s{} {} ", sensor.dark_offset, sensor.calibration_factor);
  for (const record::LogPart& p : test.log_parts)
    if (p.id != live_part) text += fmt::format("p{}:{} ", p.id, p.count);
  for (const record::LampEvent& e : test.lamp_events)
    text += fmt::format("e{}{}{}{} ", e.id, e.kind, e.at, e.percent.value_or(-1));
  for (const record::WallReading& w : test.wall_readings) text += fmt::format("w{} ", w.id);
  return text;
}

bool is_simulated(const record::TestRecord& test) {
  return test.test.simulated || std::any_of(test.log_parts.begin(), test.log_parts.end(),
                                            [](const record::LogPart& p) { return p.source == "simulated"; });
}

}  // namespace

TestLog::TestLog(Desk& desk, QObject* parent) : QObject(parent), desk_(desk), background_(this) {
  keep_.setInterval(keep_every_ms);
  judge_.setSingleShot(true);
  judge_.setInterval(judge_after_ms);
  connect(&keep_, &QTimer::timeout, this, &TestLog::keep);
  connect(&judge_, &QTimer::timeout, this, &TestLog::judge);
  connect(&desk_, &Desk::changed, this, &TestLog::reload);
  reload();
}

TestLog::~TestLog() { stop(); }

evaluation::LampState TestLog::lamp() const {
  return desk_.test() ? evaluation::lamp_at(desk_.test()->lamp_events, desk_.clock().now_s()) : evaluation::LampState{};
}

void TestLog::reload() {
  const record::TestRecord* test = desk_.test();
  const auto shown = desk_.shown();
  if (shown != shown_) {
    stop();
    // A simulated bench may have run ahead of time in the test before; what is read by hand never does.
    if (desk_.clock().speed() == 1) desk_.clock().back_to_now();
    shown_ = shown;
    unpacked_.clear();
    stabilization_ = {};
    stabilized_since_s_.reset();
    fall_.reset();
    background_.drop();
  }
  const record::Id live = recorder_ ? recorder_->part().id : 0;
  // Most changes of the book, such as a reading, leave the log as it is.
  const std::string records =
      test ? fmt::format("{} {} {}", shown.first, shown.second, records_of(*test, live)) : std::string();
  judge_.start();
  if (records == loaded_records_) return;
  loaded_records_ = records;
  log_ = std::make_shared<evaluation::WallLog>(test ? evaluation::wall_log(*test, &unpacked_, live)
                                                    : evaluation::WallLog{});
  if (recorder_)
    for (const record::LogSample& s : recorder_->samples()) evaluation::append(*log_, s, recorder_->part());
  if (test && is_simulated(*test)) {
    if (!log_->samples.empty()) desk_.clock().not_before(log_->samples.back().time_s);
    if (!test->lamp_events.empty()) desk_.clock().not_before(record::seconds_of(test->lamp_events.back().at));
  }
  hand_over();
  emit grown();
}

/// Gives the log as it is now to what is worked out of the test.
void TestLog::hand_over() { desk_.worked_out().take_log(log_); }

/// The log, to be changed: a copy where another looks at it.
evaluation::WallLog& TestLog::own_log() {
  if (log_.use_count() > 1) log_ = std::make_shared<evaluation::WallLog>(*log_);
  return *log_;
}

bool TestLog::start(const std::string& source) {
  if (!desk_.test() || desk_.read_only()) return false;
  if (recorder_) return true;
  recorder_ = std::make_unique<book::LogRecorder>(desk_.book(), *desk_.test(), source);
  keep_.start();
  return true;
}

void TestLog::stop() {
  if (!recorder_) return;
  keep();
  recorder_.reset();
  keep_.stop();
}

void TestLog::add(const record::LogSample& sample) {
  if (!recorder_) return;
  if (recorder_->full()) keep();
  // A part that could not be written goes on growing until it can.
  if (recorder_->full() && !recorder_->has_news()) {
    const std::string source = recorder_->part().source;
    stop();
    if (!start(source)) return;
  }
  recorder_->add(sample);
  evaluation::append(own_log(), sample, recorder_->part());
  emit grown();
  if (!judge_.isActive()) judge_.start();
}

void TestLog::keep() {
  if (!recorder_ || !recorder_->has_news()) return;
  try {
    recorder_->keep();
    desk_.take_log_part(recorder_->part());
    unpacked_[recorder_->part().id] = {recorder_->part().count, recorder_->samples()};
    hand_over();
  } catch (const std::exception& e) {
    desk_.warn(tr("The log could not be written (%1). It goes on in memory and is tried again; free some space or "
                  "check the disk.")
                   .arg(e.what()));
  }
}

void TestLog::judge() {
  if (!desk_.test()) return;
  if (background_.working()) {
    again_ = true;
    return;
  }
  const auto stabilized_before = stabilized_since_s_ && stabilized_since_of_ == stabilization_.lamp.waiting_from_s
                                     ? stabilized_since_s_
                                     : std::nullopt;
  background_.ask(
      [events = desk_.test()->lamp_events, kept = std::shared_ptr<const evaluation::WallLog>(log_), stabilized_before,
       now = std::max(desk_.clock().now_s(), log_->samples.empty() ? 0 : log_->samples.back().time_s)](auto) {
        const evaluation::WallLog& log = *kept;
        Answer answer;
        answer.stabilization = evaluation::stabilization_at(events, log, now);
        answer.fall = evaluation::fall_from_switch_on(events, log).light;
        const bool same_wait =
            stabilized_before && stabilized_before >= answer.stabilization.lamp.waiting_from_s.value_or(-INFINITY);
        if (answer.stabilization.state == StabilizationState::Stabilized)
          answer.stabilized_since_s =
              same_wait ? stabilized_before : evaluation::stabilized_since_s(events, log, answer.stabilization);
        return answer;
      },
      [this](Answer answer) {
        // What is walked from now on is judged by what is known now, not by what was kept last.
        if (answer.stabilization.state != stabilization_.state) hand_over();
        stabilization_ = std::move(answer.stabilization);
        stabilized_since_s_ = answer.stabilized_since_s;
        fall_ = answer.fall;
        stabilized_since_of_ = stabilization_.lamp.waiting_from_s;
        emit judged();
        if (std::exchange(again_, false)) judge_.start();
      });
}

}  // namespace sunbreak::desktop
