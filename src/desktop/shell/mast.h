#pragma once

#include <QWidget>

#include "record/test_record.h"

namespace sunbreak::desktop {

class Desk;

/// The bench of the test seen from the side, to scale: the fixture hanging at the chosen height, a rung for each
/// planned one, and beside each a mark for each dimmer setting that tells how far its sweep is. Also the way from sweep
/// to sweep.
class Mast : public QWidget {
  Q_OBJECT
 public:
  explicit Mast(Desk& desk, QWidget* parent = nullptr);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  struct Spot {
    QRectF place;
    record::Id rung_id, stop_id;
  };
  void draw_header(QPainter& p) const;
  void draw_bench(QPainter& p, const QRectF& box, double scale);
  void draw_fixture(QPainter& p, const QRectF& box, double scale, double lamp_y) const;
  void draw_sweep_mark(QPainter& p, const QRectF& square, record::Id rung_id, record::Id stop_id,
                       const QColor& color) const;
  std::vector<double> label_places(double floor_y, double scale) const;
  void draw_between(QPainter& p, const QRectF& box, double scale);
  void draw_stops(QPainter& p);
  void describe();

  Desk& desk_;
  std::vector<Spot> spots_;
  QRectF bench_;  ///< as it was drawn
  double scale_ = 1;
};

}  // namespace sunbreak::desktop
