#pragma once

#include "desktop/shell/desk.h"
#include "desktop/shell/stage_view.h"

class QLabel;

namespace sunbreak::desktop {

class FiguresColumn;
class SweepMap;

/// Read: the map of the chosen sweep and every figure that is worked out from it.
class ReadView : public StageView {
  Q_OBJECT
 public:
  explicit ReadView(Desk& desk, QWidget* parent = nullptr);
  void arrive() override;
  std::vector<KeyHint> keys() const override;
  bool copy() override;

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void refresh();

  Desk& desk_;
  SweepMap* map_;
  FiguresColumn* figures_;
  QLabel *title_, *state_;
  bool numbers_ = true;
};

}  // namespace sunbreak::desktop
