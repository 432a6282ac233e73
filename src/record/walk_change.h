#pragma once

#include <optional>

#include "record/test_record.h"

namespace sunbreak::record {

/// Where in a walk a change was made: a station of a sweep, a reading beside it, or its watts.
struct WalkChange {
  enum What { Station, Reference, Repeat, Watts } what = Station;
  Id rung_id = 0, stop_id = 0;
  int station = -1;
};

/// What differs between a test before and after a change; the first station where several do, and nothing where the
/// change was to no walk.
std::optional<WalkChange> walk_change(const TestRecord& before, const TestRecord& after);

}  // namespace sunbreak::record
