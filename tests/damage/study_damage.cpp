#include <fmt/format.h>

#include <map>

#include "damage.h"

using namespace sunbreak;

/// What the importer does with each kind of damage, as a table; and whether any of it misleads.
int main() {
  constexpr int cases = 20'000;
  damage::Random random(20261125);
  std::map<std::string, std::map<damage::Outcome, int>> table;
  int misleading = 0;
  for (int i = 0; i < cases; ++i) {
    const damage::ValidTable valid = damage::make_valid(random);
    const damage::Damage damaged = damage::harm(valid.bytes, random);
    const damage::Outcome outcome = damage::judge(valid, damaged.bytes).outcome;
    ++table[damaged.kind][outcome];
    misleading += outcome == damage::Outcome::Misleading;
  }
  fmt::print("{:<32}{:>9}{:>9}{:>9}{:>12}\n", "damage", "refused", "noted", "in full", "misleading");
  for (auto& [kind, outcomes] : table)
    fmt::print("{:<32}{:>9}{:>9}{:>9}{:>12}\n", kind, outcomes[damage::Outcome::Refused],
               outcomes[damage::Outcome::TakenWithFindings], outcomes[damage::Outcome::TakenInFull],
               outcomes[damage::Outcome::Misleading]);
  if (misleading == 0)
    fmt::print("damage: held\n");
  else
    fmt::print("damage: fell short: {} of {} damaged tables mislead\n", misleading, cases);
  return misleading == 0 ? 0 : 1;
}
