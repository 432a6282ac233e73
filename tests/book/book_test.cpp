#include <gtest/gtest.h>

#include <fstream>

#include "book/schema.h"
#include "temporary_book.h"

using namespace sunbreak;
using namespace sunbreak::record;
using namespace sunbreak::evaluation;
using namespace sunbreak::book;
namespace fs = std::filesystem;

TEST(LabBook, KeepsWhatWasAcceptedOverAReopening) {
  TemporaryBook book;
  const Id sweep = book.add_sweep();
  book.read(sweep, 3, 424.5);
  book.close();
  book.open();
  const auto readings = book->all<Reading>();
  ASSERT_EQ(readings.size(), 1u);
  EXPECT_EQ(readings[0].raw, 424.5);
  EXPECT_EQ(readings[0].station, 3);
}

TEST(LabBook, ReplacedReadingsStayOnRecord) {
  TemporaryBook book;
  const Id sweep = book.add_sweep();
  book.read(sweep, 0, 1424);
  book.read(sweep, 0, 424);
  const TestRecord b = book.test_record(1);
  EXPECT_EQ(b.readings.size(), 2u);
  EXPECT_EQ(view_sweep(b, b.sweeps[0]).value().states[0].raw, 424);
}

TEST(LabBook, CorrectionIsAppliedAndTheRawValueKept) {
  TemporaryBook book;
  const Id sweep = book.add_sweep();
  book->edit("correction", [&](Edit& e) {
    Sweep s = *book->find<Sweep>(sweep);
    s.dark_offset = 4;
    s.calibration_factor = 1.05;
    s.spectral_factor = 0.98;
    e.save(s);
  });
  book.read(sweep, 0, 404);
  const TestRecord b = book.test_record(1);
  const SweepView view = view_sweep(b, b.sweeps[0]).value();
  EXPECT_NEAR(view.ppfd[0], 400 * 1.05 * 0.98, 1e-9);
  EXPECT_EQ(view.states[0].raw, 404);
}

TEST(LabBook, LightThatItCouldNotReadAgainIsNotTaken) {
  TemporaryBook book;
  const Id sweep = book.add_sweep();
  book.read(sweep, 0, sunbreak::least_ppfd);
  book.read(sweep, 1, sunbreak::most_ppfd);
  for (const double light : {sunbreak::least_ppfd - 0.1, sunbreak::most_ppfd + 1, double(NAN), double(INFINITY)})
    EXPECT_THROW(book.read(sweep, 2, light), record::ImpossibleRow) << light;
  book->edit("correction", [&](Edit& e) {
    Sweep s = *book->find<Sweep>(sweep);
    s.calibration_factor = 1.5;
    e.save(s);
  });
  EXPECT_THROW(book.read(sweep, 2, 15'000), record::ImpossibleRow) << "22 500 once corrected";
  const TestRecord kept = book.test_record(1);
  EXPECT_EQ(kept.readings.size(), 2u) << "the refused are not on record";
}

TEST(Undo, TakesEveryEditBackAndForthInOrder) {
  TemporaryBook book;
  const Id sweep = book.add_sweep();
  const auto shown = [&] {
    const TestRecord b = book.test_record(1);
    return view_sweep(b, b.sweeps[0]).value();
  };
  book.read(sweep, 0, 100);
  book.read(sweep, 0, 200);
  book->edit("missing", [&](Edit& e) { e.declare_missing(sweep, 1, ""); });
  EXPECT_EQ(shown().missing(), 1);
  EXPECT_TRUE(book->undo());
  EXPECT_EQ(shown().missing(), 0);
  EXPECT_TRUE(book->undo());
  EXPECT_EQ(shown().states[0].raw, 100);
  EXPECT_TRUE(book->undo());
  EXPECT_EQ(shown().read(), 0);
  EXPECT_EQ(book->all<Reading>().size(), 2u) << "raw values are never taken back";
  EXPECT_TRUE(book->redo());
  EXPECT_TRUE(book->redo());
  EXPECT_EQ(shown().states[0].raw, 200);
  EXPECT_EQ(book->redo_label(), "missing");
}

TEST(Undo, OutlivesAReopening) {
  TemporaryBook book;
  const Id sweep = book.add_sweep();
  book.read(sweep, 0, 100);
  book.close();
  book.open();
  EXPECT_EQ(book->undo_label(), "reading");
  EXPECT_TRUE(book->undo());
  const TestRecord b = book.test_record(1);
  EXPECT_EQ(view_sweep(b, b.sweeps[0]).value().read(), 0);
}

TEST(Undo, ANewEditForgetsWhatWasUndone) {
  TemporaryBook book;
  const Id sweep = book.add_sweep();
  book.read(sweep, 0, 100);
  book->undo();
  book.read(sweep, 1, 150);
  EXPECT_FALSE(book->redo_label().has_value());
  EXPECT_FALSE(book->redo());
}

TEST(Undo, BringsBackADroppedRungWithItsWatts) {
  TemporaryBook book;
  book.add_sweep();
  TestRecord b = book.test_record(1);
  ASSERT_FALSE(plan_heights(*book, b, {0.45, 0.6}).has_value());
  b = book.test_record(1);
  book->edit("watts", [&](Edit& e) {
    Sweep s = sweep_for(e, b, b.rungs[0].id, b.stops[0].id);
    s.power_w = 320;
    e.save(s);
    e.add(WallReading{0, s.test_id, s.id, 320.0, {}, {}, {}, {}, {}, {}, utc_now()});
  });
  const TestRecord before = book.test_record(1);
  ASSERT_FALSE(plan_heights(*book, before, {0.45}).has_value());
  EXPECT_EQ(book.test_record(1).rungs.size(), 1u);
  book->undo();
  EXPECT_EQ(book.test_record(1), before);
}

TEST(Edit, AFailureInTheMiddleKeepsNothing) {
  TemporaryBook book;
  const Id sweep = book.add_sweep();
  const auto revision = book->revision();
  EXPECT_THROW(book->edit("half",
                          [&](Edit& e) {
                            e.accept({0, sweep, 0, 1, "typed", utc_now()});
                            throw std::runtime_error("in the middle");
                          }),
               std::runtime_error);
  EXPECT_TRUE(book->all<Reading>().empty());
  EXPECT_EQ(book->revision(), revision);
}

TEST(Plan, AHeightWithReadingsIsNotDropped) {
  TemporaryBook book;
  book.read(book.add_sweep(), 0, 424);
  const auto problem = plan_heights(*book, book.test_record(1), {0.6});
  ASSERT_TRUE(problem.has_value());
  EXPECT_NE(problem->sentence().find("45 cm"), std::string::npos);
  EXPECT_EQ(book.test_record(1).rungs.size(), 1u);
}

TEST(Plan, SweepsBegunKeepTheirGrid) {
  TemporaryBook book;
  const Id sweep = book.add_sweep();
  book.read(sweep, 0, 424);
  ASSERT_FALSE(plan_grid(*book, book.test_record(1), {GridKind::Nodes, 4, 4, 0, 0, {}}).has_value());
  const TestRecord b = book.test_record(1);
  EXPECT_EQ(grid_of(b.test).kind, GridKind::Nodes);
  EXPECT_EQ(grid_of(b.sweeps[0]).kind, GridKind::Cells);
}

TEST(Plan, ASharedBenchKeepsItsFootprint) {
  TemporaryBook book;
  book.read(book.add_sweep(), 0, 424);
  const Id other = book.add_test();
  EXPECT_TRUE(resize_bench(*book, book.test_record(other), {1.0, 1.0}).has_value());
  EXPECT_FALSE(resize_bench(*book, book.test_record(1), {1.22, 1.22}).has_value()) << "its own test may mend a slip";
}

TEST(Plan, ADuplicateHasThePlanAndNoReadings) {
  TemporaryBook book;
  book.read(book.add_sweep(), 0, 424);
  plan_stops(*book, book.test_record(1), {100, 50});
  const TestRecord copy = book.test_record(duplicate_plan(*book, 1, 1));
  EXPECT_EQ(copy.stops.size(), 2u);
  EXPECT_EQ(copy.rungs[0].height_m, 0.45);
  EXPECT_TRUE(copy.readings.empty());
  EXPECT_EQ(copy.fixture.id, book.test_record(1).fixture.id);
}

TEST(OpenBook, ASecondInstanceIsReadOnly) {
  TemporaryBook book;
  auto second = Book::open(book.file());
  ASSERT_TRUE(second.ok());
  EXPECT_TRUE(second.value()->read_only());
  EXPECT_THROW(second.value()->edit("x", [](Edit&) {}), std::runtime_error);
  book.add_test();
  EXPECT_EQ(second.value()->all<record::Test>().size(), 1u) << "it sees what the first one keeps";
}

TEST(OpenBook, ANewerSchemaIsRefusedWithAClearSentence) {
  TemporaryBook book;
  book.close();
  {
    SQLite::Database raw(book.file().string(), SQLite::OPEN_READWRITE);
    raw.exec("PRAGMA user_version = 99");
  }
  const auto opened = Book::open(book.file());
  ASSERT_FALSE(opened.ok());
  EXPECT_NE(opened.problem().sentence().find("newer"), std::string::npos);
}

TEST(OpenBook, AnOlderSchemaIsMigratedAfterABackup) {
  TemporaryBook book;
  book.close();
  fs::remove(book.file());
  {
    SQLite::Database raw(book.file().string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    migrate(raw, 1);
    raw.exec("INSERT INTO fixture VALUES(1, 'Old', '', '', '', NULL, NULL, '', NULL, '', '', '', '', 0)");
    raw.exec("INSERT INTO bench VALUES(1, 'Old', 1.2, 1.2, NULL, '', '', '', '', '', 0)");
    raw.exec(
        "INSERT INTO test VALUES(1, 1, 1, NULL, NULL, 'Old', 'cells', 2, 2, 0, 0, '', 12, '', 600, 1000, '', '', '', "
        "'', NULL, NULL, '', '', 0)");
    raw.exec("INSERT INTO rung VALUES(1, 1, 0.45)");
    raw.exec("INSERT INTO stop VALUES(1, 1, 100)");
    raw.exec("INSERT INTO sweep VALUES(1, 1, 1, 1, 'cells', 2, 2, 0, 0, '', 0, 1, 1, NULL, '')");
    raw.exec("INSERT INTO reading VALUES(1, 1, 0, 424.5, 'typed', '2026-01-05T09:00:00.000Z')");
    raw.exec("INSERT INTO placement VALUES(1, 1, 0, 1, '')");
  }
  book.open();
  const TestRecord b = book.test_record(1);
  EXPECT_FALSE(b.test.simulated);
  EXPECT_FALSE(b.test.opening_probe) << "a walk begun before keeps its order";
  EXPECT_EQ(b.test.walk_order, "far to door");
  EXPECT_EQ(b.test.unit_columns, 1);
  ASSERT_EQ(b.readings.size(), 1u);
  EXPECT_EQ(b.readings[0].samples, 1);
  EXPECT_EQ(view_sweep(b, b.sweeps[0]).value().ppfd[0], 424.5);
  bool backed_up = false;
  for (const auto& entry : fs::recursive_directory_iterator(book.folder()))
    backed_up |= entry.path().string().find("before-schema") != std::string::npos;
  EXPECT_TRUE(backed_up);
}

TEST(OpenBook, ADamagedFileNamesTheNewestBackup) {
  TemporaryBook book;
  for (int i = 0; i < 30; ++i) book.add_test();
  book.close();
  book.open();  // leaves the day's backup
  book.close();
  {
    std::fstream file(book.file(), std::ios::in | std::ios::out | std::ios::binary);
    file.seekp(4096);
    file << std::string(16384, 'x');
  }
  const auto opened = Book::open(book.file());
  ASSERT_FALSE(opened.ok());
  const auto backup = Book::newest_backup(book.file());
  ASSERT_TRUE(backup.has_value());
  EXPECT_NE(opened.problem().sentence().find(backup->string()), std::string::npos);
  auto restored = Book::open(*backup);
  ASSERT_TRUE(restored.ok());
  EXPECT_EQ(restored.value()->all<record::Test>().size(), 30u);
}

TEST(OpenBook, OtherFilesAreLeftAlone) {
  TemporaryBook book;
  const fs::path text = book.folder() / "notes.txt", other = book.folder() / "other.db";
  std::ofstream(text) << "not a lab book, only some words that are long enough to be one page of a file";
  SQLite::Database(other.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE).exec("CREATE TABLE a(b)");
  EXPECT_FALSE(Book::open(text).ok());
  const auto opened = Book::open(other);
  ASSERT_FALSE(opened.ok());
  EXPECT_NE(opened.problem().sentence().find("not a lab book"), std::string::npos);
}

TEST(OpenBook, TheFirstWriterOfADayLeavesOneBackup) {
  TemporaryBook book;
  book.add_test();
  for (int i = 0; i < 3; ++i) book.close(), book.open();
  int backups = 0;
  for (const auto& entry : fs::recursive_directory_iterator(book.folder()))
    backups += entry.path().string().find("backups/") != std::string::npos;
  EXPECT_EQ(backups, 1);
}
