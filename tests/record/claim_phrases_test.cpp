#include <gtest/gtest.h>

#include "record/claim_kinds.h"
#include "record/claim_splitting.h"

namespace sunbreak::record {
namespace {

/// What a phrase may be read as; what is not read has to be left in the line. All are made up.
struct Phrase {
  const char* words;
  std::vector<std::string> read;
};

const std::vector<Phrase>& phrases() {
  static const std::vector<Phrase> all{
      // Lamps that it is held to stand in for: never its own watts.
      {"1000W equivalent", {"equivalent: a lamp of 1000 W"}},
      {"1000 W equivalent", {"equivalent: a lamp of 1000 W"}},
      {"1000-watt equivalent", {"equivalent: a lamp of 1000 W"}},
      {"replaces 1000W HPS", {"equivalent: a hps lamp of 1000 W"}},
      {"Replaces a 1000 W HPS", {"equivalent: a hps lamp of 1000 W"}},
      {"replaces 600w sodium lamps", {"equivalent: a sodium lamps of 600 W"}},
      {"equivalent to a 600 W HPS", {"equivalent: a hps lamp of 600 W"}},
      {"equivalent to 400W metal halide", {"equivalent: a metal halide lamp of 400 W"}},
      {"600 W HPS equivalent", {"equivalent: a hps lamp of 600 W"}},
      {"600W HPS replacement", {"equivalent: a hps lamp of 600 W"}},
      {"Instead of a 250 W lamp", {"equivalent: a lamp of 250 W"}},
      {"stands in for a 400 W sodium lamp", {"equivalent: a sodium lamp of 400 W"}},
      {"stands in for two household bulbs of 60 W", {}},
      {"replaces two 600 W lamps", {}},
      {"same as a 1 kW light", {"equivalent: a lamp of 1000 W"}},
      {"comparable to a 750W fixture", {"equivalent: a lamp of 750 W"}},
      {"100 W, replaces a 600 W HPS lamp", {"equivalent: a hps lamp of 600 W", "power_w: 100 W"}},
      {"150 W (600 W equivalent)", {"equivalent: a lamp of 600 W"}},
      {"outperforms any 1000W light", {}},
      {"beats a 315 W lamp", {}},
      // Areas, more than one, and bare ones.
      {"flowers 5×5 ft, veg 6×6 ft",
       {"coverage: 152.4 × 152.4 cm, flowering & fruiting", "coverage: 182.9 × 182.9 cm, young plants"}},
      {"Flower 4x4', Veg 5x5'",
       {"coverage: 121.9 × 121.9 cm, flowering & fruiting", "coverage: 152.4 × 152.4 cm, young plants"}},
      {"veg: 5 x 5 ft / bloom: 4 x 4 ft",
       {"coverage: 152.4 × 152.4 cm, young plants", "coverage: 121.9 × 121.9 cm, flowering & fruiting"}},
      {"4x4 ft flower and 5x5 ft veg",
       {"coverage: 121.9 × 121.9 cm, flowering & fruiting", "coverage: 152.4 × 152.4 cm, young plants"}},
      {"5x5 ft veg 4x4 ft flower", {}},
      {"4x4", {"coverage: 121.9 × 121.9 cm"}},
      {"2x4", {"coverage: 61 × 121.9 cm"}},
      {"120x120", {"coverage: 120 × 120 cm"}},
      {"covers 3x3", {"coverage: 91.4 × 91.4 cm"}},
      {"for a 4x4 tent", {"coverage: 121.9 × 121.9 cm"}},
      {"footprint 2 x 4", {"coverage: 61 × 121.9 cm"}},
      {"240 W, covers 4x4", {"coverage: 121.9 × 121.9 cm", "power_w: 240 W"}},
      {"coverage 80 × 80 cm", {"coverage: 80 × 80 cm"}},
      {"flowering 90 by 90 cm", {"coverage: 90 × 90 cm, flowering & fruiting"}},
      {"seedlings 60 x 120 cm", {"coverage: 60 × 120 cm, propagation"}},
      {"covers 1 x 1 m", {"coverage: 100 × 100 cm"}},
      {"covers 1,2 x 1,2 m", {"coverage: 120 × 120 cm"}},
      {"30 x 30 in core coverage", {"coverage: 76.2 × 76.2 cm"}},
      {"24\" x 48\" veg", {"coverage: 61 × 121.9 cm, young plants"}},
      {"veg & flower 4 x 4 ft",
       {"coverage: 121.9 × 121.9 cm, flowering & fruiting", "coverage: 121.9 × 121.9 cm, young plants"}},
      {"microgreens 60 × 60 cm", {"coverage: 60 × 60 cm, leafy & herbs"}},
      {"covers 4x4 ft in veg at 18 in", {"coverage: 121.9 × 121.9 cm, young plants, at 45.7 cm"}},
      {"4 ft x 2 ft footprint at 24 in", {"coverage: 121.9 × 61 cm, at 61 cm"}},
      {"flowers 120 × 120 cm at 80 %", {"coverage: 120 × 120 cm, flowering & fruiting, at 80 %"}},
      {"3x5", {"coverage: 91.4 × 152.4 cm"}},
      {"its map shows 50 × 50 cm at 18 cm", {"map: a map of 50 × 50 cm, at 18 cm"}},
      {"PPFD map 4x4 ft at 12 in", {"map: a map of 121.9 × 121.9 cm, at 30.5 cm"}},
      {"20 x 20 diodes", {}},
      {"board of 45 x 32 x 5 cm", {}},
      {"2 x 240 W", {"power_w: 480 W"}},
      {"6 x 55 W bars", {"power_w: 330 W"}},
      {"3 × 165 W", {"power_w: 495 W"}},
      {"covers 5x5", {"coverage: 152.4 × 152.4 cm"}},
      {"flowers 100 × 100 cm", {"coverage: 100 × 100 cm, flowering & fruiting"}},
      {"150 W equivalent", {"equivalent: a lamp of 150 W"}},
      {"avg PPFD 640 at 24 in", {"mean_ppfd: 640 µmol/m²/s, at 61 cm"}},
      // Mean light at a height.
      {"average PPFD 850 at 18 in", {"mean_ppfd: 850 µmol/m²/s, at 45.7 cm"}},
      {"average PPFD of 850 µmol/m²/s at 45 cm", {"mean_ppfd: 850 µmol/m²/s, at 45 cm"}},
      {"avg. PPFD: 720 umol/m2/s @ 30 cm", {"mean_ppfd: 720 µmol/m²/s, at 30 cm"}},
      {"Avg PPFD 1,050 at 12\"", {"mean_ppfd: 1050 µmol/m²/s, at 30.5 cm"}},
      {"mean PPFD 615", {"mean_ppfd: 615 µmol/m²/s"}},
      {"average PPFD 900 over 4x4 ft at 12 in", {"mean_ppfd: 900 µmol/m²/s over 121.9 × 121.9 cm, at 30.5 cm"}},
      {"4x4 ft average PPFD of 638 at 20 in", {"mean_ppfd: 638 µmol/m²/s over 121.9 × 121.9 cm, at 50.8 cm"}},
      {"120 x 120 cm: average 640 µmol/m²/s at 30 cm", {"mean_ppfd: 640 µmol/m²/s over 120 × 120 cm, at 30 cm"}},
      {"638 µmol/m²/s average at 20 cm", {"mean_ppfd: 638 µmol/m²/s, at 20 cm"}},
      {"638 umol/m2/s (avg) at 20 cm", {"mean_ppfd: 638 µmol/m²/s, at 20 cm"}},
      {"max PPFD 1500 at 12 in", {}},
      {"center PPFD 1,200 µmol/m²/s", {}},
      {"up to 1600 µmol/m²/s", {}},
      {"average life 50,000 hours", {"lifetime_h: 50000 h"}},
      {"average consumption 240 W", {"power_w: 240 W"}},
      // Power and light.
      {"320 W", {"power_w: 320 W"}},
      {"320W", {"power_w: 320 W"}},
      {"draws 320 watts", {"power_w: 320 W"}},
      {"0.65 kW", {"power_w: 650 W"}},
      {"true power 240W ± 5 %", {"power_w: 240 W"}},
      {"2.85 µmol/J", {"efficacy_umol_j: 2.85 µmol/J, not said whether the driver counts"}},
      {"2,8 μmol/J", {"efficacy_umol_j: 2.8 µmol/J, not said whether the driver counts"}},
      {"efficacy of 2.9 umol per joule", {"efficacy_umol_j: 2.9 µmol/J, not said whether the driver counts"}},
      {"2.9 µmol/J, driver not counted", {"efficacy_umol_j: 2.9 µmol/J, without driver losses"}},
      {"2.7 µmol/J at the wall", {"efficacy_umol_j: 2.7 µmol/J, with driver losses"}},
      {"915 µmol/s", {"ppf_umol_s: 915 µmol/s"}},
      {"PPF 1,700 umol/s", {"ppf_umol_s: 1700 µmol/s"}},
      {"650 W, 1,750 µmol/s, 2.7 µmol/J",
       {"efficacy_umol_j: 2.7 µmol/J, not said whether the driver counts", "ppf_umol_s: 1750 µmol/s",
        "power_w: 650 W"}},
      {"240W / 2.5 µmol/J / 600 µmol/s",
       {"efficacy_umol_j: 2.5 µmol/J, not said whether the driver counts", "ppf_umol_s: 600 µmol/s", "power_w: 240 W"}},
      {"60,000 lumens", {}},
      {"12,000 lm", {}},
      {"3000K", {"color_temperature_k: 3000 K"}},
      {"3000K + 5000K diodes", {"color_temperature_k: 3000 K"}},
      {"CRI 90", {"rendering_ra: 90 Ra"}},
      {"Ra>95", {"rendering_ra: 95 Ra"}},
      {"660 nm red", {}},
      {"120° beam", {"beam_angle_deg: 120°"}},
      {"90 degree lenses", {"beam_angle_deg: 90°"}},
      {"full spectrum", {}},
      {"IP65", {}},
      {"five year warranty", {}},
      // Dimming.
      {"dims 10-100 %", {"dimming_range: 10 to 100 %"}},
      {"dimmable from 20 to 100%", {"dimming_range: 20 to 100 %"}},
      {"dims to 5 %", {"dimming_range: down to 5 %"}},
      {"boost to 115 %", {"boost_pct: 115 %"}},
      {"5 dimming steps", {"dimming_steps: 5"}},
      {"knob: 25 / 50 / 75 / 100 %", {}},
      {"0-10 V dimming", {}},
      // Hanging.
      {"hang 30-45 cm above the canopy", {"height_m: 30 to 45 cm"}},
      {"hang it 12 to 18 in over the canopy", {"height_m: 12 to 18 in"}},
      {"hanging height 18-24\"", {"height_m: 18 to 24 in"}},
      {"hang at 40 cm in flower", {"height_m: 40 cm, flowering & fruiting"}},
      {"keep 24 in above seedlings", {"height_m: 24 in, propagation"}},
      {"height 10 cm", {"height_m: 10 cm"}},
      // The rest of the sheet.
      {"6.5 kg", {"weight_kg: 6.5 kg"}},
      {"weighs 14 lbs", {"weight_kg: 14 lb"}},
      {"32 dB", {"noise_db: 32 dB(A)"}},
      {"50,000 h", {"lifetime_h: 50000 h"}},
      {"L90 over 54000 hours", {"lifetime_h: 54000 h"}},
      {"power factor 0.97", {"power_factor: 0.97"}},
      {"PF > 0.95", {"power_factor: 0.95"}},
      {"1.4 A", {"current_a: 1.4 A"}},
      {"2.8 amps at 120 V", {"current_a: 2.8 A"}},
      {"100-277 V", {}},
      {"50/60 Hz", {}},
      {"surface stays under 60 °C", {"surface_temperature_c: 60 °C"}},
      {"cool to the touch", {}},
      {"made by growers for growers", {}},
      {"", {}},
      // Several at once, and what is not understood stays.
      {"320 W; flowers 120 × 120 cm; 2.8 µmol/J",
       {"power_w: 320 W", "coverage: 120 × 120 cm, flowering & fruiting",
        "efficacy_umol_j: 2.8 µmol/J, not said whether the driver counts"}},
      {"240 W for a 3x3 ft tent", {"coverage: 91.4 × 91.4 cm", "power_w: 240 W"}},
      {"450W, 4x4 flower, 5x5 veg",
       {"coverage: 121.9 × 121.9 cm, flowering & fruiting", "coverage: 152.4 × 152.4 cm, young plants",
        "power_w: 450 W"}},
      {"2x more light", {}},
      {"30 % more yield", {}},
      {"saves 40 % power", {}},
      {"1 year, 24/7 support", {}},
      {"up to 50 % less heat", {}},
      {"8 bars", {}},
      {"3,024 diodes", {}},
      {"driver rated for 480 W", {"power_w: 480 W"}},
      {"100 W at 50 %", {"power_w: 100 W"}},
      {"4x4x7 ft tent", {}},
      {"suits 60 × 60 to 80 × 80 cm", {}},
      {"covers 4 × 4 – 5 × 5 ft", {}},
      {"16 sq ft", {}},
      {"1.2 m² in flower", {}},
      {"PPFD 850", {}},
      {"uniformity 0.8", {}},
      {"DLI 40", {}},
      {"flowers 0.9 × 0.9 m at 35 cm and 100 %", {"coverage: 90 × 90 cm, flowering & fruiting, at 35 cm"}},
      {"veg 150x150 cm at 60 cm", {"coverage: 150 × 150 cm, young plants, at 60 cm"}},
      {"clones 2x4 ft", {"coverage: 61 × 121.9 cm, propagation"}},
      {"lettuce 60 x 120 cm", {"coverage: 60 × 120 cm, leafy & herbs"}},
      {"average PPFD 500 and 90 W", {"mean_ppfd: 500 µmol/m²/s", "power_w: 90 W"}},
  };
  return all;
}

/// The numbers of a text.
std::vector<std::string> numbers_of(const std::string& text) {
  std::vector<std::string> numbers;
  std::string number;
  for (const char c : text + " ")
    if ((c >= '0' && c <= '9') || ((c == '.' || c == ',') && !number.empty()))
      number += c;
    else if (!number.empty())
      numbers.push_back(std::exchange(number, {}));
  return numbers;
}

}  // namespace

TEST(BoxWords, EachPhraseIsReadRightlyOrLeftInTheLine) {
  EXPECT_GE(phrases().size(), 145u);
  for (const Phrase& phrase : phrases()) {
    const SplitClaim split = split_claim(phrase.words);
    std::vector<std::string> read;
    for (const Claim& claim : split.claims) read.push_back(claim.kind + ": " + claim_words(claim, UnitSystem::Metric));
    EXPECT_EQ(read, phrase.read) << phrase.words;
    if (phrase.read.empty()) {
      EXPECT_EQ(split.rest, phrase.words) << "left as it is";
    }
  }
}

TEST(BoxWords, NoNumberGetsLost) {
  // What a phrase states and no claim took stands in the rest.
  for (const char* words : {"240 W, IP65", "3000K + 5000K diodes, 320 W", "900 µmol/s at 277 V", "4x4 ft, 8 bars"}) {
    const SplitClaim split = split_claim(words);
    ASSERT_FALSE(split.claims.empty()) << words;
    EXPECT_FALSE(numbers_of(split.rest).empty()) << words;
  }
}

}  // namespace sunbreak::record
