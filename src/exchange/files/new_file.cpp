#include "exchange/files/new_file.h"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <random>

namespace sunbreak::exchange {
namespace {

namespace fs = std::filesystem;
constexpr int tries = 16;
constexpr mode_t for_all_to_read = 0644;

fs::path folder_of(const fs::path& file) { return file.has_parent_path() ? file.parent_path() : fs::path("."); }

std::string unpredictable() {
  std::random_device random;
  return fmt::format(".{:08x}{:08x}.partial", random(), random());
}

/// A file under way: gone at the end, unless it took its final name.
class Partial {
 public:
  explicit Partial(const fs::path& folder) {
    for (int i = 0; i < tries && fd_ < 0; ++i) {
      path_ = folder / unpredictable();
      fd_ = ::open(path_.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, for_all_to_read);
      if (fd_ < 0 && errno != EEXIST) break;
    }
    if (fd_ < 0) path_.clear();
  }
  ~Partial() {
    if (fd_ >= 0) ::close(fd_);
    if (!path_.empty()) ::unlink(path_.c_str());
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
    const int fd = std::exchange(fd_, -1);
    if (::close(fd) != 0) return errno;
    if (existing == Existing::Replace) {
      if (::rename(path_.c_str(), file.c_str()) != 0) return errno;
      path_.clear();
      return 0;
    }
    if (::renameat2(AT_FDCWD, path_.c_str(), AT_FDCWD, file.c_str(), RENAME_NOREPLACE) == 0) {
      path_.clear();
      return 0;
    }
    if (errno != EINVAL && errno != ENOSYS) return errno;
    // A file system that cannot tell: a second name is refused where there is a first.
    return ::link(path_.c_str(), file.c_str()) == 0 ? 0 : errno;
  }

 private:
  fs::path path_;
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

bool same_file(const fs::path& a, const fs::path& b) {
  std::error_code error;
  return fs::equivalent(a, b, error) && !error;
}

std::optional<Problem> write_new_file(const fs::path& file, std::string_view content, Existing existing) {
  struct stat there {};
  if (existing == Existing::Keep && ::lstat(file.c_str(), &there) == 0) return cannot_write(file, EEXIST);
  const fs::path folder = folder_of(file);
  Partial partial(folder);
  if (!partial.is_open()) return cannot_write(file, errno);
  int error = partial.write(content);
  if (error == 0) error = partial.take_name(file, existing);
  if (error != 0) return cannot_write(file, error);
  keep_folder(folder);
  return {};
}

}  // namespace sunbreak::exchange
