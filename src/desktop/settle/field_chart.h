#pragma once

#include <QPixmap>
#include <QWidget>
#include <vector>

#include "desktop/settle/settle_work.h"

namespace sunbreak::desktop {

/// The field of Settle: height across, dimmer up. Hatched where there is too little light for the rule, dotted where
/// there is too much, clean where it is met; faded beyond the measured heights; lines of equal watts, the walked sweeps
/// as squares, the three answers and the point under the hand. Arrows move the point, a click puts it. Y has the
/// watts up in place of the dial.
class FieldChart : public QWidget {
  Q_OBJECT
 public:
  FieldChart(Desk& desk, SettleWork& work, QWidget* parent = nullptr);
  /// Field, request or answers are other ones.
  void renew();
  QSize sizeHint() const override { return {560, 360}; }

 protected:
  void paintEvent(QPaintEvent*) override;
  void keyPressEvent(QKeyEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void changeEvent(QEvent* event) override;

 private:
  QRectF plot() const;
  std::pair<double, double> heights_m() const;
  std::pair<double, double> ups() const;
  /// How far up a setting stands: its place on the dial, or its watts.
  double up_of(const SettleSetting& setting) const;
  double up_at(double percent) const;
  bool watts_known() const;
  QPointF place(double height_m, double percent) const;
  void put_at(const QPointF& place);
  QPixmap painted_field(qreal ratio) const;
  void paint_axes(QPainter& p) const;
  void paint_limits(QPainter& p) const;
  void paint_marks(QPainter& p) const;
  void paint_answers(QPainter& p) const;
  void describe();

  Desk& desk_;
  SettleWork& work_;
  std::vector<ServingMargins> margins_;  ///< a row a height
  bool watts_up_ = false;
  QPixmap field_;
};

}  // namespace sunbreak::desktop
