#include <gtest/gtest.h>

#include "book/log_edits.h"
#include "temporary_book.h"

using namespace sunbreak;
using namespace sunbreak::record;
using namespace sunbreak::evaluation;
using namespace sunbreak::exchange;
using namespace sunbreak::book;

namespace {

LogSample sample(int second) {
  LogSample s;
  s.time_s = 1'773'478'800.0 + second;
  s.power_w = 322 + 0.1 * (second % 7);
  return s;
}

}  // namespace

TEST(LogRecorder, WhatWasKeptIsThereForAnyoneWhoOpensTheBook) {
  TemporaryBook book;
  const Id id = book.add_test();
  LogRecorder recorder(*book, book.test_record(id), "live");
  for (int i = 0; i < 25; ++i) {
    recorder.add(sample(i));
    if (i % 10 == 9) recorder.keep();
  }
  // The recorder still runs; another window reads the same file, as one would after a kill.
  const auto other = std::move(Book::open(book.file(), Book::Mode::ReadOnly).value());
  const WallLog log = wall_log(load_test(*other, id).value());
  EXPECT_EQ(log.watts.size(), 20u) << "up to the last keep";
  EXPECT_EQ(log.watts.back().value, sample(19).power_w);
}

TEST(LogRecorder, GrowsOnePartAndSaysWhenItIsFull) {
  TemporaryBook book;
  const Id id = book.add_test();
  LogRecorder recorder(*book, book.test_record(id), "live");
  EXPECT_FALSE(recorder.has_news());
  recorder.keep();
  EXPECT_TRUE(book.test_record(id).log_parts.empty()) << "nothing is written before there is something";
  for (int i = 0; i < 3600; ++i) recorder.add(sample(i));
  EXPECT_TRUE(recorder.full());
  recorder.keep();
  EXPECT_FALSE(recorder.has_news());
  ASSERT_EQ(book.test_record(id).log_parts.size(), 1u);
  EXPECT_EQ(book.test_record(id).log_parts[0].count, 3600);
}

TEST(LogRecorder, RecordingIsNoStepOfUndo) {
  TemporaryBook book;
  const Id id = book.add_test();
  const auto label = book->undo_label();
  LogRecorder recorder(*book, book.test_record(id), "live");
  recorder.add(sample(0));
  recorder.keep();
  EXPECT_EQ(book->undo_label(), label);
}

TEST(LogRecorder, AReadOnlyBookRefuses) {
  TemporaryBook book;
  const Id id = book.add_test();
  const auto other = std::move(Book::open(book.file(), Book::Mode::ReadOnly).value());
  LogRecorder recorder(*other, load_test(*other, id).value(), "live");
  recorder.add(sample(0));
  EXPECT_THROW(recorder.keep(), std::runtime_error);
}

TEST(WallLogs, APartThatGrowsIsUnpackedAnewAndOthersAreNot) {
  TemporaryBook book;
  const Id id = book.add_test();
  LogRecorder recorder(*book, book.test_record(id), "live");
  recorder.add(sample(0));
  recorder.keep();
  UnpackedParts known;
  EXPECT_EQ(wall_log(book.test_record(id), &known).samples.size(), 1u);
  recorder.add(sample(1));
  recorder.keep();
  EXPECT_EQ(wall_log(book.test_record(id), &known).samples.size(), 2u);
  EXPECT_EQ(known.size(), 1u);
  EXPECT_TRUE(wall_log(book.test_record(id), &known, recorder.part().id).samples.empty());
}
