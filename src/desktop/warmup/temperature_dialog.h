#pragma once

#include <QDialog>

#include "record/test_record.h"

class QLabel;

namespace sunbreak::desktop {

class Desk;
class Form;

/// Takes one temperature: where, how, what was read, and for infrared what the correction needs.
class TemperatureDialog : public QDialog {
 public:
  explicit TemperatureDialog(Desk& desk, QWidget* parent = nullptr);

 private:
  void build_form();
  QString swatch_names() const;
  void show_result();
  void keep();

  Desk& desk_;
  record::Temperature taken_;
  std::vector<record::Temperature> used_;  ///< of this lab book, with a material: own swatches among them
  bool read_ = false;
  Form* form_;
  QLabel* result_;
};

}  // namespace sunbreak::desktop
