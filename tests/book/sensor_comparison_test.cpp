#include <gtest/gtest.h>

#include "record/sensor_pairs.h"
#include "temporary_book.h"

namespace sunbreak::book {

using record::SensorComparison;

TEST(SensorComparison, PairsAreKeptToTheLastDigitAndTakenBack) {
  TemporaryBook book;
  Id first = 0, second = 0;
  book->edit("sensors", [&](Edit& e) {
    first = e.add(record::Meter{0, "quantum", "QS-1"});
    second = e.add(record::Meter{0, "quantum", "QS-2"});
  });
  const record::SensorPairs pairs{{412.5, 398.1}, {0.1 + 0.2, 1.0 / 3}, {1e4, 9876.54321}};
  SensorComparison kept{0, first, second, "2026-05-01T08:00:00Z"};
  record::put_pairs(kept, pairs);
  book->edit("comparison", [&](Edit& e) { kept.id = e.add(kept); });
  book.close();
  book.open();
  EXPECT_EQ(record::pairs_of(*book->find<SensorComparison>(kept.id)), pairs);
  SensorComparison another = kept;
  another.id = 0;
  book->edit("another", [&](Edit& e) { e.add(another); });
  EXPECT_EQ(book->all<SensorComparison>().size(), 2u);
  book->undo();
  EXPECT_EQ(book->all<SensorComparison>().size(), 1u);
  EXPECT_THROW(book->edit("no day",
                          [&](Edit& e) {
                            e.add(SensorComparison{0, first, second, "yesterday"});
                          }),
               record::ImpossibleRow);
}

TEST(SensorComparison, WhatIsNoPairsIsSaidToBeNone) {
  for (const auto& [first, second] : {std::pair{"1 2", "1"}, std::pair{"1 x", "1 2"}, std::pair{"0", "1"},
                                      std::pair{"1", "-1"}, std::pair{"1 nan", "1 2"}})
    EXPECT_FALSE(record::pairs_of({0, 1, 2, "", first, second})) << first << " | " << second;
  EXPECT_EQ(record::pairs_of({})->size(), 0u);
}

}  // namespace sunbreak::book
