#pragma once

#include <QWidget>
#include <optional>

#include "book/bundle.h"

namespace sunbreak::desktop {

class Desk;

/// The bench from above, to scale: footprint, walls, door, the units of the fixture, nominal footprints, how near
/// the sensor gets to the walls, and the planned stations in walk order.
class PlanDrawing : public QWidget {
  Q_OBJECT
 public:
  explicit PlanDrawing(Desk& desk, QWidget* parent = nullptr);
  /// Draws another test than the one on the desk: what it would be if what is being typed were kept.
  void set_draft(std::optional<book::TestBundle> draft);

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  Desk& desk_;
  std::optional<book::TestBundle> draft_;
};

}  // namespace sunbreak::desktop
