#include "core/checks/longer_look.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "checks/square_walk.h"
#include "core/bench/walk_order.h"
#include "core/checks/far_readings.h"
#include "core/checks/noise_shares.h"
#include "core/sweep/field.h"

using namespace sunbreak;

namespace {

double light(const Station& s) { return 900 * std::exp(-1.1 * (std::pow(s.x_m - 0.6, 2) + std::pow(s.y_m - 0.6, 2))); }

/// A sweep walked so far, each reading the mean of so many values.
struct Walked {
  std::vector<double> ppfd = std::vector<double>(144, unread);
  std::vector<SampledReading> sampled = std::vector<SampledReading>(144);
  std::mt19937_64 random{5};
  std::normal_distribution<double> normal;

  /// Reads a station with `sensor` noise a value, and `placing` scatter of the place.
  void read(int station, int samples, double sensor, double placing = 0, double moved = 0) {
    const double there = light(layout.stations[station]) * (1 + moved) * (1 + placing * normal(random));
    double sum = 0, squares = 0;
    for (int i = 0; i < samples; ++i) {
      const double value = there * (1 + sensor * normal(random));
      sum += value;
      squares += value * value;
    }
    const double mean = sum / samples;
    ppfd[station] = mean;
    sampled[station] = {samples, samples > 1
                                     ? std::optional(std::sqrt((squares - samples * mean * mean) / (samples - 1)))
                                     : std::nullopt};
  }
  void read_first(int count, double sensor) {
    for (int i = 0; i < count; ++i) read(walk[i], 1, sensor);
  }
  WalkedSweep sweep() const { return {layout, walk, ppfd, ppfd, {}, nullptr, sampled}; }
};

}  // namespace

TEST(NoiseShares, ReadingsThatAverageAlikeHaveNone) {
  Walked w;
  for (int i = 0; i < 144; ++i) w.read(i, 3, 0.015);
  EXPECT_TRUE(shares_of(w.sweep()).empty());
}

TEST(NoiseShares, AMeanOfFourCarriesAQuarterWhereTheSensorIsTheNoise) {
  Walked w;
  for (int i = 0; i < 144; ++i) w.read(i, i % 6 == 0 ? 4 : 1, 0.015);
  const auto shares = shares_of(w.sweep());
  ASSERT_EQ(shares.size(), 144u);
  EXPECT_NEAR(shares[0], 0.25, 0.12);
  EXPECT_DOUBLE_EQ(shares[1], 1);
}

TEST(NoiseShares, AndNearlyAllOfItWherePlacingIs) {
  Walked w;
  for (int i = 0; i < 144; ++i) w.read(i, i % 6 == 0 ? 4 : 1, 0.003, 0.015);
  const auto shares = shares_of(w.sweep());
  ASSERT_EQ(shares.size(), 144u);
  EXPECT_GT(shares[0], 0.9);
}

TEST(NoiseShares, WithoutSpreadsNothingIsAssumed) {
  Walked w;
  for (int i = 0; i < 144; ++i) w.read(i, i % 6 == 0 ? 4 : 1, 0.015);
  for (SampledReading& s : w.sampled) s.spread.reset();
  EXPECT_TRUE(shares_of(w.sweep()).empty());
}

TEST(FarReadings, AMeanOfFourIsAccusedOfLess) {
  // 6 % off is four times the noise of one value, which may be chance, and eight times that of a mean of four.
  int single = 0, mean = 0;
  for (unsigned seed = 1; seed <= 20; ++seed)
    for (const int samples : {1, 4}) {
      Walked w;
      w.random.seed(seed);
      for (int i = 0; i < 144; ++i) w.read(i, i % 10 == 0 ? 4 : 1, 0.015);
      w.read(53, samples, 0.015, 0, -0.06);
      for (const Finding& c : walk_checks(w.sweep()))
        if (c.stations == std::vector<int>{53}) ++(samples == 1 ? single : mean);
    }
  EXPECT_GE(mean, 19);
  EXPECT_LT(single, 15);
}

TEST(LongerLook, TheFirstReadingsHaveNothingToBeHeldAgainst) {
  Walked w;
  w.read(walk[0], 1, 0.015);
  const auto look = longer_look(w.sweep(), walk[0]);
  ASSERT_TRUE(look);
  EXPECT_EQ(look->samples, 4);
  EXPECT_FALSE(look->off);
  w.read(walk[0], 4, 0.015);
  EXPECT_FALSE(longer_look(w.sweep(), walk[0])) << "four are enough";
}

TEST(LongerLook, AReadingOffItsNeighborsIsWorthFourTimesAsMany) {
  Walked w;
  w.read_first(77, 0.005);
  w.read(walk[77], 1, 0, 0, 0.06);
  const auto look = longer_look(w.sweep(), walk[77]);
  ASSERT_TRUE(look && look->off);
  EXPECT_NEAR(*look->off, 0.06, 0.025);
  EXPECT_EQ(look->samples, 4);
  w.sampled[walk[77]].samples = 8;
  EXPECT_EQ(longer_look(w.sweep(), walk[77])->samples, 20) << "but no more than twelve more";
  w.read(walk[77], 1, 0);
  EXPECT_FALSE(longer_look(w.sweep(), walk[77])) << "one that fits needs none";
}

TEST(LongerLook, ABadReadingCastsNoDoubtOnTheNextOne) {
  Walked w;
  w.read_first(76, 0.005);
  w.read(walk[76], 1, 0.005, 0, -0.3);
  w.read(walk[77], 1, 0.005);
  EXPECT_FALSE(longer_look(w.sweep(), walk[77]));
}

TEST(LongerLook, FewOfACleanWalkAfterItsFirstRows) {
  int looks = 0, readings = 0;
  for (unsigned seed = 1; seed <= 10; ++seed) {
    Walked w;
    w.random.seed(seed);
    w.read_first(48, 0.015);
    for (int i = 48; i < 144; ++i, ++readings) {
      w.read(walk[i], 1, 0.015);
      looks += longer_look(w.sweep(), walk[i]).has_value();
    }
  }
  EXPECT_LT(looks, 0.1 * readings);
  EXPECT_GT(looks, 0) << "two standard deviations are not rare";
}

TEST(LongerLook, LooseSpotsHaveNoNeighbors) {
  const Layout spots =
      lay_out({1.2, 1.2}, {GridKind::Spots, 0, 0, 0, 0, {{"middle", 0.6, 0.6}, {"door", 0.3, 0.1}}}).value();
  const std::vector<double> ppfd{400, unread};
  EXPECT_FALSE(longer_look({spots, {}, ppfd, ppfd, {}}, 0));
}
