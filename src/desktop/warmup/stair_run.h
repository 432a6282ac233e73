#pragma once

#include <QDialog>
#include <deque>

#include "core/walk/hold.h"
#include "desktop/desk/desk.h"
#include "instruments/instrument.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QProgressBar;
class QPushButton;

namespace sunbreak::desktop {

class InstrumentHub;

/// The guided walk down a dimmer's stair: set, wait until watts hold, read watts and light, next. Each setting is in
/// the lab book once it is read. Without instruments the two values are typed.
class StairRun : public QDialog {
  Q_OBJECT
 public:
  StairRun(Desk& desk, InstrumentHub& hub, QWidget* parent = nullptr);

  /// The setting asked for now [%]; nothing before the start and after the end.
  std::optional<double> asked_for() const;
  bool waits_for_setting() const { return phase_ == Phase::Set; }

 private:
  enum class Phase { Plan, Set, Watts, Light, Done };

  void build();
  QLineEdit* add_value(class QHBoxLayout* row, const QString& name, const QString& unit, const char* object);
  void go_on();
  bool read_plan();
  void enter(Phase phase);
  void aim();
  void measured(instruments::Measures what, const instruments::Measurement& m);
  void take_watts(double watts, std::optional<double> power_factor);
  void take_light(const HeldValue& light);
  void next_station();
  void keep_stop();
  void describe();
  bool live(instruments::Measures what) const;

  Desk& desk_;
  InstrumentHub& hub_;
  Phase phase_ = Phase::Plan;
  std::vector<double> stops_;
  std::vector<int> stations_;
  std::size_t stop_at_ = 0, station_at_ = 0;
  int kept_ = 0;
  record::StairStop stop_;
  std::vector<record::StairReading> readings_;
  HoldDetector hold_;
  std::deque<double> gathered_;
  bool gathering_ = false;
  int passing_ = 0;  ///< values left to let pass: they may be from before the change

  QLineEdit *plan_, *watts_, *light_;
  QComboBox* where_;
  QLabel *title_, *doing_, *problem_;
  QProgressBar* progress_;
  QPushButton *next_, *skip_;
};

}  // namespace sunbreak::desktop
