#include "exchange/tables/sweep_name.h"

#include <gtest/gtest.h>

using namespace sunbreak;
using namespace sunbreak::exchange;

namespace {

struct Case {
  const char* name;
  const char* table;
  std::optional<double> height_m, percent;
};

}  // namespace

TEST(SweepNames, HeightsAndSettingsAreReadFromFileNames) {
  const Case cases[] = {{"bars_45cm_100pct.csv", "", 0.45, 100.0},
                        {"h30-dim60.csv", "", 0.30, 60.0},
                        {"Ostler 60 cm 75%.tsv", "", 0.60, 75.0},
                        {"tent 18in full.csv", "", 0.4572, std::nullopt},
                        {"bench_120x120cm_h45cm.csv", "", 0.45, std::nullopt},
                        {"grid 12x12.csv", "", std::nullopt, std::nullopt},
                        {"2026-03-14 sweep 3.csv", "", std::nullopt, std::nullopt},
                        {"height_37.5_dimmer_50.csv", "", 0.375, 50.0}};
  for (const Case& c : cases) {
    const SweepName named = sweep_named(c.name, c.table, LengthUnit::Centimeter);
    ASSERT_EQ(named.height_m.has_value(), c.height_m.has_value()) << c.name;
    EXPECT_NEAR(named.height_m.value_or(0), c.height_m.value_or(0), 1e-9) << c.name;
    EXPECT_EQ(named.percent, c.percent) << c.name;
  }
}

TEST(SweepNames, WhatTheNameLeavesOpenIsLookedForInTheHead) {
  const SweepName named =
      sweep_named("scan7.csv", "Height: 45 cm\nDimmer = 80 %\nx (cm),y (cm),ppfd\n5,5,400\n", LengthUnit::Centimeter);
  EXPECT_NEAR(*named.height_m, 0.45, 1e-12);
  EXPECT_EQ(named.percent, 80);
  EXPECT_FALSE(sweep_named("scan.csv", "x (cm),y (cm),ppfd\n5,5,400\n", LengthUnit::Centimeter).height_m.has_value());
}

TEST(SweepNames, AHeightWithoutUnitIsInTheSurfaceUnitAndSaysSo) {
  const SweepName named = sweep_named("h12.csv", "", LengthUnit::Inch);
  EXPECT_NEAR(*named.height_m, 0.3048, 1e-12);
  EXPECT_TRUE(named.unit_assumed);
  EXPECT_FALSE(sweep_named("h12cm.csv", "", LengthUnit::Inch).unit_assumed);
}
