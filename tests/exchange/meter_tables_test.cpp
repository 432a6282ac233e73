#include "exchange/tables/meter_tables.h"

#include <gtest/gtest.h>

namespace sunbreak::exchange {
namespace {

TEST(MeterTablesTest, LuxPairsByTheirTitles) {
  const auto draft = read_lux_pairs("no,PPFD (µmol/m²/s),klux\n1,20,1.0\n2,40,2\n3,x,3\n4,60\n5,-1,2\n");
  ASSERT_TRUE(draft);
  ASSERT_EQ(draft.value().pairs.size(), 2u);
  EXPECT_EQ(draft.value().pairs[1].lux, 2000);
  EXPECT_EQ(draft.value().pairs[1].ppfd, 40);
  EXPECT_EQ(draft.value().findings.size(), 3u);
  EXPECT_FALSE(read_lux_pairs("1000,20\n2000,40\n"));
  EXPECT_FALSE(read_lux_pairs("lux,ppfd\n"));
}

TEST(MeterTablesTest, SensorPairsWithPlaces) {
  const auto draft = read_sensor_pairs("x_cm;y_cm;cheap;reference\n10;20;97,5;100\n30;20;98;101\n");
  ASSERT_TRUE(draft);
  EXPECT_EQ(draft.value().first, "reference");
  EXPECT_EQ(draft.value().pairs[0].first, 100);
  EXPECT_EQ(draft.value().pairs[0].second, 97.5);
  EXPECT_NEAR(draft.value().pairs[1].place->x_m, 0.3, 1e-12);
  const auto named = read_sensor_pairs("station,a,b\nB3,1,2\nC4,3,4\n");
  ASSERT_TRUE(named);
  EXPECT_EQ(named.value().pairs[0].place->x_m, 1);
  EXPECT_EQ(named.value().pairs[1].place->y_m, 4);
  EXPECT_FALSE(read_sensor_pairs("a,b,c\n1,2,3\n"));
  EXPECT_FALSE(read_sensor_pairs("ppfd,lux\n1,2\n"));
}

TEST(MeterTablesTest, CheckReadingsByDay) {
  const auto draft = read_check_readings(
      "date,lamp,meter,center,left,right,watts\n2026-03-14,A,S,500,410,405,100\n2026-03-15,A,S,501,411,,100\n"
      "2026-02-30,A,S,500,400,400,100\n2026-03-16T08:30,B,S,600,500,500,\n");
  ASSERT_TRUE(draft);
  ASSERT_EQ(draft.value().readings.size(), 2u);
  EXPECT_EQ(draft.value().readings[0].light, (std::vector<double>{500, 410, 405}));
  EXPECT_NEAR(draft.value().readings[1].day - draft.value().readings[0].day, 2 + 8.5 / 24, 1e-9);
  EXPECT_FALSE(draft.value().readings[1].watts);
  EXPECT_EQ(draft.value().days[0], "2026-03-14");
  EXPECT_EQ(draft.value().findings.size(), 2u);
}

}  // namespace
}  // namespace sunbreak::exchange
