#include "gathering/entry_cache.h"

#include <SQLiteCpp/Database.h>
#include <SQLiteCpp/Statement.h>
#include <SQLiteCpp/Transaction.h>
#include <sqlite3.h>

#include <fmt/format.h>

#include <memory>
#include <vector>

#include "book/connection.h"
#include "core/method_version.h"
#include "exchange/files/companions.h"

namespace sunbreak::gathering {
namespace {

namespace fs = std::filesystem;

constexpr int format = 5;
constexpr int busy_ms = 200;

/// Another method gives other figures: what it gave before is no use.
std::string made_by() { return fmt::format("{}/{}", format, method_version); }

}  // namespace

EntryCache::EntryCache() = default;
EntryCache::~EntryCache() = default;
EntryCache::EntryCache(EntryCache&&) noexcept = default;

EntryCache EntryCache::beside(const fs::path& book, std::int64_t most_bytes) {
  EntryCache cache;
  cache.most_bytes_ = most_bytes;
  const fs::path file = exchange::cache_beside(book);
  try {
    cache.open(file);
  } catch (const SQLite::Exception& e) {
    cache.db_.reset();
    if (e.getErrorCode() == SQLITE_BUSY || e.getErrorCode() == SQLITE_LOCKED) return cache;
    // A damaged one is made anew, once; where that fails, too, nothing is kept.
    std::error_code error;
    fs::remove(file, error);
    try {
      cache.open(file);
    } catch (const std::exception&) {
      cache.db_.reset();
    }
  }
  return cache;
}

void EntryCache::open(const fs::path& file) {
  db_ = book::connect(file.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE | SQLite::OPEN_NOMUTEX, busy_ms);
  db_->exec("PRAGMA page_size = 16384");  // holds an entry
  db_->exec("PRAGMA mmap_size = 536870912");
  db_->exec("PRAGMA journal_mode = WAL");
  db_->exec("PRAGMA synchronous = OFF");  // losing it costs time, nothing else
  db_->exec("CREATE TABLE IF NOT EXISTS made_by(method TEXT NOT NULL)");
  db_->exec("CREATE TABLE IF NOT EXISTS entry(key TEXT PRIMARY KEY, used_on INTEGER NOT NULL, bytes BLOB NOT NULL)");
  SQLite::Statement query(*db_, "SELECT method FROM made_by");
  const std::string kept = query.executeStep() ? query.getColumn(0).getString() : std::string();
  query.reset();
  if (kept == made_by()) return;
  SQLite::Transaction transaction(*db_);
  db_->exec("DELETE FROM entry");
  db_->exec("DELETE FROM made_by");
  SQLite::Statement insert(*db_, "INSERT INTO made_by VALUES(?)");
  insert.bind(1, made_by());
  insert.exec();
  transaction.commit();
}

void EntryCache::find(std::span<const std::string> keys,
                      const std::function<void(std::size_t, std::string_view)>& take) {
  if (!db_) return;
  try {
    std::vector<const std::string*> used_again;
    auto transaction = std::make_unique<SQLite::Transaction>(*db_);  // one lock for all
    SQLite::Statement query(*db_, "SELECT bytes, used_on < CAST(julianday('now') AS INTEGER) FROM entry WHERE key = ?");
    for (std::size_t n = 0; n < keys.size(); ++n) {
      query.bindNoCopy(1, keys[n]);
      if (query.executeStep()) {
        const SQLite::Column bytes = query.getColumn(0);
        take(n, {static_cast<const char*>(bytes.getBlob()), static_cast<std::size_t>(bytes.getBytes())});
        if (query.getColumn(1).getInt() != 0) used_again.push_back(&keys[n]);
      }
      query.reset();
    }
    transaction.reset();
    mark_as_used(used_again);
  } catch (const std::exception&) {
    db_.reset();
  }
}

/// That they were asked for today; another process that writes just now is not waited for twice.
void EntryCache::mark_as_used(std::span<const std::string* const> keys) {
  if (keys.empty()) return;
  try {
    SQLite::Transaction transaction(*db_, SQLite::TransactionBehavior::IMMEDIATE);
    SQLite::Statement use(*db_, "UPDATE entry SET used_on = CAST(julianday('now') AS INTEGER) WHERE key = ?");
    for (const std::string* key : keys) {
      use.bindNoCopy(1, *key);
      use.exec();
      use.reset();
    }
    transaction.commit();
  } catch (const SQLite::Exception& e) {
    if (e.getErrorCode() != SQLITE_BUSY && e.getErrorCode() != SQLITE_LOCKED) throw;
  }
}

void EntryCache::keep(const std::map<std::string, std::string>& found) {
  if (!db_ || found.empty()) return;
  try {
    SQLite::Transaction transaction(*db_);
    SQLite::Statement insert(*db_, "INSERT OR REPLACE INTO entry VALUES(?, CAST(julianday('now') AS INTEGER), ?)");
    for (const auto& [key, bytes] : found) {
      insert.bind(1, key);
      insert.bind(2, bytes.data(), static_cast<int>(bytes.size()));
      insert.exec();
      insert.reset();
    }
    db_->exec("DELETE FROM entry WHERE used_on < CAST(julianday('now') AS INTEGER) - 90");
    // What was used last stays where it grows too large. Free pages hold nothing: the next entries go there.
    const std::int64_t held = db_->execAndGet(
                                     "SELECT (page_count - freelist_count) * page_size FROM "
                                     "pragma_page_count(), pragma_freelist_count(), pragma_page_size()")
                                  .getInt64();
    if (held > most_bytes_) {
      SQLite::Statement drop(*db_,
                             "DELETE FROM entry WHERE rowid IN (SELECT rowid FROM (SELECT rowid, sum(length(bytes)) "
                             "OVER (ORDER BY used_on DESC, rowid DESC) AS newer FROM entry) WHERE newer > ?)");
      drop.bind(1, most_bytes_ / 10 * 9);
      drop.exec();
    }
    transaction.commit();
  } catch (const std::exception&) {
    db_.reset();
  }
}

}  // namespace sunbreak::gathering
