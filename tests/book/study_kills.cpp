#include <fmt/format.h>

#include "book/kill_rounds.h"

using namespace sunbreak::book;

/// `./sunbreak study kills`: a process that works on a lab book is killed 1,000 times, 250 at each kind of work. Fixed
/// seeds; what is lost is printed.
int main() {
  int short_of = 0;
  unsigned seed = 4000;
  for (const char* work : {"typing", "importing", "recording", "publishing"}) {
    const KillRounds rounds = work_and_kill(work, 250, ++seed);
    fmt::print("{:<12} {:>5} kills {:>8} acknowledged   {}\n", work, rounds.kills, rounds.acknowledged,
               rounds.shortcoming.empty() ? "nothing lost" : rounds.shortcoming);
    short_of += !rounds.shortcoming.empty();
  }
  return short_of > 0 ? 1 : 0;
}
