#pragma once

#include "desktop/lineup/lineup_page.h"

class QLabel;

namespace sunbreak::desktop {

class DrawnWidget;

/// Profiles through the middle, and the area at or above each PPFD, over each other.
class CurvesOverPage : public LineUpPage {
 public:
  explicit CurvesOverPage(Desk& desk, QWidget* parent = nullptr);
  void show_scene(const LineUpScene& scene) override;

 private:
  DrawnWidget *profiles_, *areas_;
  QLabel* words_;
};

}  // namespace sunbreak::desktop
