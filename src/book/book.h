#pragma once

#include <filesystem>
#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "book/change.h"
#include "book/row_mapping.h"
#include "core/result.h"
#include "core/sweep/correction.h"
#include "record/test_record.h"
#include "record/utc.h"

namespace sunbreak::book {

class Book;

/// The right to write, inside Book::edit. All of it lands in one transaction, or none.
class Edit {
 public:
  /// Adds a record; one whose id is 0 gets a new one. Returns the id.
  template <typename Record>
  Id add(const Record& record) {
    return add(kind_of<Record>(), &record);
  }
  Id add(const Kind& kind, const void* row) { return rows_.insert(kind, row); }

  template <typename Record>
  void save(const Record& record) {
    rows_.update(kind_of<Record>(), &record);
  }

  /// Takes a record away with all that is part of it or names it within its test. Readings are kept for ever.
  template <typename Record>
  void erase(Id id) {
    erase(kind_of<Record>(), id);
  }

  /// Keeps a raw value for ever and makes it the one that counts at its station. Returns the reading's id. Throws
  /// ImpossibleRow where no light is so once it is corrected as its sweep says.
  Id accept(const Reading& reading);

  /// Declares a station missing; what was read there is kept but no longer counts.
  void declare_missing(Id sweep_id, int station, const std::string& note);

  /// Keeps a picture's file for ever, once, whatever becomes of the records that name it. Returns its digest.
  std::string keep_picture(std::string_view bytes);

  /// Takes back what is known of a station, as if it had not been visited.
  void clear_station(Id sweep_id, int station);

 private:
  friend class Book;
  Edit(SQLite::Database& db, RowWriter& rows) : db_(db), rows_(rows) {}
  void place(const Placement& placement);
  void erase(const Kind& kind, Id id);
  /// As it was when it was first asked for within this edit.
  const Correction& correction_for(Id sweep_id);
  SQLite::Database& db_;
  RowWriter& rows_;
  std::optional<std::pair<Id, Correction>> correction_;
};

/// The lab book: one SQLite file, the one truth. Owns the connection and, when it may write, the lock that keeps a
/// second writer out. An accepted edit is on disk when edit() returns (write-ahead log, full synchronisation).
class Book {
 public:
  enum class Mode { ReadWrite, ReadOnly };

  /// Opens a lab book, making it where there is none. A second instance gets it read-only, and so does who may only
  /// read the file or its folder. Refused with a clear sentence: a newer schema, a damaged file (with the way to the
  /// newest backup), a file that is no lab book, and whatever book/trouble.h tells apart. An older schema is migrated
  /// after a backup; the first writer of a day leaves a backup behind.
  static Result<std::unique_ptr<Book>> open(const std::filesystem::path& file, Mode mode = Mode::ReadWrite);
  /// Another connection to a lab book that is open in this process, only for reading: for another thread, which sees
  /// what is committed when it reads. Throws BookTrouble where it cannot be opened.
  static std::unique_ptr<const Book> read_beside(const std::filesystem::path& file);
  ~Book();

  const std::filesystem::path& file() const { return file_; }
  bool read_only() const { return read_only_; }
  /// Why it is, in words; empty where it was asked for.
  const std::string& why_read_only() const { return why_read_only_; }
  /// What is worth knowing of how it opened: no backup of today, work that may be missing. Empty where nothing is.
  const std::string& notice() const { return notice_; }

  template <typename Record>
  std::optional<Record> find(Id id) const {
    auto rows = select<Record>(*db_, damaged_, "WHERE id = ?", id);
    return rows.empty() ? std::nullopt : std::optional(std::move(rows.front()));
  }
  template <typename Record, typename... Values>
  std::vector<Record> all(const std::string& condition = "ORDER BY id", const Values&... values) const {
    return select<Record>(*db_, damaged_, condition, values...);
  }

  /// Reads the rows of a kind where `condition` holds, `id` bound to ?1, each into the record that `add` gives.
  void read(const Kind& kind, const std::string& condition, Id id, const std::function<void*()>& add) const;

  /// Those of the rows read so far that are not as they were written.
  const DamagedRows& damaged() const { return damaged_; }

  /// Which of all its rows are not as they were written: the tests and things of the shelves that they are of, and the
  /// newest backup, in words; empty where all are. A pass over the whole file.
  std::string damage_words(const std::stop_token& stop = {}) const;

  /// How many rows of a kind there are where `condition` holds, `id` bound to ?1.
  int count(const Kind& kind, const std::string& condition, Id id) const;

  /// A picture's file; nothing where there is none, or it is damaged.
  std::optional<std::string> picture(const std::string& digest) const;

  /// Runs `change` as one undoable edit with a name in the user's words. Nothing is kept where it throws or changes
  /// nothing.
  void edit(const std::string& label, const std::function<void(Edit&)>& change);

  /// Writes a stretch of a log being recorded, without a step of undo and without announcing it. Gives a new one its
  /// id.
  void keep(LogPart& part);

  /// Runs `act`, whose edits are made, looked at by `look` while they stand, and taken back: nothing is kept and
  /// nothing is announced. Shows what a change would do before it is made.
  void rehearse(const std::function<void()>& act, const std::function<void()>& look);

  /// How far the lab book's history has come, and how many steps of it that stand lie after one.
  std::int64_t last_edit() const;
  int edits_after(std::int64_t edit) const;

  /// The names of the edits that undo() and redo() would act on.
  std::optional<std::string> undo_label() const;
  std::optional<std::string> redo_label() const;
  bool undo();
  bool redo();

  /// What was done so far can no longer be undone; for data that was not the user's doing.
  void forget_history();

  /// A token for each test, another one after each change of what is part of it: where it is the same, so is the test,
  /// in this file, a copy and a backup. What stands on a shelf is not part of a test.
  std::map<Id, std::string> content_tokens() const;
  /// The same of one test; empty where there is none.
  std::string content_token(Id test_id) const;

  /// Counts up with each change, own or undone; what is worked out from the book is stale when it has moved.
  std::uint64_t revision() const { return revision_; }

  /// Called after each change, own or undone, with what it touched.
  std::function<void(const Change&)> on_change;

  /// The newest backup beside a lab book's file, if there is one.
  static std::optional<std::filesystem::path> newest_backup(const std::filesystem::path& file);
  /// The newest of which every row is as it was written: one made after a row was damaged holds the damage.
  static std::optional<std::filesystem::path> newest_sound_backup(const std::filesystem::path& file);
  /// Copies the newest backup that is sound beside the lab book, under a name that is free; the lab book's file and the
  /// backups stay as they are. Returns the copy; refused where there is none, or it cannot be written.
  static Result<std::filesystem::path> copy_backup_beside(const std::filesystem::path& file);

 private:
  Book() = default;
  bool step_history(bool undoing);
  void bring_back_pictures(const std::filesystem::path& folder);
  std::optional<std::string> history_label(bool undone) const;
  void announce(const Change& change);
  /// Gives the tests that a changeset touched new tokens; tells what it touched.
  Change mark_changed(const std::string& changeset);
  void renew_content(Id test_id);
  void back_up_today();
  void look_for_lost_work();
  void acknowledge() noexcept;

  std::filesystem::path file_;
  std::unique_ptr<SQLite::Database> db_;
  std::unique_ptr<RowWriter> rows_;  ///< gone before its database
  mutable DamagedRows damaged_;
  int lock_ = -1;
  bool read_only_ = false;
  std::string why_read_only_, notice_;
  std::function<void()> rehearsal_;
  std::uint64_t revision_ = 0;
};

/// The present moment as records hold it.
std::string utc_now();

}  // namespace sunbreak::book
