#pragma once

#include <QObject>
#include <map>
#include <optional>

#include "desktop/shell/desk.h"
#include "evaluation/judgement.h"

namespace sunbreak::desktop {

class TestLog;

/// How far the figures of the test on the desk can be relied on. Budgets take time and are worked out on another
/// thread, the chosen sweep's first; an answer to what has changed meanwhile is dropped. Grades are told at once.
class Judge : public QObject {
  Q_OBJECT
 public:
  Judge(Desk& desk, TestLog& log, QObject* parent = nullptr);

  /// The chosen sweep's budget; none while it is being worked out or where there is nothing to judge.
  const Budget* budget() const { return budget_of(desk_.sweep() ? desk_.sweep()->id : 0); }
  const Budget* budget_of(record::Id sweep_id) const;
  /// None for sweeps without a reading.
  std::optional<Evidence> evidence_of(record::Id sweep_id) const;
  /// The test's grade is its weakest sweep's.
  std::optional<std::pair<Grade, record::Id>> weakest() const;

  /// Works out what is asked for next: the chosen sweep, and `also` another where it is not 0.
  void look(record::Id also = 0);

 signals:
  void judged();

 private:
  void work();

  struct Answer {
    std::uint64_t revision = 0;  ///< of the book it holds for
    Budget budget;
  };
  Desk& desk_;
  TestLog& log_;
  std::map<record::Id, Answer> answers_;
  std::vector<record::Id> wanted_;
  bool working_ = false;
};

}  // namespace sunbreak::desktop
