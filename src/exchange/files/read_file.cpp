#include "exchange/files/read_file.h"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <cstring>

#include "exchange/files/targets.h"

namespace sunbreak::exchange {
namespace {

namespace fs = std::filesystem;

class OpenFile {
 public:
  explicit OpenFile(const fs::path& file) : fd_(::open(file.c_str(), O_RDONLY | O_CLOEXEC)) {}
  ~OpenFile() {
    if (fd_ >= 0) ::close(fd_);
  }
  OpenFile(const OpenFile&) = delete;
  OpenFile& operator=(const OpenFile&) = delete;

  bool is_open() const { return fd_ >= 0; }
  bool is_folder() const {
    struct stat there {};
    return ::fstat(fd_, &there) == 0 && S_ISDIR(there.st_mode);
  }
  std::size_t size() const {
    struct stat there {};
    return ::fstat(fd_, &there) == 0 && S_ISREG(there.st_mode) ? static_cast<std::size_t>(there.st_size) : 0;
  }
  /// 0, or the error that kept it from being read on; up to `most` bytes are added.
  int read(std::string& bytes, std::size_t most) const {
    constexpr std::size_t piece = 1u << 20;
    while (bytes.size() < most) {
      const std::size_t before = bytes.size(), room = std::min(piece, most - before);
      bytes.resize(before + room);
      const ssize_t n = ::read(fd_, bytes.data() + before, room);
      bytes.resize(before + static_cast<std::size_t>(std::max<ssize_t>(n, 0)));
      if (n < 0 && errno == EINTR) continue;
      if (n < 0) return errno;
      if (n == 0) break;
    }
    return 0;
  }

 private:
  int fd_;
};

Problem cannot_read(const fs::path& file, int error) {
  const char* remedy = error == ENOENT || error == ENOTDIR ? "check the path"
                       : error == EACCES || error == EPERM ? "you may not read it: ask whose it is, or copy it"
                                                           : "check the disk, then try again";
  return {fmt::format("{} cannot be read ({})", file.string(), std::strerror(error)), "", remedy};
}

}  // namespace

Result<std::string> read_file(const fs::path& file, std::size_t most_bytes) {
  note_source(file);
  return read_back(file, most_bytes);
}

Result<std::string> read_back(const fs::path& file, std::size_t most_bytes) {
  const auto too_large = [&] {
    return Problem{fmt::format("{} is larger than {} MB", file.string(), most_bytes >> 20),
                   "nothing of this kind is, and it was not read to its end", "check that it is the right file"};
  };
  const OpenFile open(file);
  if (!open.is_open()) return cannot_read(file, errno);
  if (open.is_folder()) return Problem{fmt::format("{} is a folder", file.string()), "", "name a file in it"};
  if (open.size() > most_bytes) return too_large();
  std::string bytes;
  bytes.reserve(open.size());
  if (const int error = open.read(bytes, most_bytes + 1); error != 0) return cannot_read(file, error);
  if (bytes.size() > most_bytes) return too_large();
  return bytes;
}

std::string first_bytes(const fs::path& file, std::size_t count) {
  struct stat there {};
  std::string bytes;
  if (::stat(file.c_str(), &there) != 0 || !S_ISREG(there.st_mode)) return bytes;
  const OpenFile open(file);
  if (open.is_open()) open.read(bytes, count);
  return bytes;
}

}  // namespace sunbreak::exchange
