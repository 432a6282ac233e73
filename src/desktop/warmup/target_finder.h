#pragma once

#include <QDialog>

#include "desktop/desk/desk.h"

class QComboBox;
class QLabel;
class QLineEdit;

namespace sunbreak::desktop {

class InstrumentHub;

/// Finds by hand the setting at which a place reads what a crop asks for: says which way to turn by the live value, and
/// keeps watts and dial there.
class TargetFinder : public QDialog {
 public:
  TargetFinder(Desk& desk, InstrumentHub& hub, QWidget* parent = nullptr);

 private:
  void build();
  void show_target();
  void describe();
  void keep();
  std::optional<double> number_in(QLineEdit* field, double high, QString* problem) const;

  Desk& desk_;
  InstrumentHub& hub_;
  QComboBox *target_, *place_;
  QLineEdit *wanted_, *light_, *watts_, *dial_;
  QLabel *turn_, *problem_;
};

}  // namespace sunbreak::desktop
