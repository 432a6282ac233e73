#pragma once

#include <QWidget>

namespace sunbreak::desktop {

class Desk;

/// The bench from above, to scale: footprint, walls, door, the fixture's outline and the planned stations in walk
/// order.
class PlanDrawing : public QWidget {
  Q_OBJECT
 public:
  explicit PlanDrawing(Desk& desk, QWidget* parent = nullptr);

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  Desk& desk_;
};

}  // namespace sunbreak::desktop
