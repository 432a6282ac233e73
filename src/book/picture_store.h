#pragma once

#include <SQLiteCpp/Database.h>

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

/// The files of pictures in a lab book: a table of their own, which no undo, no evaluation and no daily backup moves.
/// Each is added once and stays as it is.
namespace sunbreak::book {

/// Adds a picture's file, where it is not there yet.
void store_picture(SQLite::Database& db, const std::string& digest, std::string_view bytes);

/// A picture's file; nothing where there is none, or it is not as it was.
std::optional<std::string> stored_picture(const SQLite::Database& db, const std::string& digest);

bool has_pictures(const SQLite::Database& db);

/// Where copies of a lab book's pictures are kept beside its backups, each once.
std::filesystem::path picture_folder(const std::filesystem::path& file);

/// Copies pictures that the folder does not have yet, of `most_bytes` together at most: what is left over is for the
/// next time. Throws where it cannot be written.
void back_up_pictures(const SQLite::Database& db, const std::filesystem::path& file, std::size_t most_bytes);

/// Takes into a lab book what its records name and its backups' folder has.
void bring_back_pictures(SQLite::Database& db, const std::filesystem::path& folder);

}  // namespace sunbreak::book
