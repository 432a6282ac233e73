#include "book/book.h"

#include <SQLiteCpp/Transaction.h>
#include <fcntl.h>
#include <fmt/format.h>
#include <sqlite3.h>
#include <sys/file.h>
#include <unistd.h>

#include <cerrno>
#include <charconv>
#include <chrono>
#include <cstring>

#include "book/backup.h"
#include "book/changeset.h"
#include "book/connection.h"
#include "book/picture_store.h"
#include "book/row_sum.h"
#include "book/schema.h"
#include "book/trouble.h"
#include "exchange/files/companions.h"
#include "exchange/files/digest.h"
#include "exchange/files/new_file.h"
#include "exchange/files/targets.h"
#include "record/faults.h"
#include "record/plan_grid.h"

namespace sunbreak::book {
namespace fs = std::filesystem;
namespace {

constexpr int undo_steps_kept = 5000;
/// While a lab book is opened, which someone waits for, and once it is put away.
constexpr std::size_t most_pictures_at_opening = 24u << 20, most_pictures_at_closing = 256u << 20;

/// The writer's lock: the file of it, or why there is none.
struct Lock {
  int file = -1;
  std::string why_not;
};

/// Takes the writer's lock. The kernel lets go of it when this process ends; a file that a dead one left behind, of
/// whatever user, holds nothing.
Lock take_lock(const fs::path& file) {
  const fs::path name = exchange::lock_beside(file);
  int lock = ::open(name.c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0644);
  if (lock < 0) lock = ::open(name.c_str(), O_RDONLY | O_CLOEXEC);
  if (lock < 0)
    return {-1,
            fmt::format("its folder cannot be written to ({}); copy the lab book to a folder of your own to change it",
                        std::strerror(errno))};
  if (flock(lock, LOCK_EX | LOCK_NB) == 0) return {lock, ""};
  close(lock);
  return {-1, "another window has this lab book open; changes are made there"};
}

/// How many readings were acknowledged, as the lock file has it; 0 where it says nothing.
std::int64_t acknowledged(int lock) {
  char text[32] = {};
  const ssize_t size = ::pread(lock, text, sizeof text - 1, 0);
  std::int64_t count = 0;
  if (size > 0) std::from_chars(text, text + size, count);
  return count;
}

std::int64_t readings_kept(const SQLite::Database& db) {
  SQLite::Statement last(db, "SELECT coalesce(max(id), 0) FROM reading");
  return last.executeStep() ? last.getColumn(0).getInt64() : 0;
}

/// "ok", or what is wrong with the database. A damaged picture hurts nothing else, and to read them all takes seconds:
/// where there are some, the other tables are looked at one by one.
std::string verdict_of(SQLite::Database& db) {
  if (!has_pictures(db)) return db.execAndGet("PRAGMA integrity_check").getString();
  SQLite::Statement tables(db, "SELECT name FROM sqlite_master WHERE type = 'table' AND name <> 'picture_file'");
  while (tables.executeStep())
    if (const std::string verdict =
            db.execAndGet(fmt::format("PRAGMA integrity_check('{}')", tables.getColumn(0).getString())).getString();
        verdict != "ok")
      return verdict;
  return "ok";
}

/// Nothing where the file can be used as a lab book.
std::optional<Problem> examine(SQLite::Database& db, const fs::path& file) {
  const int version = db.execAndGet("PRAGMA user_version").getInt();
  const int tables = db.execAndGet("SELECT count(*) FROM sqlite_master").getInt();
  const int mark = db.execAndGet("PRAGMA application_id").getInt();
  if (tables > 0 && mark != application_id)
    return Problem{fmt::format("{} is an SQLite file but not a lab book", file.string()), "it was left as it is",
                   "choose another file"};
  if (version > schema_version())
    return Problem{fmt::format("the lab book {} was written by a newer Sunbreak (schema {}, this one knows {})",
                               file.string(), version, schema_version()),
                   "it was left as it is", "install the newer version to open it"};
  if (tables > 0)
    if (const auto foreign = foreign_schema(db, version))
      return Problem{fmt::format("{} is not as Sunbreak makes lab books: {}", file.string(), *foreign),
                     "it was not opened, and nothing in it was run or changed",
                     "ask whoever it is from for a data package of the test, or open a backup of it"};
  const std::string verdict = verdict_of(db);
  if (verdict != "ok") return damaged(file, verdict.substr(0, verdict.find('\n')));
  return {};
}

}  // namespace

std::string utc_now() {
  const auto now = std::chrono::system_clock::now().time_since_epoch();
  return utc_text(static_cast<double>(std::chrono::duration_cast<std::chrono::milliseconds>(now).count()) / 1000);
}

Result<std::unique_ptr<Book>> Book::open(const fs::path& path, Mode mode) {
  std::unique_ptr<Book> book(new Book);
  std::error_code error;
  // By its real name: a link to a book that is open elsewhere is that book.
  book->file_ = fs::weakly_canonical(fs::absolute(path, error), error);
  if (error) return cannot_open(path, error.value());
  const fs::path& file = book->file_;
  const bool exists = fs::exists(file, error);
  if (error) return cannot_open(file, error.value());
  if (mode == Mode::ReadOnly && !exists)
    return Problem{fmt::format("there is no lab book at {}", file.string()), "", "check the path"};
  if (exists && fs::is_directory(file, error)) return cannot_open(file, EISDIR);
  if (exists && ::access(file.c_str(), R_OK) != 0) return cannot_open(file, errno);
  if (exists && mode == Mode::ReadOnly && fs::is_regular_file(file, error) && fs::file_size(file, error) == 0)
    return Problem{fmt::format("{} is empty", file.string()), "whatever made it was ended before it wrote a lab book",
                   "remove it, and open another"};
  exchange::note_source(file);
  if (!exists) {
    if (auto problem = exchange::refused_as_target(file)) return *problem;
    fs::create_directories(file.parent_path(), error);
    if (error) return exchange::cannot_write(file, error.value());
    if (::access(file.parent_path().c_str(), W_OK) != 0) return exchange::cannot_write(file, errno);
  }
  if (mode == Mode::ReadWrite) {
    if (exists && ::access(file.c_str(), W_OK) != 0) {
      book->why_read_only_ = fmt::format("the file may only be read ({}); copy it to a folder of your own to change it",
                                         std::strerror(errno));
    } else {
      Lock lock = take_lock(file);
      book->lock_ = lock.file;
      book->why_read_only_ = lock.why_not;
    }
  }
  book->read_only_ = book->lock_ < 0;
  if (book->read_only_ && !exists)
    return Problem{fmt::format("the lab book {} cannot be made", file.string()), book->why_read_only_,
                   "choose another folder"};
  try {
    book->db_ = book->read_only_ ? connect_read_only(file)
                                 : connect(file.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    SQLite::Database& db = *book->db_;
    book->rows_ = std::make_unique<RowWriter>(db);
    if (auto problem = examine(db, file)) return *problem;
    const int version = db.execAndGet("PRAGMA user_version").getInt();
    if (book->read_only_ && version < schema_version())
      return Problem{fmt::format("the lab book {} is of an older schema", file.string()),
                     "to be read it has to be brought up to date, which was not done: " +
                         (mode == Mode::ReadOnly ? "only the window does that" : book->why_read_only_),
                     mode == Mode::ReadOnly ? "open it once in the window, which keeps a backup of it as it was"
                                            : "then open it again"};
    db.exec("PRAGMA foreign_keys = ON");
    if (!book->read_only_) {
      db.execAndGet("PRAGMA journal_mode = WAL");
      db.exec("PRAGMA synchronous = FULL");
      if (version < schema_version()) {
        if (version > 0) back_up(db, file, fmt::format("before-schema-{}", schema_version()));
        migrate(db);
      } else {
        book->back_up_today();
      }
    }
    if (version > 0)
      book->look_for_lost_work();
    else
      book->acknowledge();  // what an earlier book of this name had is not this one's
  } catch (const fs::filesystem_error& e) {
    return Problem{fmt::format("no backup of {} could be written ({})", file.string(), e.code().message()),
                   "it was not brought up to date without one", "free some space or check the folder's rights"};
  } catch (const BookTrouble& told) {
    return told.problem();
  } catch (const SQLite::Exception& e) {
    return trouble_with(file, e);
  }
  return book;
}

/// A day without a backup is told, but work does not wait for it.
void Book::back_up_today() {
  try {
    back_up(*db_, file_, utc_now().substr(0, 10));
    back_up_pictures(*db_, file_, most_pictures_at_opening);
  } catch (const std::exception& e) {
    notice_ = fmt::format("No backup of today could be written ({}): free some space, or check the rights of {}.",
                          e.what(), exchange::backups_beside(file_).string());
  }
}

/// The log of the last work can be lost with a copy or a crash of the disk: the lock file beside it knows how far that
/// was.
void Book::look_for_lost_work() {
  if (lock_ < 0) return;
  const std::int64_t said = acknowledged(lock_), kept = readings_kept(*db_);
  if (said <= kept) return;
  const auto backup = newest_backup(file_);
  notice_ +=
      fmt::format("{}The last work may be missing: {} readings were kept here before that are not in the file now.{}",
                  notice_.empty() ? "" : " ", said - kept,
                  backup ? fmt::format(" The newest backup is {}.", backup->string()) : "");
}

/// Not awaited, and no failure of the edit that it follows: what it says too little of is never missed wrongly.
void Book::acknowledge() noexcept {
  if (lock_ < 0) return;
  try {
    const std::string text = fmt::format("{:<20}\n", readings_kept(*db_));
    [[maybe_unused]] const ssize_t written = ::pwrite(lock_, text.data(), text.size(), 0);
  } catch (const std::exception&) {
    return;
  }
}

std::unique_ptr<const Book> Book::read_beside(const fs::path& file) {
  std::unique_ptr<Book> book(new Book);
  book->file_ = file;
  book->read_only_ = true;
  try {
    book->db_ = connect_read_only(file, SQLite::OPEN_READONLY | SQLite::OPEN_NOMUTEX);
    book->db_->exec("PRAGMA mmap_size = 268435456");
  } catch (const std::exception& e) {
    throw BookTrouble(::access(file.c_str(), R_OK) == 0 ? trouble_with(file, e) : cannot_open(file, errno));
  }
  return book;
}

Book::~Book() {
  try {
    if (db_ && !read_only_) back_up_pictures(*db_, file_, most_pictures_at_closing);
  } catch (const std::exception&) {
    // The next opening tries again, and says so.
  }
  rows_.reset();
  db_.reset();
  if (lock_ >= 0) close(lock_);
}

void Edit::place(const Placement& placement) { rows_.put(kind_of<Placement>(), &placement, "sweep_id, station"); }

const Correction& Edit::correction_for(Id sweep_id) {
  if (correction_ && correction_->first == sweep_id) return correction_->second;
  SQLite::Statement query(
      db_, "SELECT dark_offset, calibration_factor, spectral_factor, moved_factor FROM sweep WHERE id = ?");
  query.bind(1, sweep_id);
  Sweep sweep;
  if (query.executeStep()) {
    sweep.dark_offset = query.getColumn(0), sweep.calibration_factor = query.getColumn(1);
    sweep.spectral_factor = query.getColumn(2), sweep.moved_factor = query.getColumn(3);
  }
  return correction_.emplace(sweep_id, record::correction_of(sweep)).second;
}

Id Edit::accept(const Reading& reading) {
  // What could not be read again from the lab book is not taken into it.
  if (const auto fault = record::light_fault(reading.raw, correction_for(reading.sweep_id)))
    throw record::ImpossibleRow(*fault);
  const Id id = add(reading);
  place({0, reading.sweep_id, reading.station, id, ""});
  return id;
}

void Edit::erase(const Kind& kind, Id id) {
  for (const Kind& other : kinds()) {
    if (!other.parent() || !other.facts.undoable) continue;
    for (const Column& column : other.columns) {
      if (column.refers_to != kind.name()) continue;
      SQLite::Statement query(db_, fmt::format("SELECT id FROM {} WHERE {} = ?", other.name(), column.name));
      query.bind(1, id);
      std::vector<Id> parts;
      while (query.executeStep()) parts.push_back(query.getColumn(0).getInt64());
      for (const Id part : parts) erase(other, part);
    }
  }
  rows_.erase(kind, id);
}

std::string Edit::keep_picture(std::string_view bytes) {
  const std::string digest = exchange::sha256_digits(bytes);
  store_picture(db_, digest, bytes);
  return digest;
}

void Edit::declare_missing(Id sweep_id, int station, const std::string& note) {
  place({0, sweep_id, station, std::nullopt, note});
}

void Edit::clear_station(Id sweep_id, int station) {
  DamagedRows damaged;
  for (const Placement& p : select<Placement>(db_, damaged, "WHERE sweep_id = ? AND station = ?", sweep_id, station))
    erase<Placement>(p.id);
}

void Book::edit(const std::string& label, const std::function<void(Edit&)>& change) {
  if (read_only_) throw std::runtime_error("the lab book is open read-only");
  SQLite::Transaction transaction(*db_);
  Edit edit(*db_, *rows_);
  if (rehearsal_) {
    change(edit);
    return rehearsal_();  // the transaction ends here without a commit
  }
  const std::string changeset = record_changeset(*db_, [&] { change(edit); });
  if (changeset.empty()) return;
  db_->exec("DELETE FROM edit_log WHERE undone = 1");
  SQLite::Statement log(*db_, "INSERT INTO edit_log(at, label, changeset, row_sum) VALUES(?, ?, ?, ?)");
  log.bind(1, utc_now());
  log.bind(2, label);
  log.bind(3, changeset.data(), static_cast<int>(changeset.size()));
  log.bind(4, text_sum(changeset));
  log.exec();
  SQLite::Statement prune(*db_, "DELETE FROM edit_log WHERE id <= ?");
  prune.bind(1, static_cast<std::int64_t>(db_->getLastInsertRowid() - undo_steps_kept));
  prune.exec();
  const Change made = mark_changed(changeset);
  transaction.commit();
  acknowledge();
  announce(made);
}

void Book::read(const Kind& kind, const std::string& condition, Id id, const std::function<void*()>& add) const {
  SQLite::Statement statement(*db_, select_text(kind) + condition);
  statement.bind(1, id);
  read_rows(statement, kind, add, damaged_);
}

int Book::count(const Kind& kind, const std::string& condition, Id id) const {
  SQLite::Statement statement(*db_, fmt::format("SELECT count(*) FROM {} {}", kind.name(), condition));
  statement.bind(1, id);
  return statement.executeStep() ? statement.getColumn(0).getInt() : 0;
}

std::optional<std::string> Book::picture(const std::string& digest) const { return stored_picture(*db_, digest); }

void Book::bring_back_pictures(const fs::path& folder) { book::bring_back_pictures(*db_, folder); }

void Book::keep(LogPart& part) {
  if (read_only_) throw std::runtime_error("the lab book is open read-only");
  SQLite::Transaction transaction(*db_);
  if (part.id == 0)
    part.id = rows_->insert(kind_of<LogPart>(), &part);
  else
    rows_->update(kind_of<LogPart>(), &part);
  renew_content(part.test_id);
  transaction.commit();
}

void Book::rehearse(const std::function<void()>& act, const std::function<void()>& look) {
  if (read_only_) return;
  rehearsal_ = look;
  try {
    act();
  } catch (...) {
    rehearsal_ = nullptr;
    throw;
  }
  rehearsal_ = nullptr;
}

std::optional<std::string> Book::history_label(bool undone) const {
  SQLite::Statement query(*db_, undone ? "SELECT label FROM edit_log WHERE undone = 1 ORDER BY id LIMIT 1"
                                       : "SELECT label FROM edit_log WHERE undone = 0 ORDER BY id DESC LIMIT 1");
  if (!query.executeStep()) return {};
  return query.getColumn(0).getString();
}

std::int64_t Book::last_edit() const {
  return db_->execAndGet("SELECT coalesce(max(id), 0) FROM edit_log WHERE undone = 0").getInt64();
}

int Book::edits_after(std::int64_t edit) const {
  SQLite::Statement query(*db_, "SELECT count(*) FROM edit_log WHERE undone = 0 AND id > ?");
  query.bind(1, edit);
  return query.executeStep() ? query.getColumn(0).getInt() : 0;
}

std::optional<std::string> Book::undo_label() const { return history_label(false); }
std::optional<std::string> Book::redo_label() const { return history_label(true); }
bool Book::undo() { return step_history(true); }
bool Book::redo() { return step_history(false); }

void Book::forget_history() { db_->exec("DELETE FROM edit_log"); }

bool Book::step_history(bool undoing) {
  if (read_only_) return false;
  SQLite::Transaction transaction(*db_);
  SQLite::Statement query(
      *db_, undoing ? "SELECT id, changeset, row_sum FROM edit_log WHERE undone = 0 ORDER BY id DESC LIMIT 1"
                    : "SELECT id, changeset, row_sum FROM edit_log WHERE undone = 1 ORDER BY id LIMIT 1");
  if (!query.executeStep()) return false;
  const Id id = query.getColumn(0).getInt64();
  const SQLite::Column blob = query.getColumn(1);
  const std::string changeset(static_cast<const char*>(blob.getBlob()), static_cast<std::size_t>(blob.getBytes()));
  if (text_sum(changeset) != query.getColumn(2).getInt64())
    throw BookTrouble({fmt::format("the history of the lab book {} is not as it was written", file_.string()),
                       "that step was neither undone nor redone; nothing was changed",
                       "go on by hand, and compare with a backup"});
  query.reset();
  apply_changeset(*db_, changeset, undoing);
  SQLite::Statement mark(*db_, "UPDATE edit_log SET undone = ? WHERE id = ?");
  mark.bind(1, undoing ? 1 : 0);
  mark.bind(2, id);
  mark.exec();
  const Change made = mark_changed(changeset);
  transaction.commit();
  announce(made);
  return true;
}

Change Book::mark_changed(const std::string& changeset) {
  Change change = change_of(*db_, changeset);
  for (const Id test : change.tests) renew_content(test);
  return change;
}

void Book::renew_content(Id test_id) {
  SQLite::Statement renew(
      *db_,
      "INSERT INTO content_token(test_id, token) VALUES(?, hex(randomblob(8))) ON CONFLICT(test_id) "
      "DO UPDATE SET token = excluded.token");
  renew.bind(1, test_id);
  renew.exec();
}

std::map<Id, std::string> Book::content_tokens() const {
  std::map<Id, std::string> tokens;
  SQLite::Statement query(*db_, "SELECT test_id, token FROM content_token");
  while (query.executeStep()) tokens[query.getColumn(0).getInt64()] = query.getColumn(1).getString();
  return tokens;
}

std::string Book::content_token(Id test_id) const {
  SQLite::Statement query(*db_, "SELECT token FROM content_token WHERE test_id = ?");
  query.bind(1, test_id);
  return query.executeStep() ? query.getColumn(0).getString() : std::string();
}

void Book::announce(const Change& change) {
  ++revision_;
  if (on_change) on_change(change);
}

}  // namespace sunbreak::book
