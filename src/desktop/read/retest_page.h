#pragma once

#include <QWidget>
#include <memory>
#include <optional>

#include "desktop/desk/background.h"
#include "desktop/desk/desk.h"
#include "desktop/desk/stage.h"
#include "evaluation/retest.h"

class QLabel;
class QPushButton;

namespace sunbreak::desktop {

class ChangeChart;
class FiguresTable;

/// What changed since the earlier test that this one repeats: in sentences, by sweep, and where in the pattern.
class RetestPage : public QWidget {
  Q_OBJECT
 public:
  explicit RetestPage(Desk& desk, QWidget* parent = nullptr);
  void refresh();

 signals:
  /// Asks for the stage where the earlier test is chosen.
  void go(sunbreak::desktop::Stage stage, const QString& field);

 private:
  void show_retest();

  Desk& desk_;
  QLabel *head_, *words_;
  ChangeChart* chart_;
  FiguresTable* table_;
  QPushButton* choose_;
  std::shared_ptr<const evaluation::Evaluation> shown_for_;
  std::string shown_of_;
  bool answered_ = false;
  std::optional<evaluation::Retest> retest_;  ///< none where the earlier test is not in this lab book
  Background background_;
};

}  // namespace sunbreak::desktop
