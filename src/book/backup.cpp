#include "book/backup.h"

#include <SQLiteCpp/Statement.h>
#include <fmt/format.h>

#include <algorithm>
#include <vector>

#include "book/book.h"
#include "book/connection.h"
#include "book/picture_store.h"
#include "book/row_mapping.h"
#include "book/schema.h"
#include "exchange/files/companions.h"

namespace sunbreak::book {
namespace fs = std::filesystem;
namespace {

/// Backups of a book, oldest first by the time they were written.
std::vector<fs::path> backups(const fs::path& file) {
  std::vector<fs::path> found;
  std::error_code ignored;
  for (const auto& entry : fs::directory_iterator(exchange::backups_beside(file), ignored))
    if (entry.path().extension() == ".sunbreak" && entry.path().stem().string().starts_with(file.stem().string()))
      found.push_back(entry.path());
  std::sort(found.begin(), found.end(), [](const fs::path& a, const fs::path& b) {
    return std::pair(fs::last_write_time(a), a) < std::pair(fs::last_write_time(b), b);
  });
  return found;
}

/// Copies all but the files of pictures, which are kept beside the backups, each once.
void copy_without_pictures(const fs::path& file, const fs::path& target) {
  const auto connection = connect(target.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
  SQLite::Database& copy = *connection;
  SQLite::Statement attach(copy, "ATTACH ? AS book");
  attach.bind(1, file.string());
  attach.exec();
  copy.exec("BEGIN");
  std::vector<std::string> tables;
  SQLite::Statement schema(
      copy,
      "SELECT type, name, sql FROM book.sqlite_master WHERE sql IS NOT NULL AND name NOT LIKE 'sqlite\\_%' ESCAPE "
      "'\\' ORDER BY type = 'index'");
  while (schema.executeStep()) {
    copy.exec(schema.getColumn(2).getString());
    if (schema.getColumn(0).getString() == "table") tables.push_back(schema.getColumn(1).getString());
  }
  for (const std::string& table : tables)
    if (table != "picture_file") copy.exec(fmt::format("INSERT INTO main.{0} SELECT * FROM book.{0}", table));
  copy.exec("DELETE FROM main.sqlite_sequence; INSERT INTO main.sqlite_sequence SELECT * FROM book.sqlite_sequence");
  for (const char* mark : {"user_version", "application_id"})
    copy.exec(fmt::format("PRAGMA main.{} = {}", mark, copy.execAndGet(fmt::format("PRAGMA book.{}", mark)).getInt()));
  copy.exec("COMMIT");
}

}  // namespace

void back_up(SQLite::Database& db, const fs::path& file, const std::string& tag, int kept) {
  const fs::path folder = exchange::backups_beside(file);
  const fs::path target = folder / (file.stem().string() + "-" + tag + ".sunbreak");
  if (fs::exists(target)) return;
  const bool has_sums = db.execAndGet("PRAGMA user_version").getInt() == schema_version();
  if (has_sums && !damaged_rows(db).empty()) return;
  fs::create_directories(folder);
  const fs::path partial = target.string() + ".partial";
  fs::remove(partial);
  if (has_pictures(db)) {
    copy_without_pictures(file, partial);
  } else {
    SQLite::Statement copy(db, "VACUUM INTO ?");
    copy.bind(1, partial.string());
    copy.exec();
  }
  fs::rename(partial, target);
  std::vector<fs::path> all = backups(file);
  for (int i = 0; i + kept < static_cast<int>(all.size()); ++i) fs::remove(all[i]);
}

std::optional<fs::path> Book::newest_backup(const fs::path& file) {
  const std::vector<fs::path> all = backups(file);
  return all.empty() ? std::nullopt : std::optional(all.back());
}

std::optional<fs::path> Book::newest_sound_backup(const fs::path& file) {
  const std::vector<fs::path> all = backups(file);
  for (auto backup = all.rbegin(); backup != all.rend(); ++backup)
    if (const auto opened = Book::open(*backup, Mode::ReadOnly); opened && damaged_rows(*opened.value()->db_).empty())
      return *backup;
  return {};
}

namespace {

/// `<stem>-from-backup.sunbreak` beside a lab book, with a number where that is taken.
fs::path free_name_beside(const fs::path& file) {
  for (int n = 1;; ++n) {
    const std::string tail = n == 1 ? "-from-backup.sunbreak" : fmt::format("-from-backup-{}.sunbreak", n);
    const fs::path path = file.parent_path() / (file.stem().string() + tail);
    if (!fs::exists(fs::symlink_status(path))) return path;
  }
}

}  // namespace

Result<fs::path> Book::copy_backup_beside(const fs::path& file) {
  std::vector<fs::path> all = backups(file);
  const fs::path copy = free_name_beside(file);
  for (auto backup = all.rbegin(); backup != all.rend(); ++backup) {
    std::error_code why;
    if (!fs::copy_file(*backup, copy, why))
      return Problem{
          fmt::format("the backup {} could not be copied to {} ({})", backup->string(), copy.string(), why.message()),
          "nothing was changed", "make room there, or see that the folder may be written to"};
    if (auto opened = Book::open(copy); opened && damaged_rows(*opened.value()->db_).empty()) {
      opened.value()->bring_back_pictures(picture_folder(file));
      return copy;
    }
    fs::remove(copy, why);
  }
  return Problem{fmt::format("no sound backup of {} was found", file.string()), "there is nothing to go back to",
                 "open another lab book, or a copy that was kept elsewhere"};
}

}  // namespace sunbreak::book
