#pragma once

#include <QObject>

#include "instruments/instrument.h"

namespace sunbreak::desktop {

class Desk;
class InstrumentHub;
class TestLog;

/// Makes log samples of what the instruments show: one a second of bench time, the mean of what came since the last.
/// Light counts only while the sensor stands at the reference station; away from it, only watts are recorded.
class LogRecording : public QObject {
  Q_OBJECT
 public:
  LogRecording(Desk& desk, InstrumentHub& hub, TestLog& log, QObject* parent = nullptr);

  bool on() const;
  /// Says so and stays off where no instrument is connected.
  void set_on(bool on);
  bool light_counts() const { return light_counts_; }
  void set_light_counts(bool counts);

 signals:
  void changed();

 private:
  struct Mean {
    double sum = 0;
    int count = 0;
    void add(double v) { sum += v, ++count; }
    double take() {
      const double mean = sum / count;  // NaN where nothing came
      *this = {};
      return mean;
    }
  };
  void measured(instruments::Measures what, const instruments::Measurement& m);

  Desk& desk_;
  InstrumentHub& hub_;
  TestLog& log_;
  bool light_counts_ = true;
  double last_s_ = 0;
  Mean light_, watts_;
  instruments::WallValues wall_;
};

}  // namespace sunbreak::desktop
