#pragma once

#include <QWidget>

#include "core/figures/coverage.h"

namespace sunbreak::desktop {

/// The target's band on an axis of PPFD, its ends to be dragged; by keys the low end with the arrows, the high one with
/// Shift.
class BandSlider : public QWidget {
  Q_OBJECT
 public:
  explicit BandSlider(QWidget* parent = nullptr);
  void show_band(const Band& band, double highest_ppfd);
  QSize sizeHint() const override { return {240, 34}; }

 signals:
  void dragged(double low_ppfd, double high_ppfd);
  void chosen(double low_ppfd, double high_ppfd);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  double x_of(double ppfd) const;
  double ppfd_of(double x) const;
  void move_end(bool high, double ppfd);

  Band band_;
  double highest_ppfd_ = 1000;
  enum { Nothing, Low, High } held_ = Nothing;
};

}  // namespace sunbreak::desktop
