#pragma once

#include <QWidget>
#include <optional>
#include <vector>

namespace sunbreak::desktop {

/// A predicted figure against height or setting, with its band of ±, and what was measured as squares.
class CurveChart : public QWidget {
 public:
  struct Point {
    double x = 0, y = 0, expanded = 0;
  };
  struct Curve {
    QString x_name, y_name;
    std::vector<Point> predicted;
    std::vector<QPointF> measured;
    std::optional<double> here;                     ///< where the point under the hand stands
    std::optional<double> limit;                    ///< a level of y
    std::vector<std::pair<double, QString>> above;  ///< words over places of x, such as watts
  };
  explicit CurveChart(QWidget* parent = nullptr);
  void show_curve(Curve curve);
  QSize sizeHint() const override { return {420, 280}; }

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  Curve curve_;
};

}  // namespace sunbreak::desktop
