#pragma once

#include <QWidget>

#include "record/test_record.h"

class QLabel;

namespace sunbreak::desktop {

class Desk;
class FiguresTable;
class Form;
class HeatChart;
class PictureStrip;

/// The temperatures of the test: as read, of the surface, over air, and when; with what is to be said of them.
class TemperaturePanel : public QWidget {
 public:
  explicit TemperaturePanel(Desk& desk, QWidget* parent = nullptr);

  /// Asks for one more; false where none was taken.
  bool add();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void add_limit(const QString& name, std::optional<double> record::Test::*member, const char* object, bool rise);
  void refresh();
  void show_pictures();

  Desk& desk_;
  FiguresTable* table_;
  QLabel *words_, *empty_, *verdicts_, *of_chosen_;
  HeatChart* chart_;
  Form* limits_;
  PictureStrip* pictures_;
  std::vector<record::Id> shown_;
};

}  // namespace sunbreak::desktop
