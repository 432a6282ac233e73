#pragma once

#include <string>

namespace sunbreak::book {

/// What came of a work that was killed many times at any moment.
struct KillRounds {
  int kills = 0;
  long long acknowledged = 0;
  std::string shortcoming;  ///< what was acknowledged and is gone, or half there, in words; empty where nothing is
};

/// Starts a process that works on a new lab book (typing, importing, recording or publishing; helper/work_until_killed)
/// and kills it, `kills` times over; then opens the book and what was published, and looks for everything that the
/// process had said was kept.
KillRounds work_and_kill(const std::string& work, int kills, unsigned seed);

}  // namespace sunbreak::book
