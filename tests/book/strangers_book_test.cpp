#include <SQLiteCpp/Database.h>
#include <gtest/gtest.h>

#include <cmath>

#include "book/demo/demo_book.h"
#include "book/flip_rounds.h"
#include "book/row_sum.h"
#include "book/temporary_book.h"
#include "book/trouble.h"

using namespace sunbreak;
using namespace sunbreak::book;

namespace {

/// What another program does to a lab book that is closed.
void by_another_program(TemporaryBook& folder, const std::string& sql) {
  folder.close();
  SQLite::Database db(folder.file().string(), SQLite::OPEN_READWRITE);
  db.exec(sql);
}

std::string how_it_is_refused(const TemporaryBook& folder) {
  const auto in = [&](Book::Mode mode) {
    const auto opened = Book::open(folder.file(), mode);
    return opened ? "opened" : opened.problem().sentence();
  };
  const std::string words = in(Book::Mode::ReadOnly);
  EXPECT_EQ(in(Book::Mode::ReadWrite), words);
  return words;
}

bool holds(const std::string& words, const std::string& part) { return words.find(part) != std::string::npos; }

}  // namespace

TEST(StrangersBook, WhatActsByItselfIsRefusedAndNotRun) {
  for (const auto& [sql, told] : std::vector<std::pair<std::string, std::string>>{
           {"CREATE TRIGGER helpful AFTER INSERT ON test BEGIN DELETE FROM reading; END",
            "trigger of its own, 'helpful'"},
           {"CREATE TRIGGER on_update AFTER UPDATE ON sweep BEGIN UPDATE reading SET raw = 2 * raw; END",
            "'on_update'"},
           {"CREATE VIEW v AS SELECT * FROM reading", "view of its own, 'v'"},
           {"ALTER TABLE reading RENAME TO r; CREATE VIEW reading AS SELECT * FROM r", "view of its own, 'reading'"},
           {"CREATE VIRTUAL TABLE words USING fts5(text)", "computed table of its own, 'words'"}}) {
    TemporaryBook folder;
    const Id sweep = folder.add_sweep();
    folder->edit("read", [&](Edit& e) { e.accept({0, sweep, 0, 400, "typed", utc_now()}); });
    by_another_program(folder, sql);
    EXPECT_TRUE(holds(how_it_is_refused(folder), told)) << sql << ": " << how_it_is_refused(folder);
    SQLite::Database db(folder.file().string(), SQLite::OPEN_READONLY);
    EXPECT_EQ(db.execAndGet("SELECT count(*) FROM reading").getInt(), 1) << sql;
  }
}

TEST(StrangersBook, AMissingColumnOrTableIsNamed) {
  for (const auto& [sql, told] : std::vector<std::pair<std::string, std::string>>{
           {"ALTER TABLE wall_reading DROP COLUMN voltage_v", "its table wall_reading has no column voltage_v"},
           {"DROP TABLE placement", "its table placement is not there"},
           {"ALTER TABLE meter DROP COLUMN factor; ALTER TABLE meter ADD COLUMN factor REAL AS (2.0)",
            "its table meter has no column factor"}}) {
    TemporaryBook folder;
    by_another_program(folder, sql);
    EXPECT_TRUE(holds(how_it_is_refused(folder), told)) << sql << ": " << how_it_is_refused(folder);
  }
  TemporaryBook folder;
  by_another_program(folder, "CREATE TABLE my_own(notes TEXT)");
  EXPECT_EQ(how_it_is_refused(folder), "opened") << "a table that is no part of it is left alone";
}

TEST(StrangersBook, AChangedRowIsToldAndWhatItEntersIsSetApart) {
  TemporaryBook folder;
  fill_demo(*folder);
  const auto tests = folder->all<record::Test>();
  const TestRecord before = folder.test_record(tests[0].id);
  ASSERT_TRUE(before.faults.empty());
  EXPECT_EQ(folder->damage_words(), "");
  const Sweep& sweep = before.sweeps[0];
  by_another_program(folder,
                     "UPDATE reading SET raw = raw + 1 WHERE id = (SELECT min(id) FROM reading WHERE sweep_id = " +
                         std::to_string(sweep.id) + ")");
  folder.open();
  const TestRecord after = folder.test_record(tests[0].id);
  ASSERT_EQ(after.faults.size(), 1u);
  EXPECT_TRUE(holds(after.faults[0].words(), "reading, row 1, is not as it was written")) << after.faults[0].words();
  EXPECT_NE(after.apart(sweep.id), nullptr);
  for (std::size_t i = 1; i < after.sweeps.size(); ++i) EXPECT_EQ(after.apart(after.sweeps[i].id), nullptr);
  EXPECT_TRUE(folder.test_record(tests[1].id).faults.empty());
  const std::string words = folder->damage_words();
  EXPECT_TRUE(holds(words, "test " + std::to_string(tests[0].id))) << words;
  EXPECT_TRUE(holds(words, "(1 row)") && holds(words, "backup")) << words;
}

TEST(StrangersBook, AChangedMeterSetsAllItReadApartUntilItIsWrittenAnew) {
  TemporaryBook folder;
  fill_demo(*folder);
  const Id test = folder->all<record::Test>()[0].id, meter = *folder.test_record(test).test.sensor_id;
  by_another_program(folder, "UPDATE meter SET factor = 1.07 WHERE id = " + std::to_string(meter));
  folder.open();
  const TestRecord after = folder.test_record(test);
  for (const Sweep& sweep : after.sweeps) EXPECT_NE(after.apart(sweep.id), nullptr);
  folder->edit("state it anew", [&](Edit& e) {
    Meter row = *folder->find<Meter>(meter);
    row.factor = 1;
    e.save(row);
  });
  EXPECT_TRUE(folder.test_record(test).faults.empty());
  EXPECT_EQ(folder->damage_words(), "");
}

TEST(StrangersBook, AChangedHistoryIsNotGoneBackTo) {
  TemporaryBook folder;
  const Id test = folder.add_test();
  folder->edit("name it", [&](Edit& e) {
    record::Test row = *folder->find<record::Test>(test);
    row.name = "a name";
    e.save(row);
  });
  by_another_program(
      folder,
      "UPDATE edit_log SET changeset = CAST(replace(CAST(changeset AS TEXT), 'a name', 'no name') AS BLOB), "
      "row_sum = row_sum + 1 WHERE id = (SELECT max(id) FROM edit_log)");
  folder.open();
  EXPECT_THROW(folder->undo(), BookTrouble);
  EXPECT_EQ(folder->find<record::Test>(test)->name, "a name");
}

TEST(StrangersBook, SumsFollowEveryWayThatRowsAreWritten) {
  TemporaryBook folder;
  const Id sweep = folder.add_sweep();
  for (int round = 0; round < 3; ++round) {
    folder->edit("read", [&](Edit& e) {
      for (int station = 0; station < 4; ++station) e.accept({0, sweep, station, 400.5 + station, "typed", utc_now()});
    });
    EXPECT_EQ(folder->damage_words(), "") << "added, and put in the place of another";
    folder->edit("missing", [&](Edit& e) { e.declare_missing(sweep, 2, "a fan is there"); });
    folder->edit("clear", [&](Edit& e) { e.clear_station(sweep, 3); });
    EXPECT_EQ(folder->damage_words(), "");
    while (round == 1 && folder->undo_label()) {
      folder->undo();
      EXPECT_EQ(folder->damage_words(), "");
    }
    while (folder->redo_label()) {
      folder->redo();
      EXPECT_EQ(folder->damage_words(), "");
    }
  }
  // A zero with a sign is kept as one without.
  folder->edit("zero", [&](Edit& e) { e.accept({0, sweep, 1, -0.0, "typed", utc_now()}); });
  EXPECT_EQ(folder->damage_words(), "");
}

TEST(StrangersBook, NoChangedByteOfATextIsMissed) {
  const std::string text(37, 'a');
  const std::int64_t whole = text_sum(text);
  for (std::size_t at = 0; at < text.size(); ++at)
    for (int bits = 1; bits < 256; ++bits) {
      std::string other = text;
      other[at] = static_cast<char>(other[at] ^ bits);
      EXPECT_NE(text_sum(other), whole);
    }
  EXPECT_NE(text_sum("ab"), text_sum("ba"));
  EXPECT_NE(text_sum(""), text_sum(std::string(1, '\0')));
}

/// A slice of `./sunbreak study flips`, of another seed.
TEST(StrangersBook, NoFlippedByteChangesAnythingInSilence) {
  TemporaryBook folder;
  fill_demo(*folder);
  folder.close();
  const FlipRounds rounds = flip_and_read(folder.file(), folder.folder(), 60, 11);
  EXPECT_EQ(rounds.silent, 0) << rounds.first;
  EXPECT_GT(rounds.told, 5);
  EXPECT_GT(rounds.refused, 0);
}
