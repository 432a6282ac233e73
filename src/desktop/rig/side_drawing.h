#pragma once

#include <QWidget>
#include <optional>

#include "evaluation/sweep_view.h"

namespace sunbreak::desktop {

class Desk;

/// The bench from the side, to scale: the units of the fixture with their tilt, the planned heights, the sensor and how
/// near it gets to the walls, the pretend canopy. A height can be dragged with the mouse, or moved with Up and Down,
/// by whole centimeters (Left and Right choose one).
class SideDrawing : public QWidget {
  Q_OBJECT
 public:
  explicit SideDrawing(Desk& desk, QWidget* parent = nullptr);
  /// Draws another test than the one on the desk: what it would be if what is being typed were kept.
  void set_draft(std::optional<record::TestRecord> draft);

 signals:
  /// A height was moved; the plan's list is to be this [m].
  void heights_wanted(const std::vector<double>& heights_m);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  struct Fit {
    QRectF box;  ///< the bench's inside
    double scale = 1;
    double y(double height_m) const { return box.bottom() - height_m * scale; }
  };
  const record::TestRecord* test() const;
  Fit fit() const;
  std::vector<double> heights() const;
  int rung_near(const QPointF& place) const;
  void move_rung(int rung, double height_m);
  void draw_room(QPainter& p, const Fit& f) const;
  void draw_fixture(QPainter& p, const Fit& f, double height_m) const;
  void draw_rungs(QPainter& p, const Fit& f) const;
  void draw_sensor(QPainter& p, const Fit& f) const;
  void describe();

  Desk& desk_;
  std::optional<record::TestRecord> draft_;
  std::optional<std::vector<double>> dragged_m_;
  int chosen_ = 0;
  bool dragging_ = false;
};

}  // namespace sunbreak::desktop
