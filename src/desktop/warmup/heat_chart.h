#pragma once

#include <QWidget>
#include <vector>

#include "evaluation/heat_by_state.h"

namespace sunbreak::desktop {

/// Temperatures against the time since switch-on: a line a place, each reading a mark, with the limit of surfaces.
class HeatChart : public QWidget {
 public:
  explicit HeatChart(QWidget* parent = nullptr);
  void show_heat(std::vector<evaluation::HeatRow> rows, std::optional<double> limit_c, UnitSystem units);
  /// Whether there is anything to draw: two readings at least, of a known time.
  bool worth_showing() const;

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  std::vector<evaluation::HeatRow> rows_;
  std::optional<double> limit_c_;
  UnitSystem units_ = UnitSystem::Metric;
};

}  // namespace sunbreak::desktop
