#pragma once

#include <QWidget>
#include <vector>

#include "desktop/settle/settle_work.h"
#include "evaluation/settle_replies.h"

class QLabel;
class QLineEdit;
class QPushButton;

namespace sunbreak::desktop {

/// Single questions to the field, each a sentence with a number in it, and the answer under it.
class QuestionsPage : public QWidget {
 public:
  QuestionsPage(Desk& desk, SettleWork& work, QWidget* parent = nullptr);
  void refresh();

 private:
  struct Row {
    QLabel *before, *after, *answer;
    QLineEdit* number;
    QPushButton* stand;
  };
  void suggest();
  void ask();

  Desk& desk_;
  SettleWork& work_;
  std::vector<Row> rows_;
  std::pair<record::Id, record::Id> suggested_for_;
  std::vector<evaluation::SettleReply> replies_;
  Background background_;
};

}  // namespace sunbreak::desktop
