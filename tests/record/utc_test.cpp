#include "record/utc.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

using namespace sunbreak::record;

TEST(Utc, KnownMoments) {
  EXPECT_EQ(seconds_of("1970-01-01T00:00:00.000Z"), 0);
  EXPECT_EQ(seconds_of("2000-02-29T12:00:00Z"), 951825600);
  EXPECT_DOUBLE_EQ(seconds_of("2026-05-14T09:30:15.250Z"), 1778751015.25);
  EXPECT_EQ(utc_text(1778751015.25), "2026-05-14T09:30:15.250Z");
}

TEST(Utc, WhatIsNoMomentIsNone) {
  for (const char* text : {"", "2026-05-14", "2026-02-30T00:00:00Z", "2026-13-01T00:00:00Z", "2026-05-14 09:30:15",
                           "2026-05-14T9x:30:15Z", "2026-05-14T25:00:00Z", "2026-05-14T09:61:00Z", "yesterday"})
    EXPECT_TRUE(std::isnan(seconds_of(text))) << text;
}

RC_GTEST_PROP(Utc, ReadsBackWhatItWrote, ()) {
  const auto ms = *rc::gen::inRange<std::int64_t>(0, 4'000'000'000'000);
  const double time_s = static_cast<double>(ms) / 1000;
  RC_ASSERT(std::abs(seconds_of(utc_text(time_s)) - time_s) < 0.0005);
}
