#include "core/text/pattern.h"

#include <gtest/gtest.h>

#include <stdexcept>

namespace sunbreak {
namespace {

TEST(PatternTest, GroupsKeepWhatTheyTook) {
  const Pattern length(R"((\d+)\s*(cm|m)?(!)?)");
  const auto found = length.find("hang 45 cm");
  ASSERT_TRUE(found);
  EXPECT_EQ(found->position, 5u);
  EXPECT_EQ(found->length, 5u);
  EXPECT_EQ(found->text(0), "45 cm");
  EXPECT_EQ(found->text(1), "45");
  EXPECT_EQ(found->text(2), "cm");
  EXPECT_FALSE(found->has(3));
  EXPECT_EQ(found->text(3), "");
  EXPECT_FALSE(length.find("close to the plants"));
}

TEST(PatternTest, GoesOnFromAPlaceAndKnowsWhatStoodBefore) {
  const Pattern word(R"(\bcm)", Pattern::Case::DoesNotMatter);
  const std::string text = "12cm CM";
  const auto found = word.find(text, 2);
  ASSERT_TRUE(found) << "the first one is the end of a longer word";
  EXPECT_EQ(found->position, 5u);
  EXPECT_FALSE(word.find(text, found->position + found->length));
}

TEST(PatternTest, FitsIsFromEndToEnd) {
  const Pattern thousands(R"(\d{1,3}(?:,\d{3})+)");
  EXPECT_TRUE(thousands.fits("50,000"));
  EXPECT_FALSE(thousands.fits("2,7"));
  EXPECT_FALSE(thousands.fits("50,000 h"));
}

TEST(PatternTest, WhatWouldTakeForeverDoesNotFit) { EXPECT_FALSE(Pattern("(a+)+[bc]").fits(std::string(60, 'a'))); }

TEST(PatternTest, WhatIsNoExpressionIsRefused) { EXPECT_THROW(Pattern("(cm"), std::invalid_argument); }

}  // namespace
}  // namespace sunbreak
