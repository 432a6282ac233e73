#pragma once

#include <QImage>
#include <QObject>
#include <deque>
#include <map>
#include <optional>
#include <vector>

#include "book/change.h"
#include "core/evidence/grade.h"
#include "desktop/desk/background.h"
#include "desktop/theme/theme.h"
#include "record/test_record.h"

namespace sunbreak::desktop {

class Desk;

/// What a card shows of a whole test.
struct TestSummary {
  record::Test test;        ///< as it was summarized
  std::size_t planned = 0;  ///< sweeps
  std::size_t complete = 0;
  int read = 0;      ///< stations, over all sweeps
  int apart = 0;     ///< sweeps that are set apart: they hold what cannot be, or are not as they were written
  QString evenness;  ///< of the fullest sweep, by the figure that leads in the test
  QImage thumbnail;
  std::optional<Grade> grade;  ///< none where nothing is read
  Look look = Look::Paper;     ///< that the thumbnail is drawn in
};

/// Summaries of the tests of the lab book, read and worked out on another thread, and kept until a change touches what
/// they show.
class TestSummaries : public QObject {
  Q_OBJECT
 public:
  explicit TestSummaries(Desk& desk, QObject* parent = nullptr);

  /// Asks for what is not known of these tests, in their order.
  void want(const std::vector<record::Id>& tests);
  /// The latest there is; null where there was none yet.
  const TestSummary* of(record::Id test_id) const;
  /// Whether what there is still holds.
  bool knows(record::Id test_id) const;

 signals:
  void summarized(record::Id test_id);

 private:
  void follow(const book::Change& change);
  void go_on();

  struct Kept {
    TestSummary summary;
    bool stale = false;
  };
  Desk& desk_;
  std::map<record::Id, Kept> known_;
  std::deque<record::Id> wanted_;
  Background background_;
};

}  // namespace sunbreak::desktop
