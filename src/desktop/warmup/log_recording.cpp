#include "desktop/warmup/log_recording.h"

#include "desktop/desk/desk.h"
#include "desktop/desk/test_log.h"
#include "desktop/instruments/instrument_hub.h"

namespace sunbreak::desktop {

using instruments::LinkState;
using instruments::Measurement;
using instruments::Measures;

namespace {
constexpr double a_sample_s = 1;
}

LogRecording::LogRecording(Desk& desk, InstrumentHub& hub, TestLog& log, QObject* parent)
    : QObject(parent), desk_(desk), hub_(hub), log_(log) {
  connect(&hub_, &InstrumentHub::measured, this, &LogRecording::measured);
}

bool LogRecording::on() const { return log_.recording(); }

void LogRecording::set_on(bool on) {
  if (on == this->on()) return;
  if (!on) {
    log_.stop();
    return emit changed();
  }
  if (hub_.channel(Measures::Light).state == LinkState::Off && hub_.channel(Measures::Power).state == LinkState::Off)
    return desk_.warn(
        tr("No instrument is connected, so there is nothing to record. Ctrl+I connects one; or type what "
           "the meters show."));
  const bool simulated = hub_.computed(Measures::Light) || hub_.computed(Measures::Power);
  last_s_ = 0;
  light_ = watts_ = {};
  wall_ = {};
  if (!log_.start(simulated ? "simulated" : "live"))
    desk_.warn(tr("Nothing can be recorded here: %1.").arg(text_of(desk_.book().why_read_only())));
  emit changed();
}

void LogRecording::set_light_counts(bool counts) {
  light_counts_ = counts;
  light_ = {};
  emit changed();
}

void LogRecording::measured(Measures what, const Measurement& m) {
  if (!on()) return;
  if (what == Measures::Light && light_counts_) light_.add(m.value);
  if (what == Measures::Power) watts_.add(m.value), wall_ = m.wall;
  const double now = desk_.clock().now_s();
  // A sample waits for both, where both are there.
  const bool waits = (light_counts_ && light_.count == 0 && hub_.channel(Measures::Light).live()) ||
                     (watts_.count == 0 && hub_.channel(Measures::Power).live());
  if (now - last_s_ < a_sample_s || waits || light_.count + watts_.count == 0) return;
  last_s_ = now;
  record::LogSample sample;
  sample.time_s = std::round(now * 1000) / 1000;
  const auto kept = [](double v) { return std::round(v * 1000) / 1000; };
  const auto known = [](double v) { return v > 0 ? v : record::LogSample::missing; };
  sample.light_raw = kept(light_.take());
  if (watts_.count > 0) {
    sample.power_w = kept(watts_.take());
    sample.voltage_v = known(wall_.volts);
    sample.current_a = known(wall_.amperes);
    sample.apparent_va = known(wall_.volt_amperes);
    sample.power_factor = known(wall_.power_factor);
    sample.frequency_hz = known(wall_.hertz);
  }
  log_.add(sample);
}

}  // namespace sunbreak::desktop
