#include <gtest/gtest.h>

#include "exchange/package/csv_writer.h"
#include "exchange/tables/cell_numbers.h"
#include "exchange/tables/delimited.h"
#include "exchange/tables/text_decoding.h"

#include <rapidcheck/gtest.h>
#include <cmath>

using namespace sunbreak::exchange;

TEST(Delimited, QuotesKeepSeparatorsAndLineEnds) {
  const Rows rows = split_cells("a,\"b,\nc\",d\n1,\"say \"\"hi\"\"\",3\n", ',');
  ASSERT_EQ(rows.size(), 2u);
  EXPECT_EQ(rows[0][1], "b,\nc");
  EXPECT_EQ(rows[1][1], "say \"hi\"");
}

TEST(Delimited, EveryLineEndCountsOnce) {
  for (const char* text : {"1,2\n3,4\n", "1,2\r\n3,4\r\n", "1,2\r3,4\r", "1,2\n3,4"})
    EXPECT_EQ(split_cells(text, ','), (Rows{{"1", "2"}, {"3", "4"}})) << text;
}

TEST(Delimited, BlankLinesKeepTheirNumber) {
  const Rows rows = split_cells("1,2\n\n3,4\n", ',');
  ASSERT_EQ(rows.size(), 3u);
  EXPECT_TRUE(rows[1].empty());
}

TEST(Delimited, BlanksAroundCellsAreStripped) { EXPECT_EQ(split_cells(" 1 , 2\t\n", ','), (Rows{{"1", "2"}})); }

TEST(Delimited, TheSeparatorThatCutsEvenlyIsTaken) {
  EXPECT_EQ(guess_separator("1;2;3\n4;5;6\n"), ';');
  EXPECT_EQ(guess_separator("1,5;2,5;3\n4,5;5,5;6,1\n"), ';');
  EXPECT_EQ(guess_separator("1\t2\n3\t4\n"), '\t');
  EXPECT_EQ(guess_separator("1\n2\n"), ',');
}

RC_GTEST_PROP(Delimited, QuotedCellsComeBackVerbatim, (const std::vector<std::string>& drawn)) {
  std::vector<std::string> texts;
  for (std::string text : drawn) {
    std::erase(text, '\0');
    texts.push_back(text);
  }
  if (texts.empty()) texts.emplace_back("x");
  std::string line;
  for (const std::string& text : texts) line += (line.empty() ? "" : ",") + quoted_cell(text);
  const Rows rows = split_verbatim(line + "\r\n");
  RC_ASSERT(rows.size() == 1u);
  RC_ASSERT(rows[0] == texts);
}

RC_GTEST_PROP(NumberCell, ReadsBackAsTheSameDouble, (double value)) {
  RC_PRE(std::isfinite(value));
  RC_ASSERT(std::stod(number_cell(value)) == value);
}

TEST(Decoding, NamesWhatItFound) {
  EXPECT_EQ(decode_text("abc").value().utf8, "abc");
  EXPECT_EQ(decode_text("\xEF\xBB\xBFµ").value().utf8, "µ");
  EXPECT_EQ(decode_text("\xB5mol").value().utf8, "µmol") << "Latin-1";
  EXPECT_EQ(decode_text(std::string("\xFF\xFE\xB5\x00m\x00", 6)).value().utf8, "µm");
  EXPECT_EQ(decode_text(std::string("\xFE\xFF\x00\xB5\x00m", 6)).value().utf8, "µm");
  EXPECT_NE(decode_text("abc").value().encoding, decode_text("\xB5mol").value().encoding);
}

TEST(Decoding, RefusesWhatIsNoText) {
  EXPECT_FALSE(decode_text(std::string("\x89PNG\r\n\x1a\n\0\0\0\rIHDR", 16)).ok());
  EXPECT_FALSE(decode_text(std::string("PK\x03\x04\0\0\0\0", 8)).ok());
}

TEST(CellNumbers, TheDecimalMarkIsTheOneThatReadsMoreCells) {
  EXPECT_EQ(guess_decimal_mark({{"1,5", "2,5"}, {"3", "4,25"}}), ',');
  EXPECT_EQ(guess_decimal_mark({{"1.5", "2.5"}, {"3", "4.25"}}), '.');
  EXPECT_EQ(guess_decimal_mark({{"1", "2"}}), '.');
}

TEST(CellNumbers, AChosenMarkSettlesThousands) {
  const Rows cells{{"1.024", "998"}};
  EXPECT_FALSE(cell_number("1.024", number_rule(cells, '.', false)).has_value());
  EXPECT_EQ(cell_number("1.024", number_rule(cells, '.', true)), 1.024);
}

TEST(CellNumbers, FractionsElsewhereSettleThousandsToo) {
  const Rows cells{{"1.024", "998", "4.5"}};
  EXPECT_EQ(cell_number("1.024", number_rule(cells, '.', false)), 1.024);
}

TEST(CellReading, SaysWhyACellIsNone) {
  EXPECT_EQ(cell_reading("424.5", {}).ppfd, 424.5);
  for (const char* cell : {"", "  ", "n/a", "424 lx", "1e9", "-60", "=1+1", "#REF!"}) {
    const CellReading reading = cell_reading(cell, {});
    EXPECT_FALSE(reading.ppfd.has_value()) << cell;
    EXPECT_FALSE(reading.refusal.empty()) << cell;
  }
}
