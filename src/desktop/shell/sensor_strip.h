#pragma once

#include <QWidget>

class QLabel;
class QPushButton;
class QTimer;

namespace sunbreak::desktop {

class Desk;
class InstrumentHub;
class TestLog;

/// The foot of the window, readable from two meters: the last reading and the watts of the chosen sweep, what was just
/// said, and which instruments are connected.
class SensorStrip : public QWidget {
  Q_OBJECT
 public:
  SensorStrip(Desk& desk, InstrumentHub& hub, TestLog& log, QWidget* parent = nullptr);

 signals:
  void wants_instruments();

 private:
  QLabel* add_figure(class QHBoxLayout* row, const QString& name, const QString& unit, QLabel** name_label = nullptr);
  void refresh();
  void say(const QString& words, bool bad);
  void forget();

  void refresh_live();
  void refresh_stabilization();

  Desk& desk_;
  InstrumentHub& hub_;
  TestLog& log_;
  QLabel *reading_name_, *reading_, *watts_name_, *watts_, *progress_, *since_name_, *since_, *message_;
  QPushButton* instruments_;
  QTimer* fade_;
};

}  // namespace sunbreak::desktop
