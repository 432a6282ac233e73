#include "desktop/walk/live_taker.h"

#include <QSettings>
#include <algorithm>
#include <cmath>

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

bool looks_longer() { return QSettings().value("walk/look_longer", true).toBool(); }

void set_looks_longer(bool on) { QSettings().setValue("walk/look_longer", on); }

LiveTaker::LiveTaker(InstrumentHub& hub, QObject* parent) : QObject(parent), hub_(hub) {
  patience_.setSingleShot(true);
  patience_.setInterval(2000);
  connect(&patience_, &QTimer::timeout, this, &LiveTaker::end_longer_look);
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
    if (!hub_.channel(Measures::Light).live()) end_longer_look();
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
  if (in_doubt_) return end_longer_look(), true;
  if (asked_of_) return answered(*asked_of_, {}), true;
  const Channel& light = hub_.channel(Measures::Light);
  if (!light.live()) return false;
  gathered_ = {*light.live()};
  gathering_ = samples_ > 1;
  if (gathering_)
    emit changed();
  else
    settle_on(averaged(gathered_));
  return true;
}

void LiveTaker::settle_on(const HeldValue& value) {
  if (!longer_look_ || !looks_longer()) return emit taken(value);
  asked_of_ = value;
  longer_look_(value, [this, value, question = ++question_](const std::optional<LongerLook>& look) {
    if (asked_of_ && question == question_) answered(value, look);
  });
}

void LiveTaker::drop_question() {
  asked_of_.reset();
  ++question_;
}

void LiveTaker::answered(HeldValue value, const std::optional<LongerLook>& look) {
  drop_question();
  if (!look) return emit taken(value);
  in_doubt_ = value;
  look_ = *look;
  patience_.start();
  emit changed();
}

void LiveTaker::look_longer_at(double value) {
  // Hands-free, a sensor that leaves the place ends the look.
  if (hands_free_ && detector_.waiting_for_move() && !detector_.at_the_taken(value)) return end_longer_look();
  in_doubt_ = merged(*in_doubt_, {value, 1, 0});
  patience_.start();
  if (in_doubt_->samples >= look_.samples) end_longer_look();
}

void LiveTaker::end_longer_look() {
  if (!in_doubt_) return;
  patience_.stop();
  const HeldValue value = *std::exchange(in_doubt_, std::nullopt);
  emit taken(value);
}

void LiveTaker::set_hands_free(bool on) {
  hands_free_ = on;
  gathering_ = traveling_ = false;
  in_doubt_.reset();
  drop_question();
  restart_rule();
  emit changed();
}

void LiveTaker::aim(const QPointF& place_m, bool again) {
  gathering_ = false;
  in_doubt_.reset();
  drop_question();
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
  if (asked_of_) return;
  if (in_doubt_) {
    look_longer_at(m.value);
    return emit changed();
  }
  if (gathering_) {
    gathered_.push_back(m.value);
    if (static_cast<int>(gathered_.size()) >= samples_) {
      gathering_ = false;
      settle_on(averaged(gathered_));
    }
    return emit changed();
  }
  if (!hands_free_ || traveling_ || std::exchange(skip_next_, false)) return;
  const auto held = detector_.feed(static_cast<double>(m.at_ms) / 1000, m.value);
  if (held) settle_on(*held);
  emit changed();
}

QString LiveTaker::doing() const {
  if (!hands_free_ && !gathering_ && !in_doubt_) return {};
  const Channel& light = hub_.channel(Measures::Light);
  if (light.state == LinkState::Off) return tr("No sensor is connected: Ctrl+I connects one.");
  if (!light.live()) return tr("The sensor is silent; nothing is taken until it speaks again.");
  if (in_doubt_) {
    const QString why = !look_.off ? tr("Too few neighbors to hold it against yet")
                                   : tr("%1 % %2 what its neighbors make likely")
                                         .arg(100 * std::abs(*look_.off), 0, 'f', 0)
                                         .arg(*look_.off < 0 ? tr("under") : tr("over"));
    return tr("%1: looking longer, %2 of %3 values").arg(why).arg(in_doubt_->samples).arg(look_.samples);
  }
  if (gathering_) return tr("%1 of %2 values").arg(gathered_.size()).arg(samples_);
  if (hub_.carriage_state() != LinkState::Off && hub_.carriage_state() != LinkState::Live)
    return tr("The carriage is silent; waiting for it.");
  if (traveling_) return tr("The carriage is on its way.");
  if (detector_.waiting_for_move()) return tr("Move the sensor to the station.");
  return tr("Holding still…");
}

double LiveTaker::progress() const {
  if (in_doubt_) return static_cast<double>(in_doubt_->samples) / look_.samples;
  if (gathering_) return static_cast<double>(gathered_.size()) / samples_;
  return hands_free_ ? detector_.progress() : 0;
}

}  // namespace sunbreak::desktop
