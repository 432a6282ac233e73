#pragma once

#include <QWidget>

#include "desktop/desk/desk.h"
#include "desktop/read/map_settings.h"

namespace sunbreak::desktop {

/// Every sweep of the test on one page, heights down and dimmer settings across, colored by one scale: which sweep to
/// look at, and what height and dimmer do. Arrow keys move, Enter opens.
class AllSweeps : public QWidget {
  Q_OBJECT
 public:
  AllSweeps(Desk& desk, const MapSettings& settings, QWidget* parent = nullptr);
  void paint_page(QPainter& p, const QRectF& room, bool in_vectors) const;

 signals:
  void opened();

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  QRectF cell(const QRectF& room, int rung, int stop) const;

  Desk& desk_;
  const MapSettings& settings_;
};

}  // namespace sunbreak::desktop
