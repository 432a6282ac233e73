#include "book/picture_store.h"

#include <SQLiteCpp/Statement.h>
#include <fmt/format.h>

#include <set>
#include <stdexcept>

#include "book/backup.h"
#include "exchange/files/companions.h"
#include "exchange/files/digest.h"
#include "exchange/files/new_file.h"
#include "exchange/files/read_file.h"
#include "record/picture_files.h"

namespace sunbreak::book {
namespace fs = std::filesystem;

void store_picture(SQLite::Database& db, const std::string& digest, std::string_view bytes) {
  SQLite::Statement insert(db, "INSERT INTO picture_file(digest, bytes) VALUES(?, ?) ON CONFLICT DO NOTHING");
  insert.bind(1, digest);
  insert.bindNoCopy(2, bytes.data(), static_cast<int>(bytes.size()));
  insert.exec();
}

std::optional<std::string> stored_picture(const SQLite::Database& db, const std::string& digest) {
  try {
    SQLite::Statement query(db, "SELECT bytes FROM picture_file WHERE digest = ?");
    query.bind(1, digest);
    if (!query.executeStep()) return {};
    const SQLite::Column blob = query.getColumn(0);
    std::string bytes(static_cast<const char*>(blob.getBlob()), static_cast<std::size_t>(blob.getBytes()));
    return exchange::sha256_digits(bytes) == digest ? std::optional(std::move(bytes)) : std::nullopt;
  } catch (const SQLite::Exception&) {
    return {};  // a damaged page holds no picture
  }
}

bool has_pictures(const SQLite::Database& db) {
  return db.tableExists("picture_file") && SQLite::Statement(db, "SELECT 1 FROM picture_file LIMIT 1").executeStep();
}

fs::path picture_folder(const fs::path& file) { return exchange::backups_beside(file) / "pictures"; }

void back_up_pictures(const SQLite::Database& db, const fs::path& file, std::size_t most_bytes) {
  if (!has_pictures(db)) return;
  const fs::path folder = picture_folder(file);
  std::set<std::string> kept;
  std::error_code ignored;
  for (const auto& entry : fs::directory_iterator(folder, ignored)) kept.insert(entry.path().filename().string());
  SQLite::Statement query(db, "SELECT digest FROM picture_file ORDER BY digest");
  std::size_t written = 0;
  while (written < most_bytes && query.executeStep()) {
    const std::string digest = query.getColumn(0).getString();
    if (kept.contains(digest) || !record::is_digest(digest)) continue;
    const auto bytes = stored_picture(db, digest);
    if (!bytes) continue;
    fs::create_directories(folder);
    if (const auto problem = exchange::write_companion(folder / digest, *bytes))
      throw std::runtime_error(problem->seen);
    written += bytes->size();
  }
}

void bring_back_pictures(SQLite::Database& db, const fs::path& folder) {
  std::set<std::string> missing;
  for (const char* table : {"fixture_picture", "picture"}) {
    SQLite::Statement query(
        db, fmt::format("SELECT digest FROM {} WHERE digest NOT IN (SELECT digest FROM picture_file)", table));
    while (query.executeStep()) missing.insert(query.getColumn(0).getString());
  }
  for (const std::string& digest : missing) {
    if (!record::is_digest(digest)) continue;
    const auto bytes = exchange::read_back(folder / digest);
    if (bytes && exchange::sha256_digits(bytes.value()) == digest) store_picture(db, digest, bytes.value());
  }
}

}  // namespace sunbreak::book
