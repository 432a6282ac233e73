#pragma once

#include "desktop/desk/desk.h"
#include "desktop/desk/stage_view.h"

class QLabel;
class QLineEdit;
class QPushButton;

namespace sunbreak::desktop {

class InstrumentHub;

class ShelfList;
class TestCards;

/// Home: the lab book. Its tests as cards, search, a new test, a plan duplicated; the shelf beside them.
class HomeView : public StageView {
  Q_OBJECT
 public:
  HomeView(Desk& desk, InstrumentHub& hub, QWidget* parent = nullptr);
  void arrive() override;
  bool take_keyboard() override;
  std::vector<KeyHint> keys() const override;
  /// Makes a new test and asks for it to be opened on Rig.
  void start_test();

 signals:
  void open(sunbreak::record::Id test_id, std::optional<sunbreak::desktop::Stage> stage);
  void wants_package();

 private:
  void refresh();
  void duplicate();
  void remove();

  Desk& desk_;
  ShelfList* shelf_;
  TestCards* cards_;
  QLineEdit* search_;
  QLabel* empty_;
  QPushButton *duplicate_, *new_;
};

}  // namespace sunbreak::desktop
