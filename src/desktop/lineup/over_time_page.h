#pragma once

#include "desktop/lineup/lineup_page.h"

class QLabel;

namespace sunbreak::desktop {

class DrawnWidget;

/// Retests of one unit over the years.
class OverTimePage : public LineUpPage {
 public:
  explicit OverTimePage(Desk& desk, QWidget* parent = nullptr);
  void show_scene(const LineUpScene& scene) override;

 private:
  DrawnWidget* chart_;
  QLabel* words_;
};

}  // namespace sunbreak::desktop
