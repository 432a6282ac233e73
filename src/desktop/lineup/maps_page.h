#pragma once

#include <vector>

#include "desktop/lineup/lineup_page.h"

class QLabel;

namespace sunbreak::desktop {

class LightMaps;

/// Maps of all side by side on one light scale.
class MapsPage : public LineUpPage {
 public:
  explicit MapsPage(Desk& desk, QWidget* parent = nullptr);
  void show_scene(const LineUpScene& scene) override;
  bool turn(int by) override;

 private:
  void show_part();
  LineUpScene scene_;
  int first_ = 0;
  std::vector<LightMaps*> rows_;
  QLabel* words_;
};

}  // namespace sunbreak::desktop
