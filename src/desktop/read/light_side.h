#pragma once

#include <QWidget>

namespace sunbreak::desktop {

class Desk;

/// The bench from the side with the fixture as it was found to hang, and its beam as a thin rose about each unit: how
/// far off the middle and off level, larger than life where that would not be seen.
class LightSide : public QWidget {
 public:
  explicit LightSide(Desk& desk, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {300, 260}; }

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  Desk& desk_;
};

}  // namespace sunbreak::desktop
