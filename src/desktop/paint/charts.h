#pragma once

#include <QWidget>
#include <optional>

#include "core/figures/area_curve.h"
#include "core/figures/coverage.h"
#include "core/figures/rings.h"
#include "core/quantity/display.h"
#include "drawing/light_scale.h"

namespace sunbreak::desktop {

/// Mean of each ring as bars, wall first, with the band's low end as a dashed line.
class RingsChart : public QWidget {
 public:
  explicit RingsChart(QWidget* parent = nullptr);
  void show_rings(std::vector<Ring> rings, const drawing::ScaleRange& range, const std::optional<Band>& band,
                  UnitSystem units, double photoperiod_h);

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  std::vector<Ring> rings_;
  drawing::ScaleRange range_;
  std::optional<Band> band_;
  UnitSystem units_ = UnitSystem::Metric;
  double photoperiod_h_ = 12;
};

/// Area at or above each PPFD as a line; the pointer, or else the band's low end, reads a point off it.
class AreaCurveChart : public QWidget {
 public:
  explicit AreaCurveChart(QWidget* parent = nullptr);
  void show_curve(std::optional<AreaCurve> curve, double area_m2, double highest_ppfd, const std::optional<Band>& band,
                  UnitSystem units);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void leaveEvent(QEvent*) override;

 private:
  std::optional<AreaCurve> curve_;
  double area_m2_ = 1;
  drawing::ScaleRange range_;
  std::optional<Band> band_;
  UnitSystem units_ = UnitSystem::Metric;
  std::optional<double> pointed_;
};

}  // namespace sunbreak::desktop
