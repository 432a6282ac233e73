#pragma once

#include <QListWidget>

#include "desktop/desk/desk.h"
#include "desktop/home/test_summaries.h"

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
  /// The one test that is shown, where it is only one.
  std::optional<record::Id> only() const;
  /// All that the cards show is read and worked out.
  bool complete() const;

 signals:
  void open(record::Id test_id);

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void show_summary(QListWidgetItem* item);

  Desk& desk_;
  TestSummaries summaries_;
};

}  // namespace sunbreak::desktop
