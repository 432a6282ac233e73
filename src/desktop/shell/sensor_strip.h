#pragma once

#include <QWidget>

class QLabel;
class QTimer;

namespace sunbreak::desktop {

class Desk;

/// The foot of the window, readable from two meters: the last reading and the watts of the chosen sweep, what was just
/// said, and which instruments are connected.
class SensorStrip : public QWidget {
  Q_OBJECT
 public:
  explicit SensorStrip(Desk& desk, QWidget* parent = nullptr);

 private:
  QLabel* add_figure(class QHBoxLayout* row, const QString& name, const QString& unit);
  void refresh();
  void say(const QString& words, bool bad);

  Desk& desk_;
  QLabel *reading_, *watts_, *progress_, *message_, *instruments_;
  QTimer* fade_;
};

}  // namespace sunbreak::desktop
