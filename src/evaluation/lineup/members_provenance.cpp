#include "evaluation/lineup/members_provenance.h"

#include <fmt/format.h>

#include <algorithm>
#include <vector>

#include "evaluation/provenance.h"

namespace sunbreak::evaluation {

namespace {

/// Which tests were not measured, in a sentence; empty where all were.
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

/// Which tests came by a package that was altered, in a sentence; empty where none did.
std::string altered_members_words(const LineUp& lineup) {
  std::vector<std::string> names;
  for (const LineUpMember& member : lineup.members())
    if (!member.entrant.altered.empty()) names.push_back(member.entrant.title);
  if (names.empty()) return {};
  return fmt::format("The packages of these tests were {}: {}.", altered_on_its_way, fmt::join(names, ", "));
}

/// Few words of those members that have something.
template <typename Has>
std::string count_words(const LineUp& lineup, const Has& has, const char* what) {
  const auto count = std::ranges::count_if(lineup.members(), [&](const auto& m) { return has(m.entrant); });
  if (count == 0) return {};
  if (count == std::ssize(lineup.members())) return what;
  return fmt::format("{} of {} {}", count, lineup.members().size(), what);
}

/// Both, where there are both.
std::string both(const std::string& first, const std::string& second, const char* between) {
  return first.empty() || second.empty() ? first + second : first + between + second;
}

}  // namespace

std::string provenance_words(const LineUp& lineup) {
  return both(altered_members_words(lineup), simulated_words(lineup), " ");
}

std::string provenance_count_words(const LineUp& lineup) {
  return both(count_words(
                  lineup, [](const Entrant& e) { return !e.altered.empty(); }, altered_on_its_way),
              count_words(
                  lineup, [](const Entrant& e) { return e.simulated; }, not_measured),
              " · ");
}

}  // namespace sunbreak::evaluation
