#include <gtest/gtest.h>

#include "book/kill_rounds.h"

using namespace sunbreak::book;

/// A slice of `./sunbreak study kills`, of other seeds.
class Crash : public ::testing::TestWithParam<const char*> {};
INSTANTIATE_TEST_SUITE_P(While, Crash, ::testing::Values("typing", "importing", "recording", "publishing"),
                         [](const auto& work) { return std::string(work.param); });

TEST_P(Crash, EverythingAcknowledgedOutlivesAKill) {
  const KillRounds rounds = work_and_kill(GetParam(), 25, 7);
  EXPECT_EQ(rounds.kills, 25) << rounds.shortcoming;
  EXPECT_EQ(rounds.shortcoming, "");
  EXPECT_GT(rounds.acknowledged, 20);  // so that something was at stake, on a slow machine too
}
