#include "book/demo/demo_claims.h"

namespace sunbreak::book {
namespace {

using record::Claim;

constexpr const char* box = "the box";
constexpr const char* leaflet = "the leaflet";

/// Builds a claim member by member.
struct Says {
  Claim claim;
  explicit Says(const char* kind, std::optional<double> value, const char* words, const char* source = box) {
    claim.kind = kind, claim.value = value, claim.words = words, claim.source = source, claim.stated_on = "2026-02-20";
  }
  Says& to(double high) { return claim.value_to = high, *this; }
  Says& says(const char* what) { return claim.says = what, *this; }
  Says& in(const char* unit) { return claim.unit = unit, *this; }
  Says& area(const char* stage, double width_m, double depth_m) {
    return claim.stage = stage, claim.width_m = width_m, claim.depth_m = depth_m, *this;
  }
  Says& at(double height_m, std::optional<double> percent = {}) {
    return claim.height_m = height_m, claim.percent = percent, *this;
  }
  Says& map(int columns, int rows) { return claim.map_columns = columns, claim.map_rows = rows, *this; }
  operator Claim() const { return claim; }
};

constexpr const char *flowers = "flowering & fruiting", *seedlings = "propagation", *greens = "leafy & herbs";

}  // namespace

std::vector<Claim> sample_claims(std::string_view fixture) {
  if (fixture == "Ostler Six-Bar")
    return {Says("power_w", 320, "320 W"),
            Says("efficacy_umol_j", 2.85, "2.85 µmol/J at the wall").says("with driver"),
            Says("ppf_umol_s", 915, "915 µmol/s"),
            Says("coverage", {}, "flowers 120 × 120 cm").area(flowers, 1.2, 1.2),
            Says("height_m", 0.3, "30 to 45 cm over the canopy", leaflet).to(0.45).in("cm"),
            Says("evenness", 0.6, "lowest to mean 0.6 or better", leaflet).says("lowest_over_mean"),
            Says("beam_angle_deg", 120, "120°", leaflet),
            Says("map", {}, "map over 100 × 100 cm, 30 cm under the bars", leaflet)
                .area("", 1.0, 1.0)
                .at(0.3, 100)
                .map(5, 5),
            Says("lifetime_h", 50000, "50,000 h"),
            Says("rendering_ra", 90, "Ra 90", leaflet)};
  if (fixture == "Brindle Panel 135")
    return {Says("power_w", 135, "135 W"), Says("efficacy_umol_j", 2.55, "2.55 µmol/J"),
            Says("coverage", {}, "flowers 80 × 80 cm").area(flowers, 0.8, 0.8),
            Says("height_m", 0.45, "45 cm").in("cm"),
            Says("map", {}, "map over 60 × 60 cm at 30 cm").area("", 0.6, 0.6).at(0.3, 100).map(5, 5)};
  if (fixture == "Pell Narrow 300")
    return {Says("power_w", 300, "300 W"),
            Says("efficacy_umol_j", 2.9, "2.9 µmol/J, the driver not counted").says("without driver"),
            Says("coverage", {}, "lights 90 × 90 cm"),
            Says("map", {}, "its map was made at 18 cm over 50 × 50 cm").area("", 0.5, 0.5).at(0.18, 100).map(5, 5)};
  if (fixture == "Wicket Four-Tube")
    return {Says("power_w", 108, "108 W"), Says("coverage", {}, "seedlings 60 × 120 cm").area(seedlings, 0.6, 1.2),
            Says("equivalent", {}, "stands in for two household bulbs of 60 W"),
            Says("surface_temperature_c", 60, "never over 60 °C", leaflet)};
  if (fixture == "Bess 400") return {Says("power_w", 400, "400 W"), Says("weight_kg", 6.5, "6.5 kg")};
  if (fixture == "Marrow Row")
    return {Says("power_w", 495, "3 × 165 W"), Says("efficacy_umol_j", 2.45, "2.45 µmol/J"),
            Says("dimming_range", 20, "dims to 20 %").to(100),
            Says("coverage", {}, "flowers 100 × 100 cm").area(flowers, 1.0, 1.0)};
  if (fixture == "Tansy Round 60")
    return {Says("power_w", 60, "60 W"), Says("coverage", {}, "microgreens 60 × 60 cm").area(greens, 0.6, 0.6),
            Says("boost_pct", 115, "boosts to 115 %")};
  return {};
}

double map_flattery(std::string_view fixture) {
  return fixture == "Brindle Panel 135" ? 1.18 : fixture == "Pell Narrow 300" ? 1.1 : 1.02;
}

}  // namespace sunbreak::book
