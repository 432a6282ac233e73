#pragma once

#include <cstddef>

namespace sunbreak::desktop {

class Desk;

/// How many of the test's planned sweeps stand how far.
struct SweepProgress {
  std::size_t planned = 0, begun = 0, complete = 0, with_holes = 0;
};

SweepProgress sweep_progress(const Desk& desk);

}  // namespace sunbreak::desktop
