#pragma once

#include <QTimer>

#include "desktop/desk/stage_view.h"

class QLabel;
class QPushButton;

namespace sunbreak::desktop {

class CostPanel;
class Desk;
class InstrumentHub;
class LogRecording;
class StairPanel;
class TemperaturePanel;
class TestLog;
class TraceChart;
class WallForm;

/// Warm-up: light and watts from switch-on until they hold still, with the verdict in words; then the dimmer's stair,
/// temperatures, cost and heat.
class WarmUpView : public StageView {
 public:
  WarmUpView(Desk& desk, InstrumentHub& hub, TestLog& log, QWidget* parent = nullptr);
  void arrive() override;
  std::vector<KeyHint> keys() const override;
  QString copy() override;
  bool take_table(const std::string& bytes, const QString& origin, const std::string& source) override;

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  QWidget* build_head();
  QWidget* build_lower();
  void refresh();
  void refresh_traces();
  void refresh_verdict();
  QString words_when_off() const;
  void mark_lamp(const char* kind);
  void toggle_recording();
  void run_stair();
  void find_target();
  void bring_sensor_back();

  Desk& desk_;
  InstrumentHub& hub_;
  TestLog& log_;
  LogRecording* recording_;
  TraceChart* traces_;
  WallForm* form_;
  StairPanel* stair_;
  TemperaturePanel* temperatures_;
  QLabel *verdict_, *detail_, *clock_;
  QPushButton *record_, *lamp_, *back_;
  QTimer tick_;
};

}  // namespace sunbreak::desktop
