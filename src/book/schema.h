#pragma once

#include <SQLiteCpp/Database.h>

namespace sunbreak::book {

/// "SUNB" as a big-endian number: marks a file as a lab book.
constexpr int application_id = 0x53554E42;

/// The schema this build writes. Each step in schema.cpp leads from one version to the next.
int schema_version();

/// Brings a database from its `user_version` to schema_version() in one transaction. Version 0 is an empty file.
void migrate(SQLite::Database& db, int to = schema_version());

}  // namespace sunbreak::book
