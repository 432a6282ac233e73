#include "evaluation/lineup/simulated_members.h"

#include <fmt/format.h>

#include <algorithm>
#include <vector>

#include "evaluation/simulated_words.h"

namespace sunbreak::evaluation {

std::string simulated_words(const LineUp& lineup) {
  std::vector<std::string> names;
  for (const LineUpMember& member : lineup.members())
    if (member.entrant.simulated) names.push_back(member.entrant.title);
  if (names.empty()) return {};
  if (names.size() == lineup.members().size())
    return fmt::format("Sample data: the readings of these tests were {}.", not_measured);
  return fmt::format("Of these tests the readings were {}: {}. The others were measured.", not_measured,
                     fmt::join(names, ", "));
}

std::string simulated_count_words(const LineUp& lineup) {
  const auto count = std::ranges::count_if(lineup.members(), [](const auto& m) { return m.entrant.simulated; });
  if (count == 0) return {};
  if (count == std::ssize(lineup.members())) return not_measured;
  return fmt::format("{} of {} {}", count, lineup.members().size(), not_measured);
}

}  // namespace sunbreak::evaluation
