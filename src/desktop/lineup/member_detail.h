#pragma once

#include "desktop/lineup/lineup_page.h"

class QLabel;

namespace sunbreak::desktop {

class FiguresTable;

/// All that is to be said of the one that is chosen, and of it beside the second.
class MemberDetail : public LineUpPage {
 public:
  explicit MemberDetail(Desk& desk, QWidget* parent = nullptr);
  void show_scene(const LineUpScene& scene) override;

 private:
  QLabel *head_, *words_;
  FiguresTable* figures_;
};

}  // namespace sunbreak::desktop
