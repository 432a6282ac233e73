#pragma once

#include <QDialog>

#include "exchange/tables/log_table.h"

class QLineEdit;

namespace sunbreak::desktop {

class Desk;
class TestLog;

/// Shows what a logger's table was understood to say before it is taken, and asks when it begins where it has no dates.
class LogImport : public QDialog {
 public:
  LogImport(Desk& desk, TestLog& log, exchange::LogDraft draft, const QString& origin, QWidget* parent = nullptr);

 private:
  void take();

  Desk& desk_;
  exchange::LogDraft draft_;
  QString origin_;
  double on_s_;
  QLineEdit* begins_ = nullptr;      ///< for times from the log's start
  class QComboBox* zone_ = nullptr;  ///< for dated ones
  class QLabel* problem_;
};

}  // namespace sunbreak::desktop
