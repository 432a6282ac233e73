#pragma once

#include <QDialog>
#include <optional>

#include "core/walk/stair_course.h"
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
  std::optional<double> asked_for() const { return course_ ? course_->setting_pct() : std::nullopt; }
  bool waits_for_setting() const { return course_ && course_->phase() == Phase::Set; }

 private:
  using Phase = StairCourse::Phase;

  void build();
  QLineEdit* add_value(class QHBoxLayout* row, const QString& name, const QString& unit, const char* object);
  void go_on();
  bool read_plan();
  void set_dial();
  void measured(instruments::Measures what, const instruments::Measurement& m);
  /// The course went on: shows where it stands, or keeps the setting that is read.
  void follow_course();
  void aim();
  void keep_stop();
  void describe();
  std::optional<double> live(instruments::Measures what) const;

  Desk& desk_;
  InstrumentHub& hub_;
  std::optional<StairCourse> course_;  ///< none while it is planned
  int kept_ = 0;

  QLineEdit *plan_, *watts_, *light_;
  QComboBox* where_;
  QLabel *title_, *doing_, *problem_;
  QProgressBar* progress_;
  QPushButton *next_, *skip_;
};

}  // namespace sunbreak::desktop
