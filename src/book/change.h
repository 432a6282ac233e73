#pragma once

#include <SQLiteCpp/Database.h>

#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "record/kinds.h"

namespace sunbreak::book {

using namespace record;

/// What a change of the lab book touched, own or undone.
struct Change {
  struct Row {
    const Kind* kind;
    Id id;
  };
  std::vector<Row> rows;  ///< added, changed or removed
  std::set<Id> tests;     ///< the tests that they are part of
  std::set<Id> sweeps;    ///< the sweeps whose readings, placements or notes they are
  /// The kinds of those that stand by themselves, or are part of what does: fixture, claim, bench, meter, crop_target.
  std::set<std::string_view> shelves;
};

/// What the rows of a changeset touched, told after it was applied. Readings, which no changeset covers, are touched
/// with their placements.
Change change_of(SQLite::Database& db, const std::string& changeset);

}  // namespace sunbreak::book
