#include "core/checks/plausibility.h"

#include <gtest/gtest.h>

#include <cmath>

#include "core/checks/slipped_readings.h"
#include "core/figures/sweep_figures.h"
#include "core/optics/room.h"
#include "core/spectrum/photon_yield.h"
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

TEST(Plausibility, TheLightsOwnSpectrumAndTheWallsReturnsSetTheCeiling) {
  StatedBench w;
  const double photons = area_mean(w.layout, w.ppfd) * 1.44;
  w.stated.photons_per_joule = 4.9;
  w.stated.power_w = photons / 5.0;
  ASSERT_NE(w.found("efficacy above physics"), nullptr);
  EXPECT_NE(w.found("efficacy above physics")->saw.find("this light's spectrum"), std::string::npos);
  // A floor of 0.25 between walls of 0.9 counts a photon 1 ÷ (1 − 0.225) times at most.
  w.stated.most_return = most_return({1.2, 1.2, 2, {0.9, 0.9, 0.9, 0.9, 0.7, 0.25}});
  EXPECT_NEAR(w.stated.most_return, 1.290323, 1e-6);
  EXPECT_EQ(w.found("efficacy above physics"), nullptr);
  w.stated.power_w = photons / (4.9 * 1.2904);
  EXPECT_NE(w.found("efficacy above physics"), nullptr);
  // All of a joule as light of 700 nm, and of 450 nm: λ ÷ 119.6267 nm.
  for (const auto& [nm, umol] : {std::pair{699.0, 5.8432}, std::pair{450.0, 3.7617}}) {
    Spectrum line;
    for (double at = 390; at <= 710; at += 0.5) {
      line.wavelengths_nm.push_back(at);
      line.values.push_back(std::abs(at - nm) < 0.6 ? 1 : 0);
    }
    line.scale = SpectralScale::Power;
    EXPECT_NEAR(photons_per_joule(SpectralCurve(line)).value(), umol, 2e-3) << nm;
  }
}

TEST(Plausibility, WattsUnlikeItsOwnWallReadingsAreSaid) {
  StatedBench w;
  w.stated.power_w = 100, w.stated.claimed_power_w.reset();
  w.stated.wall = {{230, 0.67, 152, 154.1, 0.986, 50}, {230, 0.67, 152.2, 154.1, 0.987, 50}};
  ASSERT_NE(w.found("watts unlike its own wall readings"), nullptr);
  EXPECT_EQ(w.found("watts unlike its own wall readings")->saw,
            "100 W stand for the sweep, and its own wall readings say 152.1 W");
  w.stated.power_w = 150;
  EXPECT_EQ(w.found("watts unlike its own wall readings"), nullptr);
  EXPECT_EQ(w.found("mains that no socket has"), nullptr);
  w.stated.wall = {{23, 6.7, 152, 154.1, 0.986, 500}};
  EXPECT_NE(w.found("mains that no socket has"), nullptr);
  w.stated.wall = {{230, 0.67, 152, 154.1, 1.3, 50}};
  EXPECT_NE(w.found("power factor over 1"), nullptr);
  EXPECT_NE(w.found("watts unlike volts times amperes times power factor"), nullptr);
}

TEST(Plausibility, ReadingsThatNobodyTookAreSaid) {
  std::vector<TakenReading> walk;
  for (int i = 0; i < 144; ++i) walk.push_back({1000 + 4.0 * i, 500, 2});
  EXPECT_TRUE(taking_checks(walk).empty());
  for (int i = 0; i < 144; ++i) walk[static_cast<std::size_t>(i)].taken_s = 1000 + i / 144.0;
  ASSERT_EQ(taking_checks(walk).size(), 1u);
  EXPECT_EQ(taking_checks(walk)[0].id, "read faster than hands");
  for (TakenReading& r : walk) r.taken_s = NAN;  // of a table: its time is the table's
  EXPECT_TRUE(taking_checks(walk).empty());
  walk[7].spread = 501;
  ASSERT_EQ(taking_checks(walk).size(), 1u);
  EXPECT_EQ(taking_checks(walk)[0].id, "samples apart as far as they are high");
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
