#pragma once

#include <functional>
#include <memory>
#include <stop_token>

#include "evaluation/audit/audit.h"
#include "evaluation/configurations.h"
#include "evaluation/lineup/lineup.h"
#include "record/picture_files.h"

namespace sunbreak::desktop {

class Desk;

/// A test with all its configurations and what else a page or a package of it takes.
struct WholeTest {
  std::shared_ptr<const record::TestRecord> record;
  evaluation::Evaluations evaluations;
  record::PictureSource pictures;
  std::shared_ptr<const evaluation::Evaluation> earlier;  ///< that it repeats, where it repeats one that is here
  /// Audits evaluations, in their order and told in units, where that is not known.
  std::function<std::vector<evaluation::Audit>(const evaluation::Evaluations&, UnitSystem)> audits;
  /// How to get the line-up that it stands in, with its declared way; may give none.
  std::function<evaluation::StandingLineUp()> line_up;
};

/// How to audit an evaluation: to be called on any thread. What it gives is null where it was told to stop.
using Auditing = std::function<std::shared_ptr<const evaluation::Audit>(
    const std::shared_ptr<const evaluation::Evaluation>&, std::stop_token)>;
Auditing auditing(const Desk& desk, UnitSystem units);

/// How to get hold of the test on the desk as it is now: to be called once, on any thread, where it reads what the desk
/// has not got. Throws where the lab book cannot be read.
std::function<WholeTest()> whole_test(const Desk& desk);

}  // namespace sunbreak::desktop
