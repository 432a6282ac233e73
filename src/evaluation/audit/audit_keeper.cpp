#include "evaluation/audit/audit_keeper.h"

#include <algorithm>

namespace sunbreak::evaluation {
namespace {

constexpr std::size_t most_kept = 6;

/// Whether two evaluations are of one test that differs in its tester's sentences alone.
bool audits_alike(const Evaluation& a, const Evaluation& b) {
  if (&a == &b) return true;
  // Light is handed on from one evaluation to the next as long as nothing that it is fitted to changes.
  if (a.light_so_far() != b.light_so_far() || !a.light_so_far()) return false;
  if (a.log().samples.size() != b.log().samples.size()) return false;
  TestRecord x = a.record(), y = b.record();
  x.verdict_sentences.clear(), y.verdict_sentences.clear();
  return x == y;
}

}  // namespace

std::shared_ptr<const Audit> AuditKeeper::get(const std::shared_ptr<const Evaluation>& evaluation,
                                              const AuditContext& context, std::stop_token stop) {
  // What other tests say is not among what is compared: with them nothing is kept.
  if (!context.others.empty()) {
    auto made = std::make_shared<const Audit>(audit(*evaluation, context, stop));
    return stop.stop_requested() ? nullptr : made;
  }
  const std::lock_guard hold(working_);
  for (auto kept = kept_.begin(); kept != kept_.end(); ++kept) {
    if (kept->units != context.units || kept->targets != context.targets ||
        !audits_alike(*kept->evaluation, *evaluation))
      continue;
    if (kept->evaluation != evaluation) {
      auto again = std::make_shared<Audit>(*kept->audit);
      take_own_words(again->words, evaluation->record());
      kept->evaluation = evaluation, kept->audit = std::move(again);
    }
    kept_.splice(kept_.begin(), kept_, kept);
    return kept_.front().audit;
  }
  auto made = std::make_shared<const Audit>(audit(*evaluation, context, stop));
  if (stop.stop_requested()) return nullptr;
  kept_.push_front({evaluation, context.targets, context.units, made});
  if (kept_.size() > most_kept) kept_.pop_back();
  return made;
}

}  // namespace sunbreak::evaluation
