#pragma once

#include <QDialog>
#include <optional>

#include "evaluation/check_lamps.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;

namespace sunbreak::desktop {

class Desk;
class DrawnWidget;
class InstrumentHub;

/// The check lamps of this lab book: today's reading, the chart of each lamp by each sensor, who has moved, and the
/// correction that follows from it for the tests since.
class CheckLampDialog : public QDialog {
 public:
  CheckLampDialog(Desk& desk, InstrumentHub& hub, QWidget* parent = nullptr);

 private:
  void build();
  QWidget* build_reading();
  void refresh();
  void show_chart();
  void keep();
  void bring_in();
  void take_live();
  void show_live();
  void correct();
  const LampFinding* finding_of(const LampChart& chart) const;
  const LampChart* chosen() const;

  Desk& desk_;
  InstrumentHub& hub_;
  QListWidget* charts_;
  DrawnWidget* picture_;
  QLabel *told_, *problem_;
  QComboBox *lamp_, *meter_;
  QLineEdit *center_, *left_, *right_, *watts_;
  QPushButton *keep_, *live_, *bring_, *correct_;
  evaluation::LampBoard board_;
  bool live_read_ = false, simulated_ = false;
};

}  // namespace sunbreak::desktop
