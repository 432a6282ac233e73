#pragma once

#include <QObject>
#include <map>
#include <memory>
#include <optional>
#include <vector>

#include "core/evidence/grade.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::desktop {

/// The evidence grades of whole tests, worked out on another thread and kept until the lab book moves on.
class TestGrades : public QObject {
  Q_OBJECT
 public:
  using QObject::QObject;

  /// Asks for the grades of tests as they are at a revision of the book; those that are known are not asked for again.
  void ask(std::uint64_t revision, std::vector<std::shared_ptr<const record::TestRecord>> tests);
  bool knows(record::Id test_id) const { return grades_.contains(test_id); }
  /// None while it is not known, or where nothing is read.
  std::optional<Grade> of(record::Id test_id) const;

 signals:
  /// There are new ones.
  void graded();

 private:
  using Answers = std::map<record::Id, std::optional<Grade>>;

  std::uint64_t revision_ = 0;
  Answers grades_;
  int question_ = 0;  ///< the latest; answers to older ones are dropped
};

}  // namespace sunbreak::desktop
