#pragma once

#include <QWidget>

#include "record/test_record.h"

class QLabel;

namespace sunbreak::desktop {

class Desk;
class FiguresTable;

/// The temperatures of the test: as read, of the surface, over air, and when; with what is to be said of them.
class TemperaturePanel : public QWidget {
  Q_OBJECT
 public:
  explicit TemperaturePanel(Desk& desk, QWidget* parent = nullptr);

  /// Asks for one more; false where none was taken.
  bool add();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void refresh();
  Desk& desk_;
  FiguresTable* table_;
  QLabel *words_, *empty_;
  std::vector<record::Id> shown_;
};

}  // namespace sunbreak::desktop
