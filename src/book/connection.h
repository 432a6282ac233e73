#pragma once

#include <SQLiteCpp/Database.h>

#include <filesystem>
#include <memory>
#include <optional>
#include <string>

#include "core/result.h"

namespace sunbreak::book {

/// A connection to an SQLite file that runs nothing of what the file itself brings: no trigger, no view, no function
/// called from its schema beyond harmless ones, no change of the schema behind SQLite's back. Throws SQLite::Exception.
std::unique_ptr<SQLite::Database> connect(const std::string& name, int flags, int busy_ms = 2000);

/// The same, to read a lab book. In a folder that only may be read it is opened as one that nobody writes; what stands
/// in a log beside it could not be read then: with one it is not opened (BookTrouble).
std::unique_ptr<SQLite::Database> connect_read_only(const std::filesystem::path& file,
                                                    int flags = SQLite::OPEN_READONLY);

/// What keeps a database from being a lab book of its `schema`: a trigger, a view or a table that is computed, which
/// may act; a table or a column that is not there. Nothing where it is one. Tables that are no part of it are left
/// alone.
std::optional<std::string> foreign_schema(const SQLite::Database& db, int schema);

}  // namespace sunbreak::book
