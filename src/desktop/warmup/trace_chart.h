#pragma once

#include <QWidget>
#include <functional>
#include <optional>
#include <span>
#include <vector>

#include "core/power/thinned.h"
#include "core/power/timed_value.h"

namespace sunbreak::desktop {

/// A stretch of time marked on the traces: a sweep that was walked.
struct TraceBand {
  double from_s = 0, to_s = 0;
  QString name;
  bool stabilized = false;
};

/// A moment marked on the traces: switched on, off, dimmed, stabilized.
struct TraceMark {
  double at_s = 0;
  QString name;
  bool good = false;
};

/// Light and watts against time, one above the other. Wheel, drag and keys zoom and pan; every spike stays visible
/// however much is shown.
class TraceChart : public QWidget {
  Q_OBJECT
 public:
  explicit TraceChart(QWidget* parent = nullptr);

  /// The spans must live until the next call. `zero_s` is where the time axis counts from.
  void show_log(std::span<const TimedValue> light, std::span<const TimedValue> watts, double zero_s);
  void show_marks(std::vector<TraceBand> bands, std::vector<TraceMark> marks);

  /// What is in view [s]; the whole log until someone zooms.
  double zero_s() const { return zero_s_; }
  double from_s() const { return from_s_; }
  double to_s() const { return to_s_; }
  void view(double from_s, double to_s);
  void view_all();

 protected:
  void paintEvent(QPaintEvent*) override;
  void keyPressEvent(QKeyEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void leaveEvent(QEvent*) override;

 private:
  struct Trace {
    std::span<const TimedValue> log;
    QString name, unit;
    QColor color;
    int decimals;
  };
  QRectF plot(int index) const;
  double x_of(double time_s) const;
  double time_at(double x) const;
  void zoom(double factor, double around_s);
  void draw_trace(QPainter& p, const Trace& trace, const QRectF& box) const;
  void draw_line(QPainter& p, const std::vector<ThinColumn>& columns, const QColor& color,
                 const std::function<double(double)>& y_of) const;
  void draw_time_axis(QPainter& p) const;
  void draw_marks(QPainter& p) const;
  std::pair<double, double> extent() const;
  void describe();

  std::span<const TimedValue> light_, watts_;
  std::vector<TraceBand> bands_;
  std::vector<TraceMark> marks_;
  double zero_s_ = 0, from_s_ = 0, to_s_ = 1;
  bool all_ = true;
  std::optional<double> dragged_x_, pointed_s_;
};

}  // namespace sunbreak::desktop
