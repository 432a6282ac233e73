#pragma once

#include <QWidget>

namespace sunbreak::desktop {

class Desk;

/// The map of the sweep as it fills, on every stage that shows one; clicking a station tells which.
class SweepMap : public QWidget {
  Q_OBJECT
 public:
  explicit SweepMap(Desk& desk, QWidget* parent = nullptr);
  void set_current(int station);
  void set_band_shown(bool shown);
  void set_numbers(bool numbers);

 signals:
  void picked(int station);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;

 private:
  void describe();
  QString value_words(int station) const;
  std::optional<int> station_at(const QPointF& place) const;

  Desk& desk_;
  int current_ = -1;
  bool band_shown_ = false, numbers_ = true;
};

}  // namespace sunbreak::desktop
