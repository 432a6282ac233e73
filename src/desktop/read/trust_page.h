#pragma once

#include <QWidget>

#include "desktop/desk/desk.h"
#include "desktop/desk/stage.h"

class QGridLayout;
class QLabel;
class QPushButton;
class QScrollArea;

namespace sunbreak::desktop {

class FiguresTable;
class Form;

/// How sure the figures of the chosen sweep are: its evidence grade with a way to each missing condition, and its
/// uncertainty budget with the largest part named.
class TrustPage : public QWidget {
  Q_OBJECT
 public:
  explicit TrustPage(Desk& desk, QWidget* parent = nullptr);
  void refresh();

 signals:
  /// Asks for the stage where a condition can be met.
  void go(sunbreak::desktop::Stage stage, const QString& field);

 private:
  void show_evidence();
  void clear_conditions();
  void show_budget();
  void show_origin();

  Desk& desk_;
  QLabel *grade_, *grade_words_, *budget_words_, *origin_;
  QPushButton* weakest_;
  QGridLayout* conditions_;
  FiguresTable* budget_;
  Form* stated_;
  std::vector<Condition> shown_;
};

}  // namespace sunbreak::desktop
