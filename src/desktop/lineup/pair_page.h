#pragma once

#include "desktop/lineup/lineup_page.h"

class QLabel;

namespace sunbreak::desktop {

class FiguresTable;
class LightMaps;

/// Two beside each other: their maps, what one has over the other, and a sentence for each figure.
class PairPage : public LineUpPage {
 public:
  explicit PairPage(Desk& desk, QWidget* parent = nullptr);
  void show_scene(const LineUpScene& scene) override;

 private:
  QLabel *head_, *why_not_;
  LightMaps* maps_;
  FiguresTable* table_;
};

}  // namespace sunbreak::desktop
