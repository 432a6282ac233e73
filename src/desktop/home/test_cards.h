#pragma once

#include <QListWidget>

#include "desktop/home/test_grades.h"
#include "desktop/shell/desk.h"

namespace sunbreak::desktop {

/// The tests of the lab book as cards: a thumbnail of the fullest sweep's map, the fixture, the bench, how far it is,
/// and its evidence grade once that is worked out.
class TestCards : public QListWidget {
  Q_OBJECT
 public:
  explicit TestCards(Desk& desk, QWidget* parent = nullptr);
  /// Shows the tests whose fixture, bench or name holds every word of `search`.
  void fill(const QString& search);
  record::Id chosen() const;
  /// The grades of all tests shown are worked out.
  bool graded() const;

 signals:
  void open(record::Id test_id);

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void show_grades();

  Desk& desk_;
  TestGrades grades_;
};

}  // namespace sunbreak::desktop
