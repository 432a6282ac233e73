#include "record/walk_change.h"

#include <algorithm>
#include <map>
#include <utility>

namespace sunbreak::record {
namespace {

/// Which reading counts, by sweep and station; 0 where one was declared missing.
std::map<std::pair<Id, int>, Id> counting(const TestRecord& test) {
  std::map<std::pair<Id, int>, Id> all;
  for (const Placement& p : test.placements) all[{p.sweep_id, p.station}] = p.reading_id.value_or(0);
  return all;
}

/// A row that one list has and the other has not.
template <typename Row>
const Row* odd_one(const std::vector<Row>& before, const std::vector<Row>& after) {
  for (const auto& [some, others] : {std::pair(&before, &after), std::pair(&after, &before)})
    for (const Row& row : *some)
      if (std::ranges::find(*others, row) == others->end()) return &row;
  return nullptr;
}

const Sweep* sweep_of(const TestRecord& before, const TestRecord& after, Id id) {
  for (const TestRecord* test : {&after, &before})
    for (const Sweep& sweep : test->sweeps)
      if (sweep.id == id) return &sweep;
  return nullptr;
}

}  // namespace

std::optional<WalkChange> walk_change(const TestRecord& before, const TestRecord& after) {
  const auto at = [&](WalkChange::What what, Id sweep_id, int station) -> std::optional<WalkChange> {
    const Sweep* sweep = sweep_of(before, after, sweep_id);
    if (!sweep) return {};
    return WalkChange{what, sweep->rung_id, sweep->stop_id, station};
  };
  if (before.placements != after.placements) {
    const auto was = counting(before), is = counting(after);
    for (const auto& [some, others] : {std::pair(&is, &was), std::pair(&was, &is)})
      for (const auto& [place, reading] : *some)
        if (const auto other = others->find(place); other == others->end() || other->second != reading)
          return at(WalkChange::Station, place.first, place.second);
  }
  if (const SideReading* side = odd_one(before.side_readings, after.side_readings))
    return at(side->purpose == "repeat" ? WalkChange::Repeat : WalkChange::Reference, side->sweep_id, side->station);
  for (const Sweep& sweep : after.sweeps) {
    const auto was = std::ranges::find(before.sweeps, sweep.id, &Sweep::id);
    if (was == before.sweeps.end() ? sweep.power_w.has_value() : was->power_w != sweep.power_w)
      return at(WalkChange::Watts, sweep.id, -1);
  }
  for (const Sweep& sweep : before.sweeps)
    if (sweep.power_w && std::ranges::find(after.sweeps, sweep.id, &Sweep::id) == after.sweeps.end())
      return at(WalkChange::Watts, sweep.id, -1);
  return {};
}

}  // namespace sunbreak::record
