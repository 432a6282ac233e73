#pragma once

#include <QWidget>

#include "desktop/desk/desk.h"

class QListWidget;

namespace sunbreak::desktop {

class InstrumentHub;

/// The shelf: fixtures, benches and meters that tests draw on. Opening one shows its fields; taking one off is
/// undoable.
class ShelfList : public QWidget {
 public:
  ShelfList(Desk& desk, InstrumentHub& hub, QWidget* parent = nullptr);
  void fill();

 private:
  void open_chosen();
  void take_off();
  void add(const std::string& kind);

  Desk& desk_;
  QListWidget* list_;
};

}  // namespace sunbreak::desktop
