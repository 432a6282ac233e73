#pragma once

#include <QWidget>
#include <optional>

#include "desktop/paint/map_fit.h"
#include "desktop/rig/plan_handles.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::desktop {

class Desk;

/// The bench from above, to scale: footprint, walls, door, the units of the fixture, nominal footprints, how near
/// the sensor gets to the walls, and the planned stations in walk order. The outer stations, loose spots, and the
/// fixture's sides and spacing can be dragged with the mouse, or chosen with Space and moved with the arrows, by whole
/// centimeters.
class PlanDrawing : public QWidget {
  Q_OBJECT
 public:
  explicit PlanDrawing(Desk& desk, QWidget* parent = nullptr);
  /// Draws another test than the one on the desk: what it would be if what is being typed were kept.
  void set_draft(std::optional<record::TestRecord> draft);

 signals:
  /// Something is being dragged: what the plan would be.
  void dragged(const record::TestRecord& draft);
  /// Something was moved; the plan is to be this, as far as the handle goes.
  void moved_to(const record::TestRecord& wanted, const PlanHandle& handle);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  const record::TestRecord* test() const;
  MapFit fit(const Footprint& floor) const;
  std::optional<PlanHandle> chosen() const;
  void choose(int handle);
  void describe();
  void draw_units(QPainter& p, const MapFit& fit) const;
  void draw_floor(QPainter& p, const MapFit& fit, const Footprint& floor) const;
  void draw_walk(QPainter& p, const MapFit& fit, const Layout& layout) const;
  void draw_chosen(QPainter& p, const MapFit& fit, const Layout& layout) const;

  Desk& desk_;
  std::optional<record::TestRecord> draft_;
  int chosen_ = -1;
  bool dragging_ = false, dragged_ = false;
};

}  // namespace sunbreak::desktop
