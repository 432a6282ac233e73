#pragma once

#include <QObject>
#include <QPointF>
#include <QTimer>
#include <deque>
#include <functional>
#include <optional>

#include "core/checks/longer_look.h"
#include "core/walk/hold.h"
#include "instruments/instrument.h"

namespace sunbreak::desktop {

class InstrumentHub;

/// Makes readings of the live value: at once or as a mean of several when asked (Space), or hands-free whenever the
/// value holds still at a new station. A connected carriage brings the sensor there first.
class LiveTaker : public QObject {
  Q_OBJECT
 public:
  explicit LiveTaker(InstrumentHub& hub, QObject* parent = nullptr);

  /// How many values make a reading, and when a value counts as held (the latter as set in the settings).
  void set_samples(int samples);
  using Answer = std::function<void(const std::optional<LongerLook>&)>;
  /// Asked of each value before it is taken: whether more are to be averaged into it. The answer may come later; what
  /// is measured meanwhile is let pass.
  void set_longer_look(std::function<void(const HeldValue&, const Answer&)> ask) { longer_look_ = std::move(ask); }
  /// How long it waits for the next value of a longer look; a sensor that speaks seldom is not waited for.
  void set_patience_ms(int ms) { patience_.setInterval(ms); }

  /// Takes the live value as soon as there are enough of it; while one is looked at longer, takes that as it is. False
  /// where there is none.
  bool take();

  bool hands_free() const { return hands_free_; }
  void set_hands_free(bool on);
  /// The place of the next station [m]. `again` re-reads where the sensor stands.
  void aim(const QPointF& place_m, bool again = false);

  /// What it is doing at this moment, in words; empty where nothing.
  QString doing() const;
  /// Share of the hold or of the samples, 0 to 1.
  double progress() const;

 signals:
  void taken(const sunbreak::HeldValue& value);
  /// Something moved on: the words or the progress are other ones.
  void changed();
  void cannot_reach(const QPointF& place_m);

 private:
  void measured(const instruments::Measurement& m);
  void restart_rule();
  /// Takes the value, or looks longer where that is called for.
  void settle_on(const HeldValue& value);
  void answered(HeldValue value, const std::optional<LongerLook>& look);
  void drop_question();
  void look_longer_at(double value);
  void end_longer_look();

  InstrumentHub& hub_;
  HoldDetector detector_;
  std::deque<double> gathered_;
  int samples_ = 1;
  bool hands_free_ = false, gathering_ = false, traveling_ = false, skip_next_ = false;
  std::function<void(const HeldValue&, const Answer&)> longer_look_;
  std::optional<HeldValue> asked_of_;  ///< until it is known whether it is looked at longer
  int question_ = 0;
  std::optional<HeldValue> in_doubt_;  ///< so far, while it is looked at longer
  LongerLook look_;                    ///< at it
  QTimer patience_;
};

/// The rule of hands-free reading as the user set it.
HoldRule hold_rule();
void set_hold_rule(const HoldRule& rule);

/// Whether live values that cannot be trusted at the first look are looked at longer, as the user set it.
bool looks_longer();
void set_looks_longer(bool on);

}  // namespace sunbreak::desktop
