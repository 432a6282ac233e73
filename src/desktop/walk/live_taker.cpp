#include "desktop/walk/live_taker.h"

#include <QSettings>
#include <algorithm>

#include "desktop/instruments/instrument_hub.h"

namespace sunbreak::desktop {

using instruments::LinkState;
using instruments::Measurement;
using instruments::Measures;

HoldRule hold_rule() {
  const QSettings settings;
  HoldRule rule;
  rule.tolerance = std::clamp(settings.value("walk/tolerance", rule.tolerance).toDouble(), 0.001, 0.2);
  rule.hold_s = std::clamp(settings.value("walk/hold_s", rule.hold_s).toDouble(), 0.05, 60.0);
  return rule;
}

void set_hold_rule(const HoldRule& rule) {
  QSettings().setValue("walk/tolerance", rule.tolerance);
  QSettings().setValue("walk/hold_s", rule.hold_s);
}

LiveTaker::LiveTaker(InstrumentHub& hub, QObject* parent) : QObject(parent), hub_(hub) {
  connect(&hub_, &InstrumentHub::measured, this, [this](Measures what, const Measurement& m) {
    if (what == Measures::Light) measured(m);
  });
  connect(&hub_, &InstrumentHub::carriage_arrived, this, [this] {
    traveling_ = false;
    skip_next_ = true;  // it may have been asked for on the way
    detector_.moved();
    emit changed();
  });
  connect(&hub_, &InstrumentHub::carriage_refused, this, [this](const QPointF& place_m) {
    traveling_ = false;
    if (hands_free_) emit cannot_reach(place_m);
  });
  connect(&hub_, &InstrumentHub::changed, this, [this] {
    if (hands_free_ || gathering_) emit changed();
  });
}

void LiveTaker::set_samples(int samples) { samples_ = std::max(samples, 1); }

void LiveTaker::restart_rule() {
  HoldRule rule = hold_rule();
  rule.samples = std::max(samples_, 2);
  detector_ = HoldDetector(rule);
}

bool LiveTaker::take() {
  const Channel& light = hub_.channel(Measures::Light);
  if (!light.live()) return false;
  gathered_ = {*light.live()};
  gathering_ = true;
  if (samples_ > 1) {
    emit changed();
    return true;
  }
  gathering_ = false;
  emit taken(averaged(gathered_));
  return true;
}

void LiveTaker::set_hands_free(bool on) {
  hands_free_ = on;
  gathering_ = traveling_ = false;
  restart_rule();
  emit changed();
}

void LiveTaker::aim(const QPointF& place_m, bool again) {
  gathering_ = false;
  if (!hands_free_) return;
  if (hub_.carriage_state() == LinkState::Off) {
    if (again) detector_.moved();
    return;
  }
  traveling_ = true;
  detector_.on_its_way();
  hub_.send_carriage(place_m);
  emit changed();
}

void LiveTaker::measured(const Measurement& m) {
  if (gathering_) {
    gathered_.push_back(m.value);
    if (static_cast<int>(gathered_.size()) >= samples_) {
      gathering_ = false;
      emit taken(averaged(gathered_));
    }
    return emit changed();
  }
  if (!hands_free_ || traveling_ || std::exchange(skip_next_, false)) return;
  const auto held = detector_.feed(static_cast<double>(m.at_ms) / 1000, m.value);
  if (held) emit taken(*held);
  emit changed();
}

QString LiveTaker::doing() const {
  if (!hands_free_ && !gathering_) return {};
  const Channel& light = hub_.channel(Measures::Light);
  if (light.state == LinkState::Off) return tr("No sensor is connected: Ctrl+I connects one.");
  if (!light.live()) return tr("The sensor is silent; nothing is taken until it speaks again.");
  if (gathering_) return tr("%1 of %2 values").arg(gathered_.size()).arg(samples_);
  if (hub_.carriage_state() != LinkState::Off && hub_.carriage_state() != LinkState::Live)
    return tr("The carriage is silent; waiting for it.");
  if (traveling_) return tr("The carriage is on its way.");
  if (detector_.waiting_for_move()) return tr("Move the sensor to the station.");
  return tr("Holding still…");
}

double LiveTaker::progress() const {
  if (gathering_) return static_cast<double>(gathered_.size()) / samples_;
  return hands_free_ ? detector_.progress() : 0;
}

}  // namespace sunbreak::desktop
