#pragma once

#include <functional>
#include <memory>

#include "evaluation/configurations.h"
#include "record/picture_files.h"

namespace sunbreak::desktop {

class Desk;

/// A test with all its configurations and what else a page or a package of it takes.
struct WholeTest {
  std::shared_ptr<const record::TestRecord> record;
  evaluation::Evaluations evaluations;
  record::PictureSource pictures;
  std::shared_ptr<const evaluation::Evaluation> earlier;  ///< that it repeats, where it repeats one that is here
};

/// How to get hold of the test on the desk as it is now: to be called once, on any thread, where it reads what the desk
/// has not got. Throws where the lab book cannot be read.
std::function<WholeTest()> whole_test(const Desk& desk);

}  // namespace sunbreak::desktop
