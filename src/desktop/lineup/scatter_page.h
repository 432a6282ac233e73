#pragma once

#include "desktop/lineup/lineup_page.h"

class QComboBox;
class QLabel;

namespace sunbreak::desktop {

class DrawnWidget;

/// Any two figures against each other, with the frontier.
class ScatterPage : public LineUpPage {
 public:
  explicit ScatterPage(Desk& desk, QWidget* parent = nullptr);
  void show_scene(const LineUpScene& scene) override;

 private:
  void draw();
  LineUpScene scene_;
  QComboBox *x_, *y_;
  DrawnWidget* chart_;
  QLabel* words_;
};

}  // namespace sunbreak::desktop
