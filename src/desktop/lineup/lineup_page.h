#pragma once

#include <QWidget>
#include <memory>

#include "desktop/lineup/lineup_work.h"

class QVBoxLayout;

namespace sunbreak::desktop {

/// Who is chosen in a line-up; −1 for none.
struct ChosenTwo {
  int first = -1, second = -1;
};

/// What a page of Line-up is shown: the line-up, who is chosen, and everyone in the order they stand in.
struct LineUpScene {
  std::shared_ptr<const ShownLineUp> shown;
  ChosenTwo chosen;
  std::vector<int> order;
};

/// A page of the stage beside the strip.
class LineUpPage : public QWidget {
 public:
  explicit LineUpPage(Desk& desk, QWidget* parent = nullptr);
  virtual void show_scene(const LineUpScene& scene) = 0;
  /// A page up or down of what it shows; false where it has no pages.
  virtual bool turn(int /*by*/) { return false; }

 protected:
  /// The column that a page which fills the stage puts its parts into.
  QVBoxLayout* whole_column();

  Desk& desk_;
};

}  // namespace sunbreak::desktop
