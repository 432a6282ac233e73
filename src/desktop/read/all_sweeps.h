#pragma once

#include <QElapsedTimer>
#include <QPixmap>
#include <QWidget>
#include <map>
#include <memory>

#include "desktop/desk/desk.h"
#include "desktop/paint/map_fit.h"
#include "desktop/read/map_settings.h"
#include "desktop/read/shown_values.h"
#include "desktop/theme/theme.h"

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
  /// A map as it is on the screen, and what it was painted of.
  struct PaintedMap {
    std::shared_ptr<const evaluation::SweepView> view;
    ShownValues shown;
    QSizeF size;
    Look look = Look::Paper;
    QPixmap pixels;
  };
  QRectF cell(const QRectF& room, int rung, int stop) const;
  void paint_all(QPainter& p, const QRectF& room, bool in_vectors, bool on_screen) const;
  QString evenness_words(const evaluation::SweepDigest& digest) const;
  void paint_map_of(QPainter& p, const MapFit& fit, const evaluation::SweepView& view, const ShownValues& shown,
                    bool in_vectors) const;
  bool paint_from_store(QPainter& p, const MapFit& fit, record::Id sweep_id, const ShownValues& shown) const;

  Desk& desk_;
  const MapSettings& settings_;
  mutable std::map<record::Id, PaintedMap> store_;
  mutable QElapsedTimer painting_;  ///< since the frame was begun
};

}  // namespace sunbreak::desktop
