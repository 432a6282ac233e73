#pragma once

#include <SQLiteCpp/Database.h>

#include <filesystem>
#include <optional>
#include <string>

namespace sunbreak::book {

/// Copies the whole book to `<stem>-<tag>.sunbreak` in backups_beside() it, unless that is there, and removes the
/// oldest beyond `kept`. The copy is whole or absent, never partial. Of a book that has changed by itself none is made:
/// it would push out those of before.
void back_up(SQLite::Database& db, const std::filesystem::path& file, const std::string& tag, int kept = 14);

}  // namespace sunbreak::book
