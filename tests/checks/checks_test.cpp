#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "checks/square_walk.h"
#include "core/bench/walk_order.h"
#include "core/checks/balance_checks.h"
#include "core/checks/far_readings.h"
#include "core/checks/mirror_surface.h"
#include "core/checks/walk_checks.h"
#include "core/sweep/field.h"

using namespace sunbreak;

namespace {

/// A hump about a middle, with a little noise from a seed.
std::vector<double> hump(double middle_x = 0.6, double middle_y = 0.6, double noise = 0.01, unsigned seed = 3) {
  std::mt19937_64 random(seed);
  std::normal_distribution<double> normal;
  std::vector<double> ppfd;
  for (const Station& s : layout.stations) {
    const double dx = s.x_m - middle_x, dy = s.y_m - middle_y;
    ppfd.push_back(800 * std::exp(-0.9 * (dx * dx + dy * dy)) * (1 + noise * normal(random)));
  }
  return ppfd;
}

bool has(const std::vector<Finding>& checks, const std::string& id) {
  for (const Finding& c : checks)
    if (c.id == id) return true;
  return false;
}

}  // namespace

TEST(LocalSurface, ACleanSweepRaisesNothing) {
  for (unsigned seed = 1; seed <= 20; ++seed)
    EXPECT_TRUE(far_reading_checks(layout, hump(0.6, 0.6, 0.015, seed)).empty()) << seed;
}

TEST(LocalSurface, FindsOneBadReadingAndAccusesNoOther) {
  for (const int station : {0, 5, 65, 78, 143}) {
    auto ppfd = hump();
    ppfd[station] *= 0.8;
    const auto checks = far_reading_checks(layout, ppfd);
    ASSERT_EQ(checks.size(), 1u) << station;
    EXPECT_EQ(checks[0].stations, std::vector<int>{station});
    EXPECT_NE(checks[0].saw.find("less"), std::string::npos);
    EXPECT_FALSE(checks[0].remedy.empty());
  }
}

TEST(LocalSurface, ASlippedDigitIsCalledOne) {
  auto ppfd = hump();
  ppfd[40] = std::floor(ppfd[40] / 10);
  const auto checks = far_reading_checks(layout, ppfd);
  ASSERT_EQ(checks.size(), 1u);
  EXPECT_EQ(checks[0].severity, Severity::Bad);
  EXPECT_NE(checks[0].remedy.find("digit"), std::string::npos);
}

TEST(LocalSurface, FindsSeveralSideBySide) {
  auto ppfd = hump();
  ppfd[60] *= 1.25;
  ppfd[61] *= 0.75;
  ppfd[100] *= 0.8;
  EXPECT_EQ(far_reading_checks(layout, ppfd).size(), 3u);
}

TEST(LocalSurface, WorksWhileTheWalkIsOn) {
  auto ppfd = hump();
  for (int i = 0; i < 84; ++i) ppfd[i] = unread;  // the far five rows are read
  ppfd[110] *= 0.8;
  const auto checks = far_reading_checks(layout, ppfd);
  ASSERT_EQ(checks.size(), 1u);
  EXPECT_EQ(checks[0].stations[0], 110);
}

TEST(LocalSurface, TooFewReadingsRaiseNothing) {
  std::vector<double> ppfd(144, unread);
  for (int i = 132; i < 140; ++i) ppfd[i] = i == 135 ? 10 : 400;
  EXPECT_TRUE(far_reading_checks(layout, ppfd).empty());
}

TEST(MirrorSurface, ASharpEvenPatternLeavesNoResidual) {
  std::vector<double> ppfd;
  for (const Station& s : layout.stations) ppfd.push_back((s.column % 11 + s.row % 11) % 2 == 0 ? 500 : 900);
  std::vector<double> even = ppfd;
  for (const Station& s : layout.stations)
    even[layout.index(s.column, s.row)] =
        ppfd[layout.index(std::min(s.column, 11 - s.column), std::min(s.row, 11 - s.row))];
  for (const SurfaceResidual& r : mirror_residuals(layout, even, std::vector<char>(144, 0)))
    EXPECT_NEAR(r.log_ratio, 0, 1e-9);
}

TEST(MirrorSurface, AnOffCenterHumpLeavesNearlyNone) {
  for (const SurfaceResidual& r : mirror_residuals(layout, hump(0.65, 0.57, 0), std::vector<char>(144, 0)))
    EXPECT_NEAR(r.log_ratio, 0, 0.002);
}

TEST(Balance, ACenteredSweepIsEvenEnough) { EXPECT_TRUE(balance_checks(layout, hump()).empty()); }

TEST(Balance, SaysWhichSideAndAboutHowFar) {
  const auto checks = balance_checks(layout, hump(0.63, 0.6, 0));  // 3 cm off; the sweep made even is a little wider
  ASSERT_EQ(checks.size(), 1u);
  EXPECT_EQ(checks[0].id, "left and right unlike");
  EXPECT_NE(checks[0].saw.find("right half"), std::string::npos);
  EXPECT_NE(checks[0].remedy.find("3.1 cm toward the left"), std::string::npos) << checks[0].remedy;
}

TEST(Balance, WaitsForTheWholeSweep) {
  auto ppfd = hump(0.7, 0.6);
  for (int i = 0; i < 40; ++i) ppfd[i] = unread;
  EXPECT_FALSE(has(walk_checks({layout, walk, ppfd, ppfd, {}}), "left and right unlike"));
}

TEST(Repeats, FiveAlikeRunningAreNoticedInWalkOrder) {
  auto raw = hump();
  for (const int station : {132, 133, 134, 135}) raw[station] = 500;
  EXPECT_TRUE(repeat_checks(walk, raw).empty());
  raw[136] = 500;
  const auto checks = repeat_checks(walk, raw);
  ASSERT_EQ(checks.size(), 1u);
  EXPECT_EQ(checks[0].stations.size(), 5u);
}

TEST(Repeats, ARowEnteredTwiceIsNoticed) {
  auto raw = hump();
  for (int column = 0; column < 12; ++column) raw[layout.index(column, 5)] = raw[layout.index(column, 4)];
  EXPECT_TRUE(has(equal_row_checks(layout, raw), "a row equal to its neighbor"));
  raw[layout.index(3, 5)] += 1;
  EXPECT_TRUE(equal_row_checks(layout, raw).empty());
}

TEST(Range, ReadingsBeyondTheSensorAreNoticed) {
  auto raw = hump();
  raw[3] = 5000;
  raw[4] = -20;
  EXPECT_EQ(range_checks(raw, 4000.0).size(), 2u);
  EXPECT_EQ(range_checks(raw, std::nullopt).size(), 1u);
}
