#pragma once

#include <SQLiteCpp/Database.h>

#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace sunbreak::book {

/// What `change` alters in the tables that undo covers, as an SQLite changeset (empty where nothing did). Readings are
/// not covered: they are kept for ever. Source: SQLite session extension.
std::string record_changeset(SQLite::Database& db, const std::function<void()>& change);

/// A row that a changeset adds, changes or removes.
struct ChangedRow {
  std::string table;
  std::int64_t id = 0;
  std::optional<std::int64_t>
      parent;  ///< what its kind's parent column holds; nothing where only other columns changed
};

/// The rows that a changeset names.
std::vector<ChangedRow> rows_of(SQLite::Database& db, const std::string& changeset);

/// Applies a changeset, or its inverse. Throws where the rows are no longer as it found them.
void apply_changeset(SQLite::Database& db, const std::string& changeset, bool inverted);

}  // namespace sunbreak::book
