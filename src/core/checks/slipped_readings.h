#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/finding.h"

namespace sunbreak {

/// A reading as a slipped digit makes it.
struct SlippedReading {
  enum class HeldAgainst { Neighbors, Mirrors, Pattern, Others };
  int station = 0;
  double ppfd = 0;
  HeldAgainst against = HeldAgainst::Neighbors;
  double lowest = 0, highest = 0;  ///< what they read, or make of it
  bool perhaps = false;            ///< fewer than three say so
};

/// Those that five times less or more light would bring among what is known of them: the stations that touch them;
/// where none of these is read the pattern that the bench is expected to have, or the mirror places; at the least all
/// others. Where two accuse each other it is the one that is farther from all light read, and who is cleared by a
/// mirror place or the pattern is none. `ppfd` is one a station, NaN where unread; `pattern` is relative light at all
/// of them, empty where nothing is expected. Brightest beside what was expected first.
std::vector<SlippedReading> slipped_readings(const Layout& layout, std::span<const double> ppfd,
                                             std::span<const double> pattern = {});

/// These as findings. What is fifty times as bright as it can be is ruled out.
std::vector<Finding> slipped_reading_checks(std::span<const SlippedReading> odd);

}  // namespace sunbreak
