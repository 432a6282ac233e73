#pragma once

#include <cstdint>
#include <filesystem>
#include <functional>
#include <map>
#include <memory>
#include <span>
#include <string>
#include <string_view>

namespace SQLite {
class Database;
}

namespace sunbreak::gathering {

/// What tests were worked out to, kept in a file beside the lab book by their content and by the method that worked
/// them out. Never the truth: it may be deleted at any time, and one that is damaged, of another build or not writable
/// is as good as none. Asked by one thread at a time.
class EntryCache {
 public:
  /// The cache of a lab book, in cache_beside() it; makes the file where there is none. Where that cannot be, it keeps
  /// nothing.
  static EntryCache beside(const std::filesystem::path& book, std::int64_t most_bytes = std::int64_t{512} << 20);
  /// One that keeps nothing.
  EntryCache();
  ~EntryCache();
  EntryCache(EntryCache&&) noexcept;

  /// Tells `take` of those of the keys that are kept: the place among them, and the bytes, which last as long as the
  /// call.
  void find(std::span<const std::string> keys, const std::function<void(std::size_t, std::string_view)>& take);
  /// Keeps what was found. What nobody has asked for in three months is dropped, and what was used longest ago where
  /// the entries take more than `most_bytes`.
  void keep(const std::map<std::string, std::string>& found);

 private:
  void open(const std::filesystem::path& file);
  void mark_as_used(std::span<const std::string* const> keys);
  std::unique_ptr<SQLite::Database> db_;
  std::int64_t most_bytes_ = 0;
};

}  // namespace sunbreak::gathering
