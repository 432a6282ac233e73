#pragma once

#include <QWidget>
#include <map>

class QLabel;
class QLineEdit;

namespace sunbreak::desktop {

class Desk;
class TestLog;

/// One row of fields for what the meters show, typed: watts, light, volts and so on, and how long after switch-on.
/// Enter keeps them as one reading of the log; what cannot be between them is said at once.
class WallForm : public QWidget {
 public:
  WallForm(Desk& desk, TestLog& log, QWidget* parent = nullptr);
  void begin();

 private:
  QLineEdit* add_field(class QHBoxLayout* row, const QString& name, const QString& unit, const char* object, int width);
  void keep();
  void say(const QString& words, const char* tone);

  Desk& desk_;
  TestLog& log_;
  QLineEdit *watts_, *light_, *volts_, *amperes_, *volt_amperes_, *factor_, *hertz_, *minutes_;
  QLabel* words_;
};

}  // namespace sunbreak::desktop
