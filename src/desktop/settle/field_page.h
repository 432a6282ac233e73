#pragma once

#include <QWidget>
#include <vector>

#include "desktop/settle/settle_work.h"

class QLabel;
class QPushButton;

namespace sunbreak::desktop {

class FieldChart;
class FiguresTable;
class LightMaps;

/// The field with the point under the hand, its predicted map and figures, and the three answers with what each costs.
class FieldPage : public QWidget {
  Q_OBJECT
 public:
  FieldPage(Desk& desk, SettleWork& work, QWidget* parent = nullptr);
  FieldChart* field() const { return field_; }
  /// Stands on an answer, 0 to 2 in their order; says why where there is none.
  void stand_on_answer(int which);

 signals:
  void said(const QString& words);

 protected:
  void resizeEvent(QResizeEvent* event) override;

 private:
  void show_point();
  void show_answers();

  Desk& desk_;
  SettleWork& work_;
  FieldChart* field_;
  LightMaps* map_;
  FiguresTable* figures_;
  std::vector<QPushButton*> answers_;
  std::vector<QLabel*> answer_words_;
  QLabel *chance_, *costs_;
};

}  // namespace sunbreak::desktop
