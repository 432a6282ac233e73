#include <gtest/gtest.h>

#include "book/test_rows.h"
#include "temporary_book.h"

using namespace sunbreak;
using namespace sunbreak::record;

namespace {

/// A test of a named fixture with claims and a fact of its box, on a named bench.
class ShelvesTwice : public ::testing::Test {
 protected:
  void SetUp() override {
    id_ = book_.add_test();
    const record::Test test = *book_->find<record::Test>(id_);
    book_->edit("shelves", [&](book::Edit& edit) {
      Fixture fixture = *book_->find<Fixture>(test.fixture_id);
      fixture.name = "Bars", fixture.serial = "0042", fixture.price = 199.0;
      edit.save(fixture);
      Bench bench = *book_->find<Bench>(test.bench_id);
      bench.name = "Tent", bench.wall_left = "white";
      edit.save(bench);
      edit.add(Claim{0, fixture.id, "power_w", 320, "320 W"});
      edit.add(Claim{0, fixture.id, "coverage", {}, "120 × 120 cm"});
      edit.add(BoxFact{0, fixture.id, "weight", "stated", 6.2, ""});
      edit.add(GrowthNote{0, id_, "2026-05-01", "first flowers"});
    });
    brought_ = book_.test_record(id_);
  }
  template <typename Record>
  std::size_t count() {
    return book_->all<Record>().size();
  }
  record::Test bring() { return *book_->find<record::Test>(book::add_test(*book_, brought_, "again")); }

  book::TemporaryBook book_;
  Id id_ = 0;
  TestRecord brought_;
};

}  // namespace

TEST_F(ShelvesTwice, ATestThatComesAgainKeepsTheFixtureAndBenchThatAreThere) {
  const record::Test first = *book_->find<record::Test>(id_), again = bring();
  EXPECT_NE(again.id, first.id);
  EXPECT_EQ(again.fixture_id, first.fixture_id);
  EXPECT_EQ(again.bench_id, first.bench_id);
  EXPECT_EQ(count<Fixture>(), 1u);
  EXPECT_EQ(count<Bench>(), 1u);
  EXPECT_EQ(count<Claim>(), 2u);
  EXPECT_EQ(count<BoxFact>(), 1u);
  EXPECT_EQ(count<GrowthNote>(), 2u) << "what is the test's own comes with it";
  book_->undo();
  EXPECT_EQ(count<Fixture>(), 1u) << "the fixture was there before";
  EXPECT_EQ(count<Claim>(), 2u);
}

TEST_F(ShelvesTwice, WhatIsToldOtherwiseIsAnother) {
  brought_.claims[0].value = 300;
  brought_.bench.wall_left = "dark";
  const record::Test again = bring();
  EXPECT_EQ(count<Fixture>(), 2u);
  EXPECT_EQ(count<Bench>(), 2u);
  EXPECT_EQ(count<Claim>(), 4u);
  EXPECT_EQ(book_.test_record(id_).claims[0].value, 320);
  EXPECT_EQ(book_.test_record(again.id).claims[0].value, 300);
  brought_.claims.pop_back();
  bring();
  EXPECT_EQ(count<Fixture>(), 3u) << "one claim fewer is told otherwise, too";
}

TEST_F(ShelvesTwice, WhatIsOffTheShelfDoesNotStandForIt) {
  book_->edit("off the shelf", [&](book::Edit& edit) {
    Fixture fixture = *book_->find<Fixture>(brought_.fixture.id);
    fixture.removed = true;
    edit.save(fixture);
  });
  EXPECT_NE(bring().fixture_id, brought_.fixture.id);
}

TEST_F(ShelvesTwice, WhatNobodyNamedMayBeAnother) {
  brought_.fixture.name = brought_.bench.name = "";
  bring();
  bring();
  EXPECT_EQ(count<Fixture>(), 3u);
  EXPECT_EQ(count<Bench>(), 3u);
}
