#include "desktop/home/test_grades.h"

#include <QFutureWatcher>
#include <QtConcurrent>

#include "evaluation/judgement.h"
#include "evaluation/wall_log.h"

namespace sunbreak::desktop {

void TestGrades::ask(std::uint64_t revision, std::vector<std::shared_ptr<const record::TestRecord>> tests) {
  if (revision != std::exchange(revision_, revision)) grades_.clear();
  std::erase_if(tests, [&](const auto& test) { return grades_.contains(test->test.id); });
  const int question = ++question_;
  if (tests.empty()) return;
  auto* watcher = new QFutureWatcher<Answers>(this);
  connect(watcher, &QFutureWatcher<Answers>::finished, this, [this, watcher, question] {
    watcher->deleteLater();
    if (question != question_) return;
    grades_.merge(watcher->result());
    emit graded();
  });
  watcher->setFuture(QtConcurrent::run([tests = std::move(tests)] {
    Answers grades;
    for (const auto& test : tests)
      grades[test->test.id] = evaluation::test_grade(
          evaluation::evidence_of(*test, evaluation::views_of(*test), evaluation::wall_log(*test)));
    return grades;
  }));
}

std::optional<Grade> TestGrades::of(record::Id test_id) const {
  const auto found = grades_.find(test_id);
  return found == grades_.end() ? std::nullopt : found->second;
}

}  // namespace sunbreak::desktop
