#pragma once

#include <SQLiteCpp/Database.h>

#include <functional>
#include <string>

namespace sunbreak::book {

/// What `change` alters in the tables that undo covers, as an SQLite changeset (empty where nothing did). Readings are
/// not covered: they are kept for ever. Source: SQLite session extension.
std::string record_changeset(SQLite::Database& db, const std::function<void()>& change);

/// Applies a changeset, or its inverse. Throws where the rows are no longer as it found them.
void apply_changeset(SQLite::Database& db, const std::string& changeset, bool inverted);

}  // namespace sunbreak::book
