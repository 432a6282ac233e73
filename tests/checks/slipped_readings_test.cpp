#include "core/checks/slipped_readings.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "core/bench/walk_order.h"
#include "core/checks/probe_verdict.h"
#include "core/checks/walk_checks.h"
#include "core/sweep/field.h"

using namespace sunbreak;

namespace {

/// A bench of 6 × 6 cells under a bell of light, read as far as it is.
struct BellBench {
  explicit BellBench(double steep = 1.5, int side = 6)
      : layout(lay_out({1.2, 1.2}, {GridKind::Cells, side, side, 0, 0, {}}).value()),
        ppfd(layout.stations.size(), unread) {
    for (const Station& s : layout.stations) {
      const double x = s.x_m / 1.2 - 0.5, y = s.y_m / 1.2 - 0.5;
      truth.push_back(700 * std::exp(-steep * (x * x + y * y)));
    }
  }
  void read(int station, double times = 1) {
    ppfd[static_cast<std::size_t>(station)] = times * truth[static_cast<std::size_t>(station)];
  }
  void read_all() { ppfd = truth; }
  std::vector<int> odd(bool with_pattern = false) const {
    std::vector<int> stations;
    for (const SlippedReading& o :
         slipped_readings(layout, ppfd, with_pattern ? std::span<const double>(truth) : std::span<const double>()))
      stations.push_back(o.station);
    return stations;
  }
  Layout layout;
  std::vector<double> ppfd, truth;
};

}  // namespace

TEST(SlippedReadings, OneIsFoundAnywhereOnAReadBench) {
  for (int i = 0; i < 36; ++i) {
    BellBench w;
    w.read_all();
    w.read(i, 100);
    EXPECT_EQ(w.odd(), std::vector{i});
    auto checks = slipped_reading_checks(slipped_readings(w.layout, w.ppfd));
    ASSERT_EQ(checks.size(), 1u);
    EXPECT_EQ(checks[0].severity, Severity::Impossible);
    w.read(i, i % 2 ? 0.1 : 0);  // a shadow, a dead socket: unlikely, and yet it can be
    checks = slipped_reading_checks(slipped_readings(w.layout, w.ppfd));
    ASSERT_EQ(checks.size(), 1u) << i;
    EXPECT_EQ(checks[0].severity, Severity::Bad);
    EXPECT_EQ(checks[0].remedy, "look for a slipped digit, then read it again");
  }
}

TEST(SlippedReadings, TheFourthCornerIsNamedAndNothingIsSaidOfTheHang) {
  BellBench w;
  const std::vector<int> probe = opening_probe(w.layout);
  for (int k = 0; k < 4; ++k) w.read(probe[static_cast<std::size_t>(k)], k == 3 ? 10 : 1);
  EXPECT_EQ(w.odd(), std::vector{probe[3]});
  EXPECT_FALSE(probe_verdict(w.layout, w.ppfd, {}).has_value());
  const auto checks = walk_checks({w.layout, probe, w.ppfd, w.ppfd, {}});
  ASSERT_EQ(checks.size(), 1u);
  EXPECT_EQ(checks[0].stations, std::vector{probe[3]});
  EXPECT_NE(checks[0].saw.find("mirror places"), std::string::npos) << checks[0].saw;
  w.read(probe[3]);
  EXPECT_TRUE(probe_verdict(w.layout, w.ppfd, {}).has_value());
}

TEST(SlippedReadings, ASlipAtTheCenterIsNamedAndAHotCenterIsNot) {
  for (const bool with_pattern : {false, true}) {
    BellBench w(5, 7);  // the center twelve times the corners
    const std::vector<int> probe = opening_probe(w.layout);
    ASSERT_EQ(probe.size(), 5u);
    for (const int station : probe) w.read(station);
    EXPECT_TRUE(w.odd(with_pattern).empty());
    w.read(probe[4], 10);
    EXPECT_EQ(w.odd(with_pattern), std::vector{probe[4]});
    EXPECT_EQ(slipped_readings(w.layout, w.ppfd)[0].perhaps, true);
    w.read(probe[4], 0.1);
    EXPECT_EQ(w.odd(true), std::vector{probe[4]}) << "what corners cannot tell the pattern does";
  }
}

TEST(SlippedReadings, AWrongRimAccusesNoOther) {
  BellBench w;
  for (const int station : opening_probe(w.layout)) w.read(station);
  const int wrong = w.layout.index(2, 0);
  w.read(wrong, 10);
  w.read(w.layout.index(3, 1));
  w.read(w.layout.index(1, 1));
  EXPECT_EQ(w.odd(), std::vector{wrong});
  EXPECT_TRUE(slipped_readings(w.layout, w.ppfd)[0].perhaps) << "two say so";
  EXPECT_EQ(w.odd(true), std::vector{wrong});
}

TEST(SlippedReadings, OfTwoThatAreAllThereIsTheBrighterIsPerhapsOdd) {
  BellBench w;
  w.ppfd[0] = 500, w.ppfd[1] = 51'000;
  const auto odd = slipped_readings(w.layout, w.ppfd);
  ASSERT_EQ(odd.size(), 1u);
  EXPECT_EQ(odd[0].station, 1);
  EXPECT_TRUE(odd[0].perhaps);
}

TEST(SlippedReadings, OnAnyWayOverAnyBellNoneIsAccusedThatIsTrueAndTheSlipIsFound) {
  std::mt19937_64 random(20'261'203);
  int slips = 0, found_at_once = 0, innocent = 0, accused = 0;
  for (int round = 0; round < 200; ++round) {
    BellBench w(std::uniform_real_distribution<double>(0.5, 4)(random));
    std::vector<int> walk = with_probe_first(walk_order(w.layout, WalkOrder::FarToDoor), opening_probe(w.layout));
    const auto slipped = static_cast<std::size_t>(std::uniform_int_distribution<int>(0, 35)(random));
    const double times = round % 2 ? 10 : 0.1;
    for (std::size_t k = 0; k < walk.size(); ++k) {
      w.read(walk[k], k == slipped ? times : 1);
      const std::vector<int> odd = w.odd(true);
      for (const int station : odd) accused += station != walk[slipped];
      innocent += static_cast<int>(k) + (k < slipped);
      if (k == slipped && k > 1) ++slips, found_at_once += odd == std::vector{walk[k]};
    }
    EXPECT_EQ(w.odd(true), std::vector{walk[slipped]}) << "of the whole sweep";
  }
  EXPECT_EQ(accused, 0) << "of " << innocent;
  EXPECT_EQ(found_at_once, slips);
}
