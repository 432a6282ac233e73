#pragma once

#include <QWidget>
#include <vector>

#include "core/quantity/display.h"
#include "evaluation/retest.h"

namespace sunbreak::desktop {

/// How light, watts and light per watt changed, sweep by sweep, on one axis of percent: a tick at each change, a bar as
/// long as its ±.
class ChangeChart : public QWidget {
 public:
  explicit ChangeChart(QWidget* parent = nullptr);
  void show_changes(std::vector<evaluation::RetestedSweep> sweeps, UnitSystem units);

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  std::vector<evaluation::RetestedSweep> sweeps_;
  UnitSystem units_ = UnitSystem::Metric;
};

}  // namespace sunbreak::desktop
