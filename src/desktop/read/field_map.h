#pragma once

#include <QPixmap>
#include <QWidget>

#include "desktop/paint/map_fit.h"
#include "desktop/read/map_settings.h"
#include "desktop/read/shown_values.h"

namespace sunbreak::desktop {

/// The map of the chosen sweep on Read: zoomed and moved by wheel, drag and keys; a line drawn on it cuts the field.
/// What takes time is painted once and kept until something changes; pointing at a station only rings it.
class FieldMap : public QWidget {
  Q_OBJECT
 public:
  FieldMap(Desk& desk, MapSettings& settings, QWidget* parent = nullptr);

  /// The settings, the sweep or the look changed: paint anew.
  void renew();
  /// Draws the same map as large as `room`, all of the floor in it; `in_vectors` for pictures without pixels.
  void paint_picture(QPainter& p, const QRectF& room, bool in_vectors) const;

  void zoom_by(double factor, const std::optional<QPointF>& about_m = {});
  void move_by(double right_m, double back_m);
  /// Reads out the station beside the one pointed at.
  void point_beside(int columns, int rows);
  /// Lays a cut across, deep, along each diagonal, and takes it away again.
  void step_cut();
  void move_cut(double right_m, double back_m);
  void turn_cut(double degrees);

 signals:
  void pointed(int station);
  void cut_changed();

 protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void leaveEvent(QEvent*) override;

 private:
  MapFit fit() const;
  bool has_key() const;
  void paint(QPainter& p, const MapFit& fit, bool in_vectors) const;
  void point_at(int station);
  void set_cut(const Place& from, const Place& to);
  void describe();

  Desk& desk_;
  MapSettings& settings_;
  QPixmap painted_;
  bool stale_ = true;
  std::optional<QPointF> dragged_;  ///< where a drag that moves the map was last
  std::optional<Place> cut_from_;   ///< where a cut is being drawn from
  int cut_step_ = 0;
};

}  // namespace sunbreak::desktop
