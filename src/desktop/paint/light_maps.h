#pragma once

#include <QPixmap>
#include <QString>
#include <QWidget>
#include <optional>
#include <vector>

#include "drawing/map_drawing.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::desktop {

class Desk;

/// One map of a row of maps.
struct RowMap {
  QString title, foot;
  Layout layout;
  std::vector<double> values;
  drawing::ValueScale scale;
  drawing::ValueText text;
  std::optional<Band> band{};  ///< hatched below, dotted above
  bool predicted = false;      ///< in a dashed frame
};

/// Maps side by side, each with its title over it and a line under it. Dense ones are painted one after another, as
/// long as a frame has time, and kept.
class LightMaps : public QWidget {
 public:
  explicit LightMaps(Desk& desk, QWidget* parent = nullptr);
  void show_maps(std::vector<RowMap> maps);
  QSize sizeHint() const override { return {600, 250}; }

 protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent* event) override;
  void changeEvent(QEvent* event) override;

 private:
  void paint_one(QPainter& p, const RowMap& map, const QRectF& room) const;
  Desk& desk_;
  std::vector<RowMap> maps_;
  std::vector<QPixmap> painted_;  ///< one a map; null where it is still to be painted
};

}  // namespace sunbreak::desktop
