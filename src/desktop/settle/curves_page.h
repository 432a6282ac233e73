#pragma once

#include <QWidget>

#include "desktop/settle/settle_work.h"

class QComboBox;
class QLabel;

namespace sunbreak::desktop {

class CurveChart;

/// A figure against height at the point's setting, and against the setting at its height.
class CurvesPage : public QWidget {
 public:
  CurvesPage(Desk& desk, SettleWork& work, QWidget* parent = nullptr);
  void refresh();

 private:
  Desk& desk_;
  SettleWork& work_;
  QComboBox* figure_;
  CurveChart *by_height_, *by_setting_;
  QLabel* words_;
};

}  // namespace sunbreak::desktop
