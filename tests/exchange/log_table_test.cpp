#include "exchange/tables/log_table.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

#include "book/log_edits.h"
#include "book/temporary_book.h"

using namespace sunbreak;
using namespace sunbreak::record;
using namespace sunbreak::evaluation;
using namespace sunbreak::exchange;
using namespace sunbreak::book;

TEST(LogTable, PlainSeconds) {
  const auto log = read_log_table("time_s,ppfd,watts\n0,700.5,325\n10,699,324.5\n20,,324\n");
  ASSERT_TRUE(log.ok()) << log.problem().sentence();
  const auto& s = log.value().samples;
  ASSERT_EQ(s.size(), 3u);
  EXPECT_EQ(s[0].light_raw, 700.5);
  EXPECT_EQ(s[2].time_s, 20);
  EXPECT_TRUE(std::isnan(s[2].light_raw));
  EXPECT_EQ(s[2].power_w, 324);
  EXPECT_FALSE(log.value().dated);
}

TEST(LogTable, ALoggersHeadersUnitsAndDecimalCommas) {
  const auto log = read_log_table(
      "Logger 3\n\nTime (min);Voltage [V];Current [mA];Power (kW);Apparent power (VA);Power factor;Frequency (Hz)\n"
      "0;230,4;1440;0,3221;332,0;0,97;50,01\n0,5;230,1;1438;0,3219;331,8;0,97;49,99\n");
  ASSERT_TRUE(log.ok()) << log.problem().sentence();
  const LogSample& s = log.value().samples[1];
  EXPECT_EQ(s.time_s, 30);
  EXPECT_EQ(s.voltage_v, 230.1);
  EXPECT_NEAR(s.current_a, 1.438, 1e-12);
  EXPECT_NEAR(s.power_w, 321.9, 1e-9);
  EXPECT_EQ(s.apparent_va, 331.8);
  EXPECT_EQ(s.power_factor, 0.97);
  EXPECT_EQ(s.frequency_hz, 49.99);
}

TEST(LogTable, DatesAndClocks) {
  const auto dated = read_log_table("timestamp,W\n2026-03-14T09:00:00Z,325\n2026-03-14 09:00:01,324\n");
  ASSERT_TRUE(dated.ok()) << dated.problem().sentence();
  EXPECT_TRUE(dated.value().dated);
  EXPECT_EQ(dated.value().samples[1].time_s, seconds_of("2026-03-14T09:00:01.000Z"));
  const auto parted = read_log_table("date;time;W\n14.03.2026;23:59:59;325\n15.03.2026;00:00:00;324\n");
  ASSERT_TRUE(parted.ok()) << parted.problem().sentence();
  EXPECT_EQ(parted.value().samples[1].time_s, seconds_of("2026-03-15T00:00:00.000Z"));
  const auto clock = read_log_table("time,W\n23:59:50,325\n0:00:10,324\n");
  ASSERT_TRUE(clock.ok()) << clock.problem().sentence();
  EXPECT_EQ(clock.value().samples[1].time_s - clock.value().samples[0].time_s, 20) << "past midnight";
}

TEST(LogTable, SaysWhatItDidNotTake) {
  const auto log = read_log_table("time_s,watts\n0,325\n5\nsoon,300\n10,n/a\n9,320\n8,321\n20,9e9\n30,319\n");
  ASSERT_TRUE(log.ok());
  ASSERT_EQ(log.value().samples.size(), 3u);
  EXPECT_EQ(log.value().samples[1].time_s, 9);
  EXPECT_EQ(log.value().samples.back().power_w, 319);
  ASSERT_EQ(log.value().findings.size(), 5u);
  EXPECT_EQ(log.value().findings[0].row, 3);
  EXPECT_EQ(log.value().findings[1].words, "'soon' is no time: the row was not taken");
  EXPECT_EQ(log.value().findings[2].column, 2);
}

TEST(LogTable, RefusesWhatIsNoLog) {
  for (const char* text : {"", "1,2,3\n4,5,6\n", "time_s\n1\n2\n", "watts,volts\n1,2\n", "time_s,watts\n"})
    EXPECT_FALSE(read_log_table(text).ok()) << text;
  const auto slashes = read_log_table("date,time,W\n03/04/2026,09:00:00,325\n");
  EXPECT_FALSE(slashes.ok()) << "a date that can be read two ways";
}

RC_GTEST_PROP(LogTable, DamageNeverCrashesAndNeverInventsAValue, (unsigned at, unsigned char with)) {
  std::string text = "time_s,ppfd,watts\n";
  for (int i = 0; i < 20; ++i) text += std::to_string(10 * i) + ",700.5,325.5\n";
  text[at % text.size()] = static_cast<char>(with);
  const auto log = read_log_table(text);
  if (!log) return;
  RC_ASSERT(log.value().samples.size() <= 21u);
  for (std::size_t i = 1; i < log.value().samples.size(); ++i)
    RC_ASSERT(log.value().samples[i].time_s > log.value().samples[i - 1].time_s);
}

TEST(LogTable, IsTakenAsOneEditAndOutAgain) {
  TemporaryBook book;
  const Id id = book.add_test();
  const auto draft = read_log_table("time_s,watts\n100,325\n110,324\n").value();
  take_log(*book, book.test_record(id), draft, "w1.csv", 1'773'478'800);
  const WallLog log = wall_log(book.test_record(id));
  ASSERT_EQ(log.watts.size(), 2u);
  EXPECT_EQ(log.watts[0].time_s, 1'773'478'800);
  EXPECT_EQ(log.watts[1].time_s, 1'773'478'810);
  EXPECT_EQ(book.test_record(id).log_parts[0].origin, "w1.csv");
  book->undo();
  EXPECT_TRUE(book.test_record(id).log_parts.empty());
  book->redo();
  EXPECT_EQ(wall_log(book.test_record(id)).watts.size(), 2u);
}
