#include "exchange/files/targets.h"

#include <fmt/format.h>
#include <sys/stat.h>

#include <mutex>
#include <set>
#include <string>
#include <utility>

#include "exchange/files/companions.h"

namespace sunbreak::exchange {
namespace {

namespace fs = std::filesystem;

using Inode = std::pair<dev_t, ino_t>;

struct Sources {
  std::mutex alone;
  int holders = 0;
  std::set<Inode> read;
};

Sources& sources() {
  static Sources all;
  return all;
}

std::optional<Inode> inode_of(const fs::path& file) {
  struct stat there {};
  if (::stat(file.c_str(), &there) != 0) return {};
  return Inode{there.st_dev, there.st_ino};
}

Problem left_as_it_is(std::string seen, const char* remedy = "name another file") {
  return {std::move(seen), "it was left as it is", remedy};
}

}  // namespace

HeldSources::HeldSources() {
  const std::lock_guard lock(sources().alone);
  ++sources().holders;
}

HeldSources::~HeldSources() {
  const std::lock_guard lock(sources().alone);
  if (--sources().holders == 0) sources().read.clear();
}

void note_source(const fs::path& file) {
  const auto inode = inode_of(file);
  const std::lock_guard lock(sources().alone);
  if (inode && sources().holders > 0) sources().read.insert(*inode);
}

std::optional<Problem> refused_as_target(const fs::path& file) {
  std::error_code error;
  const fs::path whole = fs::absolute(file, error).lexically_normal();
  const fs::path folder = fs::weakly_canonical(whole.parent_path(), error);
  const fs::path name = error ? whole : folder / whole.filename();
  for (fs::path part = name; part.has_relative_path(); part = part.parent_path())
    if (const auto book = lab_book_of(part))
      return left_as_it_is(fmt::format("{} belongs to the lab book {}", file.string(), book->filename().string()));
  struct stat there {};
  if (::lstat(file.c_str(), &there) != 0) return {};
  const bool link = S_ISLNK(there.st_mode);
  if (link && ::stat(file.c_str(), &there) != 0) return {};
  if (!link && S_ISDIR(there.st_mode))
    return left_as_it_is(fmt::format("{} is a folder", file.string()), "name a file in it");
  if (!link && !S_ISREG(there.st_mode))
    return left_as_it_is(fmt::format("{} is a device or a pipe, not a file", file.string()));
  {
    const std::lock_guard lock(sources().alone);
    if (sources().read.contains({there.st_dev, there.st_ino}))
      return left_as_it_is(fmt::format("{} is what is read from", file.string()));
  }
  if (is_lab_book(file)) return left_as_it_is(fmt::format("{} is a database, as lab books are", file.string()));
  return {};
}

}  // namespace sunbreak::exchange
