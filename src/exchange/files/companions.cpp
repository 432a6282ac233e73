#include "exchange/files/companions.h"

#include <string>
#include <string_view>

#include "exchange/files/read_file.h"

namespace sunbreak::exchange {
namespace {

namespace fs = std::filesystem;

constexpr std::string_view lock_ending = ".lock", cache_ending = ".cache", backups_ending = "-backups";
/// https://www.sqlite.org/tempfiles.html
constexpr std::string_view file_endings[] = {lock_ending, cache_ending, "-wal", "-shm", "-journal"};

fs::path with_ending(fs::path book, std::string_view ending) { return book += ending; }

}  // namespace

fs::path lock_beside(const fs::path& book) { return with_ending(book, lock_ending); }

fs::path cache_beside(const fs::path& book) { return with_ending(book, cache_ending); }

fs::path backups_beside(const fs::path& book) { return with_ending(book.parent_path() / book.stem(), backups_ending); }

bool is_lab_book(const fs::path& file) {
  constexpr std::string_view head("SQLite format 3\0", 16);
  return first_bytes(file, head.size()) == head;
}

std::optional<fs::path> lab_book_of(const fs::path& companion) {
  const std::string name = companion.string();
  for (const std::string_view ending : file_endings) {
    if (!name.ends_with(ending)) continue;
    const fs::path before = name.substr(0, name.size() - ending.size());
    return is_lab_book(before) ? std::optional(before) : lab_book_of(before);  // a cache has a log of its own
  }
  if (!name.ends_with(backups_ending)) return {};
  std::error_code error;
  for (const auto& entry : fs::directory_iterator(companion.parent_path(), error))
    if (backups_beside(entry.path()) == companion && is_lab_book(entry.path())) return entry.path();
  return {};
}

}  // namespace sunbreak::exchange
