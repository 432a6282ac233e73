#include "core/checks/plausibility.h"

#include <gtest/gtest.h>

#include <cmath>

#include "core/checks/slipped_readings.h"
#include "core/figures/sweep_figures.h"
#include "core/sweep/field.h"

using namespace sunbreak;

namespace {

/// A walked bench of 6 × 6 cells under a bell of light, and what is stated of it.
struct StatedBench {
  StatedBench() : StatedBench({1.2, 1.2}) {}
  explicit StatedBench(Footprint bench) : layout(lay_out(bench, {GridKind::Cells, 6, 6, 0, 0, {}}).value()) {
    for (const Station& s : layout.stations) {
      const double x = s.x_m / bench.width_m - 0.5, y = s.y_m / bench.depth_m - 0.5;
      ppfd.push_back(700 * std::exp(-1.5 * (x * x + y * y)));
    }
    stated.power_w = 320;
    stated.claimed_power_w = 330;
    stated.height_m = 0.45;
    stated.heights_m = {0.6, 0.45, 0.3};
    stated.fixture_width_m = 1.1, stated.fixture_depth_m = 1.05;
  }
  std::vector<Finding> findings() const { return plausibility_checks(layout, ppfd, stated); }
  const Finding* found(const std::string& id) const {
    last = findings();
    for (const Finding& f : last)
      if (f.id == id) return &f;
    return nullptr;
  }
  Layout layout;
  std::vector<double> ppfd;
  SweepStatement stated;
  mutable std::vector<Finding> last;
};

}  // namespace

TEST(Plausibility, AnUsualSweepIsLeftAlone) { EXPECT_TRUE(StatedBench().findings().empty()); }

TEST(Plausibility, EfficacyOverPhysicsIsImpossible) {
  StatedBench w({4, 4});  // feet taken for meters: 16 m² at some 560 µmol/m²/s and 320 W
  const Finding* f = w.found("efficacy above physics");
  ASSERT_NE(f, nullptr);
  EXPECT_EQ(f->severity, Severity::Impossible);
  StatedBench just;
  const double mean = area_mean(just.layout, just.ppfd);
  just.stated.power_w = mean * 1.44 / (most_efficacy * 0.999);
  EXPECT_EQ(just.found("efficacy above physics"), nullptr);
  just.stated.power_w = mean * 1.44 / (most_efficacy * 1.001);
  EXPECT_NE(just.found("efficacy above physics"), nullptr);
  just.stated.power_w.reset();
  EXPECT_EQ(just.found("efficacy above physics"), nullptr) << "without watts nothing is said";
  just.stated.power_w = 1;
  for (int i = 0; i < 5; ++i) just.ppfd[i] = unread;
  EXPECT_EQ(just.found("efficacy above physics"), nullptr) << "nor of a sweep that is not read";
}

TEST(Plausibility, NextToNoLightForItsWattsIsSaid) {
  StatedBench w;
  for (double& v : w.ppfd) v /= 100;  // 7.00 typed for 700
  const Finding* f = w.found("hardly any light for its watts");
  ASSERT_NE(f, nullptr);
  EXPECT_EQ(f->severity, Severity::Look);
}

TEST(Plausibility, ADarkBenchHasNoOutliers) {
  StatedBench w;
  w.stated.power_w.reset();
  for (std::size_t i = 0; i < 36; ++i) w.ppfd[i] = i % 2 ? 0.01 : 1.2;
  EXPECT_TRUE(w.findings().empty());
  EXPECT_TRUE(slipped_readings(w.layout, w.ppfd).empty());
}

TEST(Plausibility, HeightsThatLeapOrAreOutOfProportion) {
  StatedBench w;
  w.stated.heights_m = {0.6, 4.5, 0.3};
  w.stated.height_m = 4.5;
  EXPECT_NE(w.found("height unlikely"), nullptr) << "4.5 for 0.45";
  w.stated.heights_m = {0.6, 0.06};
  w.stated.height_m = 0.06;
  EXPECT_NE(w.found("height unlikely"), nullptr) << "0.06 for 0.6";
  w.stated.heights_m = {0.02};
  w.stated.height_m = 0.02;
  EXPECT_NE(w.found("height unlikely"), nullptr);
  w.stated.heights_m = {3};
  w.stated.height_m = 3;
  EXPECT_NE(w.found("height unlikely"), nullptr) << "3 m over 1.2 m";
  for (const std::vector<double>& usual : {std::vector{0.9, 0.6, 0.3, 0.15}, {0.1}, {2.0, 1.0}}) {
    w.stated.heights_m = usual;
    for (const double h : usual) {
      w.stated.height_m = h;
      EXPECT_EQ(w.found("height unlikely"), nullptr) << h;
    }
  }
}

TEST(Plausibility, WattsAndSizesUnlikeWhatIsStated) {
  StatedBench w;
  w.stated.power_w = 3200;
  EXPECT_NE(w.found("watts unlike the claim"), nullptr);
  w.stated.power_w = 32;
  EXPECT_NE(w.found("watts unlike the claim"), nullptr);
  w.stated.dimmer_pct = 10;
  EXPECT_EQ(w.found("watts unlike the claim"), nullptr) << "at a tenth of the dial";
  StatedBench small({0.37, 0.37});  // 1.2 taken for feet
  EXPECT_NE(small.found("fixture larger than the bench"), nullptr);
  EXPECT_EQ(StatedBench({0.6, 0.6}).found("fixture larger than the bench"), nullptr);
}
