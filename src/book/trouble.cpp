#include "book/trouble.h"

#include <SQLiteCpp/Exception.h>
#include <fmt/format.h>
#include <sqlite3.h>

#include <cerrno>
#include <cstdint>
#include <cstring>

#include "book/book.h"
#include "record/faults.h"

namespace sunbreak::book {
namespace fs = std::filesystem;

namespace {

/// Whether the disk that a lab book is on has no room for a page: what SQLite then tells is a failure of the disk.
bool no_room_beside(const fs::path& file) {
  constexpr std::uintmax_t a_page = 64 << 10;
  std::error_code error;
  const fs::space_info space = fs::space(file.parent_path(), error);
  return !error && space.available < a_page;
}

}  // namespace

Problem damaged(const fs::path& file, const std::string& detail) {
  const auto backup = Book::newest_backup(file);
  return {fmt::format("the lab book {} is damaged ({})", file.string(), detail),
          "it was left as it is, so that nothing more is lost",
          backup ? fmt::format("open the newest backup, {}", backup->string()) : "no backup was found beside it"};
}

Problem cannot_open(const fs::path& file, int error) {
  const std::string seen = fmt::format("the lab book {} cannot be opened ({})", file.string(), std::strerror(error)),
                    kept = "it was left as it is";
  switch (error) {
    case EACCES:
    case EPERM:
      return {seen, kept, "you may not read it: ask its owner for the right, or open another"};
    case ENOENT:
    case ENOTDIR:
      return {seen, "there is no such file or folder", "check the path"};
    case ENAMETOOLONG:
      return {seen, kept, "shorten its name"};
    case EISDIR:
      return {seen, kept, "that is a folder: name a file in it"};
    default:
      return {seen, kept, "check the disk, then try again"};
  }
}

Problem trouble_with(const fs::path& file, const std::exception& error) {
  if (const auto* told = dynamic_cast<const BookTrouble*>(&error)) return told->problem();
  const std::string book = fmt::format("the lab book {}", file.string()), detail = error.what();
  if (dynamic_cast<const record::ImpossibleRow*>(&error))
    return {detail, "nothing was changed", "correct it and try again"};
  const auto* sqlite = dynamic_cast<const SQLite::Exception*>(&error);
  if (!sqlite) return {fmt::format("{} cannot be used ({})", book, detail), "the last change is not kept", "try again"};
  switch (sqlite->getErrorCode()) {
    case SQLITE_CORRUPT:
    case SQLITE_NOTADB:
      return damaged(file, detail);
    case SQLITE_FULL:
      return {fmt::format("{} cannot be written: the disk is full", book),
              "what was kept before is safe; the last change is not kept", "free some space, then try again"};
    case SQLITE_BUSY:
    case SQLITE_LOCKED:
      return {fmt::format("{} is held by another program", book), "nothing was changed",
              "close that program, or wait until it is done, then try again"};
    case SQLITE_READONLY:
      return {fmt::format("{} can only be read where it lies", book), "the last change is not kept",
              "copy it to a folder of your own and open it there"};
    case SQLITE_PERM:
    case SQLITE_AUTH:
    case SQLITE_CANTOPEN:
      return {fmt::format("{} cannot be opened ({})", book, detail), "it was left as it is",
              "check the rights of the file and of its folder"};
    case SQLITE_NOMEM:
      return {fmt::format("there is no memory left to work on {}", book), "the last change is not kept",
              "close other programs, then try again"};
    case SQLITE_IOERR:
      if (no_room_beside(file))
        return {fmt::format("{} cannot be read or written: the disk is full", book),
                "what was kept before is safe; the last change is not kept", "free some space, then try again"};
      return {fmt::format("the disk failed while {} was read or written ({})", book, detail),
              "what was kept before may still be whole; the last change is not kept",
              "check the disk and its free space, then open it again"};
    default:
      return {fmt::format("{} cannot be used ({})", book, detail), "the last change is not kept", "try again"};
  }
}

}  // namespace sunbreak::book
