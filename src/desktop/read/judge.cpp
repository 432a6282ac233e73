#include "desktop/read/judge.h"

#include <QFutureWatcher>
#include <QtConcurrent>
#include <algorithm>

#include "desktop/shell/test_log.h"

namespace sunbreak::desktop {

Judge::Judge(Desk& desk, TestLog& log, QObject* parent) : QObject(parent), desk_(desk), log_(log) {
  connect(&log, &TestLog::judged, this, &Judge::judged);
}

const Budget* Judge::budget_of(record::Id sweep_id) const {
  const auto found = answers_.find(sweep_id);
  return found != answers_.end() && found->second.revision == desk_.book().revision() ? &found->second.budget : nullptr;
}

std::optional<Evidence> Judge::evidence_of(record::Id sweep_id) const {
  const evaluation::SweepView* view = desk_.view_of(sweep_id);
  if (!desk_.test() || !view || view->read() == 0) return {};
  const auto& sweeps = desk_.test()->sweeps;
  const auto sweep = std::find_if(sweeps.begin(), sweeps.end(), [&](auto& s) { return s.id == sweep_id; });
  if (sweep == sweeps.end()) return {};
  const evaluation::WalkedState* walked = log_.walked(sweep_id);
  const int open = desk_.open_checks_of(sweep_id) + desk_.open_checks_of(0);
  return grade(evaluation::evidence_facts(*desk_.test(), *sweep, *view, walked ? *walked : evaluation::WalkedState{},
                                          log_.log().watts, open));
}

std::optional<std::pair<Grade, record::Id>> Judge::weakest() const {
  std::optional<std::pair<Grade, record::Id>> found;
  if (desk_.test())
    for (const record::Sweep& sweep : desk_.test()->sweeps)
      if (const auto evidence = evidence_of(sweep.id); evidence && (!found || evidence->grade < found->first))
        found = {evidence->grade, sweep.id};
  return found;
}

void Judge::look(record::Id also) {
  wanted_.clear();
  for (const record::Id id : {desk_.sweep() ? desk_.sweep()->id : 0, also})
    if (const evaluation::SweepView* view = desk_.view_of(id); view && view->read() > 0 && !budget_of(id))
      wanted_.push_back(id);
  work();
}

void Judge::work() {
  if (working_ || wanted_.empty() || !desk_.test()) return;
  const record::Id sweep_id = wanted_.front();
  wanted_.erase(wanted_.begin());
  const auto& sweeps = desk_.test()->sweeps;
  const auto sweep = std::find_if(sweeps.begin(), sweeps.end(), [&](auto& s) { return s.id == sweep_id; });
  if (sweep == sweeps.end()) return work();
  evaluation::SweepViews views;  // the other rungs at the same stop tell how the light falls with height
  for (const record::Sweep& other : sweeps)
    if (const evaluation::SweepView* view = desk_.view_of(other.id); view && other.stop_id == sweep->stop_id)
      views.emplace(other.id, *view);
  working_ = true;
  auto* watcher = new QFutureWatcher<Budget>(this);
  connect(
      watcher, &QFutureWatcher<Budget>::finished, this, [this, watcher, sweep_id, revision = desk_.book().revision()] {
        watcher->deleteLater();
        working_ = false;
        const bool stale = revision != desk_.book().revision();
        if (!stale) {
          std::erase_if(answers_, [&](const auto& a) { return a.second.revision != revision; });
          answers_[sweep_id] = {revision, watcher->result()};
        }
        if (stale && std::find(wanted_.begin(), wanted_.end(), sweep_id) == wanted_.end() && desk_.view_of(sweep_id))
          wanted_.push_back(sweep_id);
        emit judged();
        work();
      });
  watcher->setFuture(
      QtConcurrent::run([plan = record::without_readings(*desk_.test()), chosen = *sweep, views = std::move(views)] {
        return uncertainty_budget(evaluation::budget_question(plan, chosen, views.at(chosen.id), views));
      }));
}

}  // namespace sunbreak::desktop
