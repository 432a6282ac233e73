#include "exchange/files/new_file.h"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <mutex>
#include <random>
#include <set>
#include <string>
#include <utility>

#include "exchange/files/targets.h"

namespace sunbreak::exchange {
namespace {

namespace fs = std::filesystem;
constexpr int tries = 16;
constexpr mode_t for_all_to_read = 0644;

fs::path folder_of(const fs::path& file) { return file.has_parent_path() ? file.parent_path() : fs::path("."); }

constexpr std::string_view partial_ending = ".partial";
constexpr std::size_t partial_length = 1 + 16 + partial_ending.size();

std::string unpredictable() {
  std::random_device random;
  return fmt::format(".{:08x}{:08x}{}", random(), random(), partial_ending);
}

/// Takes away what writers left under names of their own that were ended before they were done: nobody holds it. Once
/// a folder: what this process leaves it clears itself.
void clear_left_overs(const fs::path& folder) {
  static std::mutex alone;
  static std::set<fs::path> cleared;
  std::error_code error;
  {
    const std::lock_guard lock(alone);
    if (!cleared.insert(fs::absolute(folder, error)).second) return;
  }
  for (const auto& entry : fs::directory_iterator(folder, error)) {
    const std::string name = entry.path().filename().string();
    if (name.size() != partial_length || name.front() != '.' || !name.ends_with(partial_ending)) continue;
    const int fd = ::open(entry.path().c_str(), O_RDONLY | O_NOFOLLOW | O_CLOEXEC | O_NONBLOCK);
    if (fd < 0) continue;
    if (::flock(fd, LOCK_EX | LOCK_NB) == 0) ::unlink(entry.path().c_str());
    ::close(fd);
  }
}

/// A file under way. It has no name until it is whole, where the file system can do that; else one of its own, under
/// which nothing is left.
class Partial {
 public:
  explicit Partial(const fs::path& folder) : folder_(folder) {
    fd_ = ::open(folder.c_str(), O_TMPFILE | O_WRONLY | O_CLOEXEC, for_all_to_read);
    if (fd_ >= 0 || (errno != EOPNOTSUPP && errno != EISDIR && errno != EINVAL)) return;
    for (int i = 0; i < tries && fd_ < 0; ++i) {
      name_ = folder / unpredictable();
      fd_ = ::open(name_.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, for_all_to_read);
      if (fd_ < 0 && errno != EEXIST) break;
    }
    if (fd_ < 0)
      name_.clear();
    else
      ::flock(fd_, LOCK_EX | LOCK_NB);
  }
  ~Partial() {
    if (!name_.empty()) ::unlink(name_.c_str());
    if (fd_ >= 0) ::close(fd_);
  }
  Partial(const Partial&) = delete;
  Partial& operator=(const Partial&) = delete;

  bool is_open() const { return fd_ >= 0; }

  /// 0, or the error that kept it from being written.
  int write(std::string_view content) {
    while (!content.empty()) {
      const ssize_t n = ::write(fd_, content.data(), content.size());
      if (n < 0 && errno == EINTR) continue;
      if (n < 0) return errno;
      content.remove_prefix(static_cast<std::size_t>(n));
    }
    return ::fsync(fd_) == 0 ? 0 : errno;
  }

  int take_name(const fs::path& file, Existing existing) {
    if (existing == Existing::Keep && name_.empty()) return link_as(file);
    if (name_.empty()) {
      const fs::path own = folder_ / unpredictable();
      ::flock(fd_, LOCK_EX | LOCK_NB);
      if (const int error = link_as(own); error != 0) return error;
      name_ = own;
    }
    if (existing == Existing::Replace) return named(::rename(name_.c_str(), file.c_str()));
    if (named(::renameat2(AT_FDCWD, name_.c_str(), AT_FDCWD, file.c_str(), RENAME_NOREPLACE)) == 0) return 0;
    if (errno != EINVAL && errno != ENOSYS) return errno;
    // A file system that cannot tell: a second name is refused where there is a first.
    return ::link(name_.c_str(), file.c_str()) == 0 ? 0 : errno;
  }

 private:
  int link_as(const fs::path& file) {
    const std::string self = fmt::format("/proc/self/fd/{}", fd_);
    return ::linkat(AT_FDCWD, self.c_str(), AT_FDCWD, file.c_str(), AT_SYMLINK_FOLLOW) == 0 ? 0 : errno;
  }
  int named(int result) {
    if (result != 0) return errno;
    name_.clear();
    return 0;
  }

  fs::path folder_, name_;
  int fd_ = -1;
};

/// The new name is on disk as well.
void keep_folder(const fs::path& folder) {
  const int fd = ::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
  if (fd < 0) return;
  ::fsync(fd);
  ::close(fd);
}

}  // namespace

Problem cannot_write(const fs::path& file, int error) {
  const std::string seen = fmt::format("{} cannot be written ({})", file.string(), std::strerror(error)),
                    nothing = "nothing was written";
  switch (error) {
    case EEXIST:
      return {fmt::format("{} is there already", file.string()), "it was left as it is",
              "name another file, or move that one away"};
    case ENOSPC:
    case EDQUOT:
      return {seen, nothing, "free some space on that disk, or write to another"};
    case EACCES:
    case EPERM:
      return {seen, nothing, "you may not write there: choose a folder of your own"};
    case EROFS:
      return {seen, nothing, "that medium can only be read: choose another"};
    case ENAMETOOLONG:
      return {seen, nothing, "shorten the name"};
    case ENOENT:
    case ENOTDIR:
      return {seen, nothing, "make the folder first, or choose another"};
    case EISDIR:
      return {seen, nothing, "that is a folder: name a file in it"};
    default:
      return {seen, nothing, "check the disk, then try again"};
  }
}

namespace {

std::optional<Problem> write_whole(const fs::path& file, std::string_view content, Existing existing) {
  struct stat there {};
  if (existing == Existing::Keep && ::lstat(file.c_str(), &there) == 0) return cannot_write(file, EEXIST);
  const fs::path folder = folder_of(file);
  clear_left_overs(folder);
  Partial partial(folder);
  if (!partial.is_open()) return cannot_write(file, errno);
  int error = partial.write(content);
  if (error == 0) error = partial.take_name(file, existing);
  if (error != 0) return cannot_write(file, error);
  keep_folder(folder);
  return {};
}

}  // namespace

std::optional<Problem> write_new_file(const fs::path& file, std::string_view content, Existing existing) {
  if (auto problem = refused_as_target(file)) return problem;
  return write_whole(file, content, existing);
}

std::optional<Problem> write_companion(const fs::path& file, std::string_view content) {
  return write_whole(file, content, Existing::Replace);
}

}  // namespace sunbreak::exchange
