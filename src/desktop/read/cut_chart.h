#pragma once

#include <QWidget>
#include <optional>

#include "core/figures/coverage.h"
#include "core/quantity/display.h"
#include "core/sweep/cut.h"
#include "drawing/value_scale.h"

namespace sunbreak::desktop {

/// The values along a cut, from A to B, with the band's ends as dashed lines; the pointer reads a place off it.
class CutChart : public QWidget {
  Q_OBJECT
 public:
  explicit CutChart(QWidget* parent = nullptr);
  void show_cut(Cut cut, const drawing::ValueText& text, const std::optional<Band>& band, UnitSystem units);
  /// Mean, lowest and highest in words.
  QString words() const;

 protected:
  void paintEvent(QPaintEvent*) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void leaveEvent(QEvent*) override;

 private:
  QRectF plot() const;
  Cut cut_;
  drawing::ValueText text_;
  drawing::ScaleRange range_;
  std::optional<Band> band_;
  UnitSystem units_ = UnitSystem::Metric;
  std::optional<double> pointed_m_;
};

}  // namespace sunbreak::desktop
