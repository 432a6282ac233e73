#pragma once

#include <filesystem>
#include <optional>

namespace sunbreak::exchange {

/// The writer's lock of a lab book, what of line-ups is kept beside it, and the folder of its backups.
std::filesystem::path lock_beside(const std::filesystem::path& book);
std::filesystem::path cache_beside(const std::filesystem::path& book);
std::filesystem::path backups_beside(const std::filesystem::path& book);

/// Whether a file is a lab book, by its first bytes: a database of SQLite. Whose it is may stand in its log alone.
bool is_lab_book(const std::filesystem::path& file);

/// The lab book that a file or folder belongs to: one of the above, or what SQLite keeps beside it.
std::optional<std::filesystem::path> lab_book_of(const std::filesystem::path& companion);

}  // namespace sunbreak::exchange
