#include "desktop/desk/worked_out.h"

#include <algorithm>

#include "desktop/desk/desk.h"
#include "evaluation/test_light.h"

namespace sunbreak::desktop {

using record::Id;

namespace {
constexpr std::size_t most_checked_at_once = 600;
}

WorkedOut::WorkedOut(Desk& desk) : QObject(&desk), desk_(desk), background_(this) {}

Id WorkedOut::chosen() const { return desk_.sweep() ? desk_.sweep()->id : 0; }

void WorkedOut::follow(const book::Change* change, std::shared_ptr<const evaluation::Evaluation> known) {
  background_.drop();
  const record::TestRecord* test = desk_.test();
  if (!test) {
    evaluation_.reset();
    log_.reset();
    all_findings_.clear();
    return;
  }
  const bool same_test = evaluation_ && evaluation_->record().test.id == test->test.id &&
                         evaluation_->record().configuration_id == test->configuration_id;
  if (!same_test) log_.reset(), budgets_wanted_ = false;
  if (!log_) log_ = std::make_shared<const evaluation::WallLog>();  // the test's log is on its way
  if (known && !same_test)
    evaluation_ = std::move(known);
  else
    evaluation_ = evaluation::evaluate(*test, log_, desk_.units(), same_test ? evaluation_.get() : nullptr,
                                       same_test && change ? &change->sweeps : nullptr);
  look_at_chosen();
}

void WorkedOut::take_log(std::shared_ptr<const evaluation::WallLog> log) {
  if (!desk_.test() || !evaluation_) return;
  background_.drop();
  log_ = std::move(log);
  static const std::set<Id> no_readings;
  evaluation_ = evaluation::evaluate(*desk_.test(), log_, desk_.units(), evaluation_.get(), &no_readings);
  go_on();
}

void WorkedOut::look_at_chosen() {
  if (!evaluation_) return;
  background_.drop();
  check_chosen_at_once();
  gather();
  go_on();
}

void WorkedOut::check_chosen_at_once() {
  const evaluation::SweepView* view = evaluation_->view(chosen());
  if (view && view->states.size() <= most_checked_at_once) evaluation_->checks_without_waiting(chosen());
}

/// True where the checks are other ones than before.
bool WorkedOut::gather() {
  auto now = evaluation_->all_findings_so_far();
  if (now == all_findings_) return false;
  all_findings_ = std::move(now);
  return true;
}

/// The next thing to work out; empty where all that is asked for is known.
WorkedOut::Step WorkedOut::next_step() const {
  const evaluation::Evaluation& e = *evaluation_;
  const auto judged = [&](Id id) -> Step {
    const evaluation::SweepDigest* digest = e.digest(id);
    if (!digest) return {};
    if (!e.findings_so_far(id)) return [id](const auto& it, auto) { it.findings(id); };
    if (!e.walked_so_far(id)) return [id](const auto& it, auto) { it.walked(id); };
    if (digest->read > 0 && !e.evidence_so_far(id)) return [id](const auto& it, auto) { it.evidence(id); };
    return {};
  };
  if (Step step = judged(chosen())) return step;
  if (budgets_wanted_)
    for (const Id id : {chosen(), budget_also_})
      if (const evaluation::SweepDigest* digest = e.digest(id); digest && digest->read > 0 && !e.budget_so_far(id))
        return [id](const auto& it, std::stop_token stop) { it.budget(id, stop); };
  if (light_wanted_ && any_read() && !light())
    return [](const auto& it, std::stop_token stop) {
      if (const auto* light = it.light(stop)) light->work_out_left_out(stop);
    };
  for (const auto& [id, view] : e.views())
    if (Step step = judged(id)) return step;
  return {};
}

void WorkedOut::go_on() {
  if (!evaluation_ || background_.working()) return;
  Step step = next_step();
  if (!step) return;
  background_.ask(
      [evaluation = evaluation_, step = std::move(step)](std::stop_token stop) {
        step(*evaluation, stop);
        return true;
      },
      [this](bool) {
        if (gather()) emit desk_.changed();
        emit progressed();
        go_on();
      });
}

void WorkedOut::want_budgets(Id also) {
  budgets_wanted_ = true;
  budget_also_ = also;
  go_on();
}

const evaluation::TestLight* WorkedOut::light() const {
  const evaluation::TestLight* light = evaluation_ ? evaluation_->light_so_far() : nullptr;
  return light && light->left_out_known() ? light : nullptr;
}

bool WorkedOut::any_read() const {
  if (!evaluation_) return false;
  const auto& views = evaluation_->views();
  return std::any_of(views.begin(), views.end(), [](const auto& view) { return view.second->read() > 0; });
}

void WorkedOut::want_light(bool wanted) {
  light_wanted_ = wanted;
  go_on();
}

std::vector<Finding> WorkedOut::findings() const {
  std::vector<Finding> open;
  if (const Id id = chosen())
    for (const evaluation::TestFinding& c : all_findings_)
      if (c.sweep_id == id && !c.set_aside) open.push_back(c.check);
  return open;
}

int WorkedOut::open_checks_of(Id sweep_id) const {
  return static_cast<int>(std::ranges::count_if(
      all_findings_, [&](const evaluation::TestFinding& c) { return c.sweep_id == sweep_id && !c.set_aside; }));
}

HangResponse WorkedOut::hang() const { return evaluation_ ? evaluation_->hang_so_far(chosen()) : HangResponse{}; }

const evaluation::WalkedState* WorkedOut::walked(Id sweep_id) const {
  return evaluation_ ? evaluation_->walked_so_far(sweep_id) : nullptr;
}

const Budget* WorkedOut::budget_of(Id sweep_id) const {
  return evaluation_ ? evaluation_->budget_so_far(sweep_id) : nullptr;
}

const Budget* WorkedOut::budget() const { return budget_of(chosen()); }

const Evidence* WorkedOut::evidence_of(Id sweep_id) const {
  return evaluation_ ? evaluation_->evidence_so_far(sweep_id) : nullptr;
}

std::optional<std::pair<Grade, Id>> WorkedOut::weakest() const {
  std::optional<std::pair<Grade, Id>> found;
  if (!evaluation_) return found;
  for (const auto& [id, view] : evaluation_->views()) {
    if (evaluation_->digest(id)->read == 0) continue;
    const Evidence* evidence = evidence_of(id);
    if (!evidence) return {};
    if (!found || evidence->grade < found->first) found = {evidence->grade, id};
  }
  return found;
}

}  // namespace sunbreak::desktop
