#pragma once

#include <list>
#include <memory>
#include <mutex>

#include "evaluation/audit/audit.h"

namespace sunbreak::evaluation {

/// Keeps the last few audits, so that screens and pages that ask for the same do not work it out again; a sentence
/// written over changes its words alone. May be asked from any thread; who asks while another audits waits.
class AuditKeeper {
 public:
  /// Null where `stop` asked for an end.
  std::shared_ptr<const Audit> get(const std::shared_ptr<const Evaluation>& evaluation, const AuditContext& context,
                                   std::stop_token stop = {});

 private:
  struct Kept {
    std::shared_ptr<const Evaluation> evaluation;
    std::vector<CropTarget> targets;
    UnitSystem units;
    std::shared_ptr<const Audit> audit;
  };
  std::mutex working_;
  std::list<Kept> kept_;  ///< the latest first
};

}  // namespace sunbreak::evaluation
