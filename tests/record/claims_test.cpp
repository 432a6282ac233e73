#include <gtest/gtest.h>

#include "record/claim_kinds.h"
#include "record/claim_splitting.h"
#include "record/faults.h"

namespace sunbreak::record {
namespace {

Claim of_kind(const char* kind, std::optional<double> value = {}) {
  Claim claim;
  claim.kind = kind, claim.value = value;
  return claim;
}

TEST(ClaimSplitting, ReadsWhatIsSurelyMeant) {
  struct Case {
    const char* sentence;
    const char* under;  ///< the kind it was written under
    std::vector<std::string> read;
    const char* rest = "";
  };
  const Case cases[] = {
      {"2 × 240 W", "", {"power_w: 480 W"}},
      {"0.3 kW", "power_w", {"power_w: 300 W"}},
      {"flowers 120 × 120 cm", "coverage", {"coverage: 120 × 120 cm, flowering & fruiting"}},
      {"covers 4x4 ft in veg at 18 in", "", {"coverage: 121.9 × 121.9 cm, young plants, at 45.7 cm"}},
      {"lights 90 × 90 cm; its map was made at 18 cm over 50 × 50 cm",
       "coverage",
       {"coverage: 90 × 90 cm", "map: a map of 50 × 50 cm, at 18 cm"}},
      {"dims to 20 %, boosts to 110 %", "dimming_range", {"boost_pct: 110 %", "dimming_range: down to 20 %"}},
      {"dims 10–100 %", "", {"dimming_range: 10 to 100 %"}},
      {"replaces a 750 W lamp", "equivalent", {"equivalent: a lamp of 750 W"}},
      {"replaces a 600 W sodium lamp", "", {"equivalent: a sodium lamp of 600 W"}},
      {"2.9 µmol/J, the driver not counted", "", {"efficacy_umol_j: 2.9 µmol/J, without driver losses"}},
      {"2,7 µmol/J at the wall", "", {"efficacy_umol_j: 2.7 µmol/J, with driver losses"}},
      {"900 µmol/s", "", {"ppf_umol_s: 900 µmol/s"}},
      {"hang it 30 to 45 cm over the canopy", "", {"height_m: 30 to 45 cm"}},
      {"18 in", "height_m", {"height_m: 18 in"}},
      {"120° beam", "", {"beam_angle_deg: 120°"}},
      {"4000 K, CRI 90", "", {"color_temperature_k: 4000 K", "rendering_ra: 90 Ra"}},
      {"32 dB(A), 6.5 kg", "", {"noise_db: 32 dB(A)", "weight_kg: 6.5 kg"}},
      {"12 lb; 50,000 hours", "", {"weight_kg: 12 lb", "lifetime_h: 50000 h"}},
      {"draws 1.4 A at a power factor of 0.97", "", {"power_factor: 0.97", "current_a: 1.4 A"}},
      {"never over 60 °C", "", {"surface_temperature_c: 60 °C"}},
      {"1,200 µmol/s", "", {"ppf_umol_s: 1200 µmol/s"}},
      {"the best of all lamps", "", {}, "the best of all lamps"},
      {"320 W; made with love", "", {"power_w: 320 W"}, "made with love"},
      {"", "", {}}};
  for (const Case& c : cases) {
    const SplitClaim split = split_claim(c.sentence, c.under);
    std::vector<std::string> read;
    for (const Claim& claim : split.claims) {
      EXPECT_FALSE(claim_fault(claim)) << c.sentence;
      EXPECT_TRUE(is_stated(claim)) << c.sentence;
      read.push_back(claim.kind + ": " + claim_words(claim, UnitSystem::Metric));
    }
    EXPECT_EQ(read, c.read) << c.sentence;
    EXPECT_EQ(split.rest, c.rest) << c.sentence;
  }
}

TEST(ClaimSplitting, KeepsFixtureSourceAndDay) {
  Claim claim = of_kind("coverage");
  claim.fixture_id = 7, claim.words = "flowers 90 × 90 cm", claim.source = "the box", claim.stated_on = "2026-02-01";
  const SplitClaim split = split_claim(claim);
  ASSERT_EQ(split.claims.size(), 1u);
  EXPECT_EQ(split.claims[0].fixture_id, 7);
  EXPECT_EQ(split.claims[0].source, "the box");
  EXPECT_EQ(split.claims[0].stated_on, "2026-02-01");
}

TEST(ClaimSplitting, GivesUpOnEndlessWords) {
  const std::string endless(100'000, '1');
  EXPECT_EQ(split_claim(endless).rest.size(), endless.size());
  EXPECT_TRUE(split_claim(std::string(5000, ' ') + "x").claims.empty());
}

TEST(ClaimKinds, KnowTheirOwnUnits) {
  Claim weight = of_kind("weight_kg", 5.44310844);
  weight.unit = "lb";
  EXPECT_EQ(claimed_value_words(weight, UnitSystem::Metric), "12 lb");
  Claim surface = of_kind("surface_temperature_c", 60);
  surface.unit = "°F";
  EXPECT_EQ(claimed_value_words(surface, UnitSystem::Metric), "140 °F");
  Claim height = of_kind("height_m", 0.4572);
  EXPECT_EQ(claimed_value_words(height, UnitSystem::Metric), "45.7 cm");
  EXPECT_EQ(claimed_value_words(height, UnitSystem::Imperial), "18 in");
  height.unit = "in";
  EXPECT_EQ(claimed_value_words(height, UnitSystem::Metric), "18 in");
}

TEST(ClaimKinds, RefuseWhatCannotBe) {
  EXPECT_FALSE(claim_fault(of_kind("power_w", 320)));
  EXPECT_TRUE(claim_fault(of_kind("dimming_steps", 2.5)));
  EXPECT_TRUE(claim_fault(of_kind("uv_present", 0.5)));
  EXPECT_TRUE(claim_fault(of_kind("power_factor", 1.2)));
  EXPECT_TRUE(claim_fault(of_kind("charm", 1)));
  Claim range = of_kind("height_m", 0.45);
  range.value_to = 0.3;
  EXPECT_TRUE(claim_fault(range));
  range.value_to = 0.6;
  EXPECT_FALSE(claim_fault(range));
  Claim power = of_kind("power_w", 320);
  power.value_to = 400;  // no range
  EXPECT_TRUE(claim_fault(power));
  power.value_to.reset(), power.unit = "hp";
  EXPECT_TRUE(claim_fault(power));
  Claim efficacy = of_kind("efficacy_umol_j", 2.8);
  efficacy.says = "perhaps";
  EXPECT_TRUE(claim_fault(efficacy));
  Claim map = of_kind("map");
  map.map_columns = 2, map.map_rows = 2;
  for (const char* bad : {"1 2 3", "1 2 3 4 5", "1 2 3 x", "1 2 3 1e9", "1 2 3 nan", "1,2 3 4 5"}) {
    map.map_ppfd = bad;
    EXPECT_TRUE(claim_fault(map)) << bad;
  }
  map.map_ppfd = "1 2 3.5 4";
  EXPECT_FALSE(claim_fault(map));
  EXPECT_EQ(map_values(map), (std::vector<double>{1, 2, 3.5, 4}));
}

TEST(ClaimKinds, AFaultyClaimIsToldAndLeftOut) {
  TestRecord record;
  record.fixture.id = record.bench.id = record.test.id = record.test.fixture_id = record.test.bench_id = 1;
  Claim bad = of_kind("power_factor", 3);
  bad.id = 5, bad.fixture_id = 1;
  record.claims = {bad};
  const auto faults = faults_of(record);
  ASSERT_EQ(faults.size(), 1u);
  EXPECT_EQ(faults[0].table, "claim");
}

TEST(ClaimsOf, TakeInWhatTheSheetStates) {
  TestRecord record;
  record.box_facts = {{1, 1, "weight", "stated", 9.4, ""},
                      {2, 1, "weight", "checked", 9.6, ""},
                      {3, 1, "dimming_low_pct", "stated", 10, ""},
                      {4, 1, "dimming_high_pct", "stated", 100, ""},
                      {5, 1, "noise_db", "stated", 30, ""}};
  record.claims = {of_kind("noise_db", 28)};
  const auto claims = claims_of(record);
  ASSERT_EQ(claims.size(), 3u);  // noise stands once
  EXPECT_EQ(claims[0].kind, "noise_db");
  EXPECT_EQ(claimed_value_words(claims[1], UnitSystem::Metric), "10 to 100 %");
  EXPECT_EQ(claimed_value_words(claims[2], UnitSystem::Metric), "9.4 kg");
}

}  // namespace
}  // namespace sunbreak::record
