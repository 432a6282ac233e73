#include <gtest/gtest.h>

#include <fstream>

#include "book/backup.h"
#include "book/picture_store.h"
#include "book/temporary_book.h"
#include "evaluation/configurations.h"
#include "exchange/files/companions.h"
#include "exchange/files/digest.h"
#include "exchange/files/new_file.h"
#include "record/configurations.h"

using namespace sunbreak;
using namespace sunbreak::record;
using namespace sunbreak::book;
namespace fs = std::filesystem;

namespace {

std::string picture_of(const Id test, const std::string& file, Edit& e) {
  Picture p;
  p.test_id = test;
  p.digest = e.keep_picture(file);
  p.media_type = "image/png";
  p.added_at = utc_now();
  e.add(p);
  return p.digest;
}

std::size_t size_of_folder(const fs::path& folder, const std::string& without) {
  std::size_t size = 0;
  for (const auto& entry : fs::recursive_directory_iterator(folder))
    if (entry.is_regular_file() && entry.path().string().find(without) == std::string::npos) size += entry.file_size();
  return size;
}

}  // namespace

TEST(Configuration, IsPlannedLikeTheOneAtHandAndGoesWithAllOfIt) {
  TemporaryBook book;
  const Id test = book.add_test();
  EXPECT_FALSE(plan_heights(*book, book.test_record(test), {0.6, 0.4}));
  TestRecord plain = of_configuration(book.test_record(test), 0);
  const auto added = add_configuration(*book, plain, "two bars added");
  ASSERT_TRUE(added.ok()) << added.problem().sentence();
  EXPECT_FALSE(add_configuration(*book, book.test_record(test), "two bars added").ok()) << "its name is taken";
  EXPECT_FALSE(add_configuration(*book, book.test_record(test), "as it comes").ok());
  EXPECT_FALSE(add_configuration(*book, book.test_record(test), "").ok());
  TestRecord bars = of_configuration(book.test_record(test), added.value());
  EXPECT_EQ(bars.rungs.size(), 2u);
  EXPECT_EQ(bars.stops.size(), 1u);
  // Its plan is its own from then on.
  EXPECT_FALSE(plan_heights(*book, bars, {0.3}));
  EXPECT_EQ(of_configuration(book.test_record(test), 0).rungs.size(), 2u);
  bars = of_configuration(book.test_record(test), added.value());
  ASSERT_EQ(bars.rungs.size(), 1u);
  book->edit("walk", [&](Edit& e) {
    const Id sweep = sweep_for(e, bars, bars.rungs[0].id, bars.stops[0].id).id;
    e.accept({0, sweep, 0, 500, "typed", utc_now()});
  });
  EXPECT_EQ(of_configuration(book.test_record(test), 0).readings.size(), 0u);
  EXPECT_EQ(of_configuration(book.test_record(test), added.value()).readings.size(), 1u);
  const TestRecord before = book.test_record(test);
  book->edit("out", [&](Edit& e) { e.erase<Configuration>(added.value()); });
  EXPECT_EQ(book.test_record(test).rungs.size(), 2u);
  EXPECT_TRUE(book.test_record(test).sweeps.empty());
  book->undo();
  EXPECT_EQ(book.test_record(test), before);
}

TEST(Configuration, ARecordNarrowedToOneStaysSoThroughChanges) {
  TemporaryBook book;
  const Id test = book.add_test();
  const Id tubes = add_configuration(*book, book.test_record(test), "new tubes").value();
  TestRecord shown = of_configuration(book.test_record(test), tubes);
  std::vector<Change> changes;
  book->on_change = [&](const Change& change) {
    ASSERT_TRUE(refresh_test(shown, *book, change));
    EXPECT_EQ(shown, of_configuration(book.test_record(test), shown.configuration_id));
  };
  const auto walk = [&](Id configuration, double raw) {
    const TestRecord of = of_configuration(book.test_record(test), configuration);
    book->edit("walk", [&](Edit& e) {
      const Id sweep = sweep_for(e, of, of.rungs[0].id, of.stops[0].id).id;
      e.accept({0, sweep, 3, raw, "typed", utc_now()});
    });
  };
  walk(0, 400);
  EXPECT_TRUE(shown.readings.empty()) << "that was of the other";
  walk(tubes, 480);
  ASSERT_EQ(shown.readings.size(), 1u);
  EXPECT_EQ(shown.readings[0].raw, 480);
  walk(0, 410);
  EXPECT_EQ(shown.readings.size(), 1u);
  // Where it goes, what is left is shown.
  book->edit("out", [&](Edit& e) { e.erase<Configuration>(tubes); });
  EXPECT_EQ(shown.configuration_id, 0);
  EXPECT_EQ(shown.sweeps.size(), 1u);
  book->on_change = nullptr;
}

TEST(Configuration, AnotherNameMayBeGivenToEither) {
  TemporaryBook book;
  const Id test = book.add_test();
  EXPECT_FALSE(rename_configuration(*book, book.test_record(test), "on its knob"));
  const Id other = add_configuration(*book, book.test_record(test), "on a controller").value();
  const TestRecord of_other = of_configuration(book.test_record(test), other);
  EXPECT_TRUE(rename_configuration(*book, of_other, "on its knob")) << "taken";
  EXPECT_FALSE(rename_configuration(*book, of_other, "by the controller"));
  EXPECT_EQ(configuration_name(book.test_record(test), 0), "on its knob");
  EXPECT_EQ(configuration_name(book.test_record(test), other), "by the controller");
}

TEST(Configuration, ASensorChosenForTheTestCorrectsAllOfThem) {
  TemporaryBook book;
  const Id test = book.add_test();
  const Id other = add_configuration(*book, book.test_record(test), "other").value();
  for (const Id configuration : {Id{0}, other}) {
    const TestRecord of = of_configuration(book.test_record(test), configuration);
    book->edit("sweep", [&](Edit& e) { sweep_for(e, of, of.rungs[0].id, of.stops[0].id); });
  }
  Meter sensor;
  sensor.factor = 1.04;
  book->edit("sensor", [&](Edit& e) {
    sensor.id = e.add(sensor);
    choose_sensor(e, book.test_record(test), sensor);
  });
  for (const Sweep& sweep : book.test_record(test).sweeps) EXPECT_EQ(sweep.calibration_factor, 1.04);
}

TEST(Pictures, AreKeptOnceAndOutliveUndo) {
  TemporaryBook book;
  const Id test = book.add_test();
  const std::string file(5000, 'p');
  std::string digest;
  book->edit("picture", [&](Edit& e) { digest = picture_of(test, file, e); });
  book->edit("again", [&](Edit& e) { EXPECT_EQ(picture_of(test, file, e), digest); });
  EXPECT_EQ(book.test_record(test).pictures.size(), 2u);
  EXPECT_EQ(book->picture(digest), file);
  book->undo();
  book->undo();
  EXPECT_TRUE(book.test_record(test).pictures.empty());
  book->redo();
  EXPECT_EQ(book->picture(digest), file) << "redone, it is there";
  EXPECT_FALSE(book->picture(std::string(64, '0')));
  EXPECT_FALSE(book->picture("../../etc/passwd"));
}

TEST(Pictures, ADamagedOneIsNoneAndHurtsNothing) {
  TemporaryBook book;
  const Id sweep = book.add_sweep();
  book.read(sweep, 0, 424.5);
  const Id test = book->find<Sweep>(sweep)->test_id;
  std::string digest;
  book->edit("picture", [&](Edit& e) { digest = picture_of(test, std::string(50000, 'p'), e); });
  book.close();
  {
    SQLite::Database raw(book.file().string(), SQLite::OPEN_READWRITE);
    raw.exec("UPDATE picture_file SET bytes = x'00'");
  }
  book.open();
  EXPECT_FALSE(book->picture(digest));
  EXPECT_EQ(book.test_record(test).readings.size(), 1u);
  EXPECT_EQ(book.test_record(test).pictures.size(), 1u);
}

TEST(Pictures, BackupsLeaveThemOutAndHaveThemOnceBeside) {
  TemporaryBook book;
  const Id test = book.add_test();
  const std::string file(3'000'000, 'p');
  std::string digest;
  book->edit("picture", [&](Edit& e) { digest = picture_of(test, file, e); });
  const TestRecord before = book.test_record(test);
  book.close();
  book.open();
  {
    // Another day: the backup of today makes way.
    fs::remove(*Book::newest_backup(book.file()));
    book.close();
    book.open();
  }
  const auto backup = Book::newest_backup(book.file());
  ASSERT_TRUE(backup);
  EXPECT_LT(fs::file_size(*backup), file.size());
  EXPECT_EQ(fs::file_size(sunbreak::book::picture_folder(book.file()) / digest), file.size());
  EXPECT_LT(size_of_folder(exchange::backups_beside(book.file()), "pictures"), file.size());
  EXPECT_TRUE(exchange::write_new_file(*backup, "a page", exchange::Existing::Replace)) << "a backup is a lab book";
  EXPECT_TRUE(exchange::write_new_file(backup->parent_path() / "page.html", "a page"));
  // The lab book is lost: its copy from the backup has the pictures again, and all else.
  book.close();
  fs::remove(book.file());
  const auto copy = Book::copy_backup_beside(book.file());
  ASSERT_TRUE(copy.ok()) << copy.problem().sentence();
  const auto restored = Book::open(copy.value(), Book::Mode::ReadOnly);
  ASSERT_TRUE(restored.ok()) << restored.problem().sentence();
  EXPECT_EQ(restored.value()->picture(digest), file);
  EXPECT_EQ(load_test(*restored.value(), test), before);
  book.open();
}

TEST(Retest, FindsTheEarlierTestByItsMark) {
  TemporaryBook book;
  const Id first = book.add_test(), second = book.add_test();
  EXPECT_FALSE(earlier_test(*book, *book->find<record::Test>(second)));
  book->edit("retest", [&](Edit& e) { make_retest(e, *book, *book->find<record::Test>(second), first, "same"); });
  const record::Test now = *book->find<record::Test>(second), then = *book->find<record::Test>(first);
  EXPECT_EQ(then.mark.size(), 32u);
  EXPECT_EQ(now.retest_of, then.mark);
  EXPECT_EQ(earlier_test(*book, now)->test.id, first);
  // A plan that is walked again is no retest of itself, nor is it known by the same mark.
  const record::Test copy = *book->find<record::Test>(duplicate_plan(*book, first, then.fixture_id));
  EXPECT_TRUE(copy.mark.empty());
  book->edit("none", [&](Edit& e) { make_retest(e, *book, now, 0, "same"); });
  EXPECT_TRUE(book->find<record::Test>(second)->retest_of.empty());
}
