#pragma once

#include <QScrollArea>
#include <vector>

#include "publishing/forms.h"

class QCheckBox;
class QLabel;
class QPushButton;

namespace sunbreak::desktop {

class PublishLog;

/// All that can be written of a test, a row each: whether it is wanted, what it is for or how it stands, and a button
/// to write it alone.
class FormList : public QScrollArea {
  Q_OBJECT
 public:
  explicit FormList(QWidget* parent = nullptr);

  std::vector<const publishing::Form*> ticked() const;
  /// How each stands. Forms that the test has nothing for are told so.
  void show_standing(const PublishLog& log, const record::TestRecord& test);

 signals:
  void wanted(const publishing::Form* form);

 private:
  struct Row {
    const publishing::Form* form;
    QCheckBox* tick;
    QLabel* words;
    QPushButton* write;
  };
  std::vector<Row> rows_;
};

}  // namespace sunbreak::desktop
