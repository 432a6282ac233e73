#include <gtest/gtest.h>

#include "book/test_rows.h"
#include "temporary_book.h"

using namespace sunbreak;
using namespace sunbreak::record;

namespace {

/// A test with a lux meter, its factor and its readings of a check lamp.
class MetersTwice : public ::testing::Test {
 protected:
  void SetUp() override {
    id_ = book_.add_test();
    book_->edit("meters", [&](book::Edit& edit) {
      Meter sensor;
      sensor.kind = "lux", sensor.name = "LX-T", sensor.factor = 1.02, sensor.calibrated_on = "2026-03-01";
      sensor.id = edit.add(sensor);
      record::Test test = *book_->find<record::Test>(id_);
      test.sensor_id = sensor.id;
      edit.save(test);
      FittedLuxFactor factor;
      factor.meter_id = sensor.id, factor.name = "under Bess 400", factor.k = 0.0171;
      edit.add(factor);
      for (const char* day : {"2026-05-01T08:00:00Z", "2026-05-02T08:00:00Z"})
        edit.add(CheckLampReading{0, sensor.id, "lamp", day, "500 501 499", 41.5});
    });
    brought_ = book_.test_record(id_);
    meters_ = count<Meter>(), readings_ = count<CheckLampReading>();
  }
  template <typename Record>
  std::size_t count() {
    return book_->all<Record>().size();
  }

  book::TemporaryBook book_;
  Id id_ = 0;
  TestRecord brought_;
  std::size_t meters_ = 0, readings_ = 0;
};

}  // namespace

TEST_F(MetersTwice, ATestThatComesAgainKeepsTheMetersThatAreThere) {
  const Id again = book::add_test(*book_, brought_, "again");
  EXPECT_NE(again, id_);
  EXPECT_EQ(count<Meter>(), meters_);
  EXPECT_EQ(count<CheckLampReading>(), readings_) << "a reading counts once";
  EXPECT_EQ(count<FittedLuxFactor>(), 1u);
  EXPECT_EQ(book_->find<record::Test>(again)->sensor_id, book_->find<record::Test>(id_)->sensor_id);
}

TEST_F(MetersTwice, AMeterThatIsToldOtherwiseIsAnother) {
  for (Meter& meter : brought_.meters) meter.factor = 1.03;
  const Id again = book::add_test(*book_, brought_, "again");
  EXPECT_EQ(count<Meter>(), meters_ + brought_.meters.size());
  EXPECT_EQ(count<CheckLampReading>(), 2 * readings_) << "they are of that other meter";
  EXPECT_EQ(count<FittedLuxFactor>(), 2u);
  EXPECT_EQ(book_->find<Meter>(*book_->find<record::Test>(again)->sensor_id)->factor, 1.03);
  EXPECT_EQ(book_->find<Meter>(*book_->find<record::Test>(id_)->sensor_id)->factor, 1.02);
}

TEST_F(MetersTwice, AMeterThatNobodyNamedMayBeAnother) {
  for (Meter& meter : brought_.meters) meter.name = new_meter_name(meter.kind);
  book::add_test(*book_, brought_, "once");
  const std::size_t once = count<Meter>();
  book::add_test(*book_, brought_, "twice");
  EXPECT_EQ(count<Meter>(), once + brought_.meters.size());
}

TEST_F(MetersTwice, OfACheckLampOnlyWhatIsNewIsTaken) {
  CheckLampReading later = brought_.check_readings.back();
  later.id += 100, later.taken_at = "2026-05-03T08:00:00Z";
  brought_.check_readings.push_back(later);
  book::add_test(*book_, brought_, "again");
  EXPECT_EQ(count<CheckLampReading>(), readings_ + 1);
  EXPECT_EQ(count<Meter>(), meters_);
}

TEST_F(MetersTwice, AFactorKnowsTheFixtureItWasFoundUnderWhateverThatIsCalled) {
  const Id own = book_->find<record::Test>(id_)->fixture_id;
  Id other = 0;
  book_->edit("a namesake", [&](book::Edit& edit) {
    FittedLuxFactor factor = book_->all<FittedLuxFactor>().front();
    factor.fixture = "New fixture", factor.fixture_id = own;
    edit.save(factor);
    record::Fixture namesake;
    namesake.name = book_->find<record::Fixture>(own)->name;
    other = edit.add(namesake);
  });
  EXPECT_EQ(book_.test_record(id_).lux_factors.front().fixture_id, own);
  book_->edit("renamed", [&](book::Edit& edit) {
    record::Fixture fixture = *book_->find<record::Fixture>(own);
    fixture.name = "the long one";
    edit.save(fixture);
  });
  EXPECT_EQ(book_.test_record(id_).lux_factors.front().fixture, "the long one");
  EXPECT_EQ(book::lux_factors_on_shelf(*book_).front().fixture, "the long one");
  book_->edit("under its namesake", [&](book::Edit& edit) {
    record::Test test = *book_->find<record::Test>(id_);
    test.fixture_id = other;
    edit.save(test);
  });
  const TestRecord under_other = book_.test_record(id_);
  ASSERT_EQ(under_other.lux_factors.size(), 1u);
  EXPECT_FALSE(under_other.lux_factors.front().fixture_id);
  book::add_test(*book_, under_other, "again");
  EXPECT_EQ(count<FittedLuxFactor>(), 1u) << "it is the one on the shelf";
}
