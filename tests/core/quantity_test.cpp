#include <gtest/gtest.h>

#include "core/bench/footprint.h"
#include "core/quantity/daily_light.h"
#include "core/quantity/display.h"
#include "core/quantity/length.h"
#include "core/quantity/number.h"

using namespace sunbreak;

TEST(Length, ReadsEveryUnit) {
  const std::pair<const char*, double> cases[] = {{"1.2m", 1.2},     {"45cm", 0.45},  {"300 mm", 0.3},
                                                  {"18 in", 0.4572}, {"4ft", 1.2192}, {"2 feet", 0.6096},
                                                  {"45 CM", 0.45}};
  for (const auto& [text, meters] : cases) {
    const auto length = parse_length_m(text);
    ASSERT_TRUE(length.ok()) << text;
    EXPECT_NEAR(length.value(), meters, 1e-12) << text;
  }
}

TEST(Length, RefusesWhatIsNoLength) {
  for (const char* text : {"", "cm", "45", "45 parsecs", "x cm", "4..5cm", "1e999 m", "nan cm"})
    EXPECT_FALSE(parse_length_m(text).ok()) << text;
}

TEST(Length, ProblemsSayWhatToDo) {
  const auto length = parse_length_m("45");
  ASSERT_FALSE(length.ok());
  EXPECT_NE(length.problem().sentence().find("45"), std::string::npos);
  EXPECT_FALSE(length.problem().remedy.empty());
}

TEST(Length, RoundTripsThroughEveryUnit) {
  for (const LengthUnit unit :
       {LengthUnit::Meter, LengthUnit::Centimeter, LengthUnit::Millimeter, LengthUnit::Inch, LengthUnit::Foot})
    for (const double m : {0.001, 0.4572, 1.2, 17.0}) EXPECT_NEAR(to_m(from_m(m, unit), unit), m, 1e-15 + m * 1e-15);
}

TEST(FootprintText, TheSecondUnitHoldsForBothSides) {
  const std::pair<const char*, Footprint> cases[] = {{"120x120cm", {1.2, 1.2}},
                                                     {"4x4ft", {1.2192, 1.2192}},
                                                     {"60 cm x 1.2 m", {0.6, 1.2}},
                                                     {"60×120 cm", {0.6, 1.2}},
                                                     {"2ftx4ft", {0.6096, 1.2192}}};
  for (const auto& [text, size] : cases) {
    const auto parsed = parse_footprint(text);
    ASSERT_TRUE(parsed.ok()) << text;
    EXPECT_NEAR(parsed.value().width_m, size.width_m, 1e-12) << text;
    EXPECT_NEAR(parsed.value().depth_m, size.depth_m, 1e-12) << text;
  }
  for (const char* text : {"", "120", "120x", "x120cm", "0x120cm", "-1x1m", "120x120"})
    EXPECT_FALSE(parse_footprint(text).ok()) << text;
}

TEST(Number, ReadsWholeTextsOnly) {
  EXPECT_EQ(parse_number("424.5"), 424.5);
  EXPECT_EQ(parse_number("-0.25"), -0.25);
  EXPECT_EQ(parse_number("424,5", ','), 424.5);
  for (const char* text : {"", "4 24", "424x", "1,5", "nan", "inf", "0x10", "1e", "--1", "1e400"})
    EXPECT_FALSE(parse_number(text).has_value()) << text;
}

TEST(DailyLight, IsPhotonsOverThePhotoperiod) {
  EXPECT_NEAR(dli_mol_m2_d(500, 12), 21.6, 1e-12);
  EXPECT_NEAR(ppfd_for_dli(21.6, 12), 500, 1e-9);
}

TEST(Display, WritesSurfaceUnits) {
  EXPECT_EQ(length_text(0.45, UnitSystem::Metric), "45 cm");
  EXPECT_EQ(length_text(0.4572, UnitSystem::Imperial), "18 in");
  EXPECT_EQ(short_number(45.0, 1), "45");
  EXPECT_EQ(short_number(17.72, 1), "17.7");
  EXPECT_NEAR(square_feet(1.44), 15.5, 0.01);
}

TEST(DecimalsOf, CountsThoseOfTheFirstNumber) {
  EXPECT_EQ(decimals_of("581 µmol/m²/s"), 0);
  EXPECT_EQ(decimals_of("2.60 µmol/J"), 2);
  EXPECT_EQ(decimals_of("+0.3, −0.1"), 1);
  EXPECT_EQ(decimals_of("–"), 0);
  EXPECT_EQ(decimals_of("13."), 0);
}
