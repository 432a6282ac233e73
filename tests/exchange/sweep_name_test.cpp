#include "exchange/tables/sweep_name.h"
#include "exchange/tables/split_sweeps.h"

#include <gtest/gtest.h>

#include <algorithm>

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

TEST(SplitSweeps, ATableOfSeveralIsCutByHeightAndSetting) {
  const std::string table =
      "height (mm),dimmer %,x cm,y cm,PPFD\n"
      "600,100,30,30,400\n600,100,90,30,410\n450,100,30,30,500\n600,50,30,30,205\n450,100,90,30,510\n";
  const auto parts = split_sweeps(table, LengthUnit::Centimeter);
  ASSERT_EQ(parts.size(), 3u);
  EXPECT_DOUBLE_EQ(*parts[0].height_m, 0.6);
  EXPECT_DOUBLE_EQ(*parts[1].height_m, 0.45);
  EXPECT_EQ(parts[2].percent, 50);
  EXPECT_EQ(std::count(parts[1].text.begin(), parts[1].text.end(), '\n'), 3) << "titles and two rows";
  for (const SweepPart& part : parts) {
    const SweepName named = sweep_named(part.name(), part.text, LengthUnit::Inch);
    EXPECT_NEAR(*named.height_m, *part.height_m, 1e-9) << part.name();
    EXPECT_EQ(named.percent, part.percent) << part.name();
  }
  const auto unsure = split_sweeps("height,x,y,PPFD\n24,30,30,400\n?,90,30,410\n", LengthUnit::Inch);
  ASSERT_EQ(unsure.size(), 2u);
  EXPECT_NEAR(*unsure[0].height_m, 0.6096, 1e-9);
  EXPECT_FALSE(unsure[1].height_m) << "to be said by whoever brings it in";
}

TEST(SplitSweeps, OneSweepStaysWhole) {
  EXPECT_TRUE(split_sweeps("x,y,PPFD\n30,30,400\n", LengthUnit::Centimeter).empty());
  EXPECT_TRUE(split_sweeps("400,410\n405,409\n", LengthUnit::Centimeter).empty());
}
