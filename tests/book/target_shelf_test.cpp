#include "book/target_shelf.h"

#include <SQLiteCpp/Database.h>
#include <gtest/gtest.h>

#include "book/schema.h"
#include "temporary_book.h"

namespace sunbreak::book {
using namespace evaluation;

TEST(TargetShelf, ANewLabBookHasTheShippedLists) {
  TemporaryBook book;
  const auto all = crop_targets(*book);
  EXPECT_EQ(all.size(), shipped_targets().size());
  EXPECT_EQ(set_names(all), (std::vector<std::string>{"Short days", "Long days", "Gentle", "Daily light"}));
  EXPECT_EQ(targets_of_set(all, "Gentle").size(), 4u);
  for (const CropTarget& t : all) EXPECT_FALSE(problem_of(t)) << t.name;
}

TEST(TargetShelf, AnOlderLabBookGetsThemWithItsMigration) {
  TemporaryBook book;
  book.close();
  std::filesystem::remove(book.file());
  {
    SQLite::Database db(book.file().string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    migrate(db, 4);
    db.exec(
        "INSERT INTO fixture(id, name, maker, kind, emitters, serial, currency, obtained, interest, notes, removed) "
        "VALUES(1, 'F', '', '', '', '', '', '', '', '', 0)");
  }
  book.open();
  EXPECT_EQ(crop_targets(*book).size(), shipped_targets().size());
  EXPECT_EQ(book->find<Fixture>(1)->name, "F");
}

TEST(TargetShelf, BandsOfDailyLightMoveWithThePhotoperiod) {
  const CropTarget daily{0, "s", "", "c", true, 18, 36, 18, false}, plain{0, "s", "", "c", false, 300, 600, 18, false};
  EXPECT_NEAR(band_of(daily, 18).low, 18e6 / (3600 * 18), 1e-9);
  EXPECT_NEAR(band_of(daily, 12).low, 18e6 / (3600 * 12), 1e-9);
  EXPECT_EQ(band_of(plain, 12), (Band{300, 600}));
}

TEST(TargetShelf, ATestKeepsItsTargetThroughAChangeOfHours) {
  TemporaryBook book;
  record::Test test;
  const auto all = crop_targets(*book);
  for (const CropTarget& t : all) {
    set_target(test, t);
    ASSERT_TRUE(target_of(all, test)) << t.set_name << " " << t.name;
    EXPECT_EQ(target_of(all, test)->name, t.name);
    set_photoperiod(test, 10);
    EXPECT_TRUE(target_of(all, test)) << "its band of daily light is the same";
  }
  test.target_high_ppfd += 50;
  EXPECT_FALSE(target_of(all, test)) << "a band of its own";
}

TEST(TargetShelf, ImpossibleTargetsAreRefusedInWords) {
  const auto refused = [](double low, double high, double hours, bool daily = false) {
    return problem_of({0, "s", "", "c", daily, low, high, hours, false});
  };
  EXPECT_TRUE(refused(300, 300, 12));
  EXPECT_TRUE(refused(-1, 300, 12));
  EXPECT_TRUE(refused(100, 300, 0));
  EXPECT_TRUE(refused(100, 300, 25));
  EXPECT_TRUE(refused(100, 7000, 12));
  EXPECT_TRUE(refused(10, 600, 12, true)) << "PPFD typed as daily light";
  EXPECT_TRUE(problem_of({0, "s", "", "", false, 1, 2, 12, false}));
  EXPECT_NE(refused(300, 200, 12)->sentence().find("high end"), std::string::npos);
}

TEST(TargetShelf, EditsCanBeUndone) {
  TemporaryBook book;
  CropTarget first = crop_targets(*book).front();
  first.low = 111;
  book->edit("target", [&](Edit& e) { e.save(first); });
  EXPECT_EQ(crop_targets(*book).front().low, 111);
  ASSERT_TRUE(book->undo());
  EXPECT_EQ(crop_targets(*book).front().low, 105);
}

}  // namespace sunbreak::book
