#include "evaluation/audit/audit.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>

#include "audit/simulated_audit.h"
#include "core/claims/claimed_map.h"
#include "evaluation/crop_targets.h"
#include "evaluation/measured_spectra.h"
#include "evaluation/test_light.h"
#include "exchange/audit/audit_json.h"
#include "record/claim_kinds.h"
#include "record/spectrum_samples.h"

namespace sunbreak::evaluation {
namespace {

using enum Verdict;

Claim claim_of(const char* kind, std::optional<double> value = {}) {
  Claim claim;
  claim.fixture_id = 1, claim.kind = kind, claim.value = value;
  return claim;
}

Claim coverage_of(const char* stage, double side_m) {
  Claim claim = claim_of("coverage");
  claim.stage = stage, claim.width_m = claim.depth_m = side_m;
  return claim;
}

/// One test on an open floor, walked at two heights, with all that claims may be held against.
class AuditOfATest : public ::testing::Test {
 protected:
  static void SetUpTestSuite() {
    bench_ = std::make_unique<trial::AuditBench>(trial::audit_bench(5, 2, trial::Benches::Open));
    TestRecord& r = bench_->record;
    r.wall_readings = {{1, 1, 1, 200, 230, 0.9, 207, 0.966, 50, {}, ""}};
    r.temperatures = {{1, 1, "air", "contact", 22, {}, {}, {}, false, ""},
                      {2, 1, "driver", "contact", 58, {}, {}, {}, false, ""}};
    r.box_facts = {{1, 1, "weight", "checked", 4, ""},
                   {2, 1, "noise_db", "checked", 40, ""},
                   {3, 1, "dimming_steps", "checked", 10, ""},
                   {4, 1, "color_temperature_k", "checked", 4000, ""},
                   {5, 1, "rendering_ra", "checked", 90, ""},
                   {6, 1, "uv_present", "checked", {}, "none"},
                   {7, 1, "far_red_present", "checked", {}, "present"}};
    before_ = evaluate(r);
    ASSERT_TRUE(before_->light()->found().fits) << before_->light()->found().reason;
    context_.targets = shipped_targets();
  }
  static void TearDownTestSuite() { before_.reset(), bench_.reset(); }

  static Audit audited_all(std::vector<Claim> claims, const std::function<void(TestRecord&)>& alter = {}) {
    TestRecord r = bench_->record;
    r.claims = std::move(claims);
    if (alter) alter(r);
    return audit(*evaluate(r, nullptr, UnitSystem::Metric, before_.get()), context_);
  }
  /// Without the words, which take most of the time.
  static AuditedClaim audited(const Claim& claim, const std::function<void(TestRecord&)>& alter = {}) {
    context_.with_words = false;
    AuditedClaim one = audited_all({claim}, alter).claims.front();
    context_.with_words = true;
    return one;
  }

  static inline std::unique_ptr<trial::AuditBench> bench_;
  static inline std::shared_ptr<const Evaluation> before_;
  static inline AuditContext context_;
};

/// Every kind of figure: on it, at the very ends of its interval, beyond them on both sides.
TEST_F(AuditOfATest, EveryFigureIsCalledByItsInterval) {
  struct Figures {
    const char* kind;
    const char* says = "";
    bool at_most = false;
  };
  for (const Figures& f : std::initializer_list<Figures>{{"power_w"},
                                                         {"current_a"},
                                                         {"ppf_umol_s"},
                                                         {"efficacy_umol_j", "with driver"},
                                                         {"beam_angle_deg"},
                                                         {"evenness", "lowest_over_mean"},
                                                         {"evenness", "highest_over_lowest", true},
                                                         {"power_factor"},
                                                         {"weight_kg"},
                                                         {"color_temperature_k"},
                                                         {"rendering_ra"},
                                                         {"noise_db", "", true},
                                                         {"surface_temperature_c", "", true}}) {
    SCOPED_TRACE(std::string(f.kind) + " " + f.says);
    Claim claim = claim_of(f.kind, 0.5);
    if (std::string(f.kind) == "beam_angle_deg" || std::string(f.kind) == "weight_kg") claim.value = 50;
    if (std::string(f.kind) == "color_temperature_k") claim.value = 5000;
    claim.says = f.says;
    const AuditedClaim first = audited(claim);
    const double m = first.measured, u = first.expanded;
    ASSERT_GT(m, 0) << first.reason;
    ASSERT_GT(u, 0);
    const auto called = [&](double claimed) {
      claim.value = claimed;
      if (claim_fault(claim)) return NotTestable;
      const AuditedClaim a = audited(claim);
      EXPECT_EQ(a.claimed, claimed);
      EXPECT_EQ(a.measured, m);
      EXPECT_FALSE(a.reason.empty());
      return a.judgement.verdict;
    };
    const bool narrow = u < 0.1 * m;
    EXPECT_EQ(called(m), narrow ? Confirmed : NotToldApart);
    const double inside = u * (1 - 1e-9), outside = u * (1 + 1e-9);
    if (!claim_fault(claim) && m + outside <= claim_kind(f.kind)->most) {
      EXPECT_EQ(called(m + inside), u < 0.1 * (m + inside) ? Confirmed : NotToldApart);
      EXPECT_EQ(called(m + outside), f.at_most ? Confirmed : Short);
      if (1.3 * m <= claim_kind(f.kind)->most) {
        EXPECT_EQ(called(1.3 * m), f.at_most ? Confirmed : Short);
      }
    }
    EXPECT_EQ(called(m - outside), Over);
    EXPECT_EQ(called(0.7 * m), Over);
  }
}

TEST_F(AuditOfATest, WhatTheFiguresAre) {
  const auto& light = *before_->light();
  EXPECT_DOUBLE_EQ(audited(claim_of("ppf_umol_s", 500)).measured, light.ppf_umol_s().value);
  EXPECT_DOUBLE_EQ(audited(claim_of("beam_angle_deg", 120)).measured, 2 * light.found().half_angle_deg.value);
  EXPECT_DOUBLE_EQ(audited(claim_of("current_a", 1)).measured, 0.9);
  EXPECT_DOUBLE_EQ(audited(claim_of("power_factor", 0.9)).measured, 0.966);
  double watts = 0;
  for (const Sweep& s : bench_->record.sweeps) watts += *s.power_w / static_cast<double>(bench_->record.sweeps.size());
  EXPECT_NEAR(audited(claim_of("power_w", 300)).measured, watts, 1e-9);
  EXPECT_NEAR(audited(claim_of("efficacy_umol_j", 2.5)).measured, light.ppf_umol_s().value / watts, 1e-9);
  // Half as bright by the stair: half of the whole light.
  Claim dimmed = claim_of("ppf_umol_s", 500);
  dimmed.percent = 50;
  EXPECT_NEAR(audited(dimmed).measured, light.ppf_umol_s().value * light.setting(50).value().light_factor, 1e-6);
  // In the maker's own unit.
  Claim weight = claim_of("weight_kg", 4.0);
  weight.unit = "lb";
  const AuditedClaim pounds = audited(weight);
  EXPECT_NEAR(pounds.claimed, 8.8185, 1e-4);
  EXPECT_NEAR(pounds.measured, 8.8185, 1e-4);
  EXPECT_NEAR(pounds.expanded, 0.088185, 1e-5);
  Claim hot = claim_of("surface_temperature_c", 60);
  hot.unit = "°F";
  EXPECT_NEAR(audited(hot).measured, 136.4, 1e-9);
  EXPECT_NEAR(audited(hot).expanded, 3.6, 1e-9);
}

TEST_F(AuditOfATest, EveryKindIsNotTestableWithoutItsMeasurement) {
  const auto bare = [](TestRecord& r) {
    r.sweeps.clear(), r.readings.clear(), r.placements.clear(), r.wall_readings.clear(), r.temperatures.clear();
    r.box_facts.clear(), r.stair_stops.clear(), r.stair_readings.clear(), r.rungs.clear(), r.stops.clear();
  };
  for (const ClaimKind& kind : claim_kinds()) {
    SCOPED_TRACE(std::string(kind.name));
    Claim claim =
        claim_of(std::string(kind.name).c_str(), kind.name == "boost_pct"            ? 110
                                                 : kind.holds == ClaimKind::Presence ? 1
                                                                                     : std::max(kind.least, 0.3));
    if (kind.whole) claim.value = 3;
    if (kind.holds == ClaimKind::Size || kind.holds == ClaimKind::Map) {
      claim.value.reset();
      claim.width_m = claim.depth_m = 0.6, claim.height_m = 0.4;
    }
    if (kind.name == "height_m") claim.stage = "young plants";
    ASSERT_FALSE(claim_fault(claim));
    const AuditedClaim a = audited(claim, bare);
    EXPECT_EQ(a.judgement.verdict, NotTestable);
    EXPECT_FALSE(a.reason.empty());
    EXPECT_FALSE(a.lifts.empty()) << "what would make it so";
  }
}

TEST_F(AuditOfATest, CountsAndPresence) {
  EXPECT_EQ(audited(claim_of("dimming_steps", 10)).judgement.verdict, Confirmed);
  EXPECT_EQ(audited(claim_of("dimming_steps", 11)).judgement.verdict, Short);
  EXPECT_EQ(audited(claim_of("dimming_steps", 9)).judgement.verdict, Over);
  EXPECT_EQ(audited(claim_of("uv_present", 0)).judgement.verdict, Confirmed);
  EXPECT_EQ(audited(claim_of("uv_present", 1)).judgement.verdict, Contradicted);
  EXPECT_EQ(audited(claim_of("far_red_present", 1)).judgement.verdict, Confirmed);
  EXPECT_EQ(audited(claim_of("far_red_present", 0)).judgement.verdict, Contradicted);
}

TEST_F(AuditOfATest, AnEfficacyWithoutTheDriverIsToldAsSuch) {
  const double m = audited(claim_of("efficacy_umol_j", 2.5)).measured;
  Claim claim = claim_of("efficacy_umol_j", m / 0.88);
  claim.says = "without driver";
  const AuditedClaim left_out = audited(claim);
  EXPECT_EQ(left_out.judgement.verdict, NotTestable);
  EXPECT_NE(left_out.reason.find("a driver that loses 12 ±"), std::string::npos) << left_out.reason;
  claim.says = "";
  const AuditedClaim not_said = audited(claim);
  EXPECT_EQ(not_said.judgement.verdict, Short);
  EXPECT_NE(not_said.reason.find("a driver's share of 12 ±"), std::string::npos) << not_said.reason;
  claim.says = "without driver", claim.value = m / 0.6;
  EXPECT_EQ(audited(claim).judgement.verdict, Short);
  EXPECT_EQ(audited(claim_of("efficacy_umol_j", 5.9)).judgement.verdict, Contradicted);
  EXPECT_NE(audited(claim_of("efficacy_umol_j", 5.9)).reason.find("impossible as light"), std::string::npos);
  // Watts noted ten times too small make the measurement impossible, not the claim short.
  const AuditedClaim slip = audited(claim_of("efficacy_umol_j", 2.5), [](TestRecord& r) {
    for (Sweep& s : r.sweeps) *s.power_w /= 10;
    r.stair_stops.clear(), r.stair_readings.clear();
  });
  EXPECT_EQ(slip.judgement.verdict, NotTestable);
  EXPECT_NE(slip.reason.find("the measurement is impossible"), std::string::npos) << slip.reason;
}

TEST_F(AuditOfATest, PpfByClaimedEfficacyIsShownAsWhatItIs) {
  const Audit a = audited_all({claim_of("ppf_umol_s", 500), claim_of("efficacy_umol_j", 2.9)});
  const double watts = a.watts.front().wall.value;
  EXPECT_NE(
      a.claims[0].reason.find(fmt::format("would be {:.0f} µmol/s: that is the claim at the watts drawn", 2.9 * watts)),
      std::string::npos)
      << a.claims[0].reason;
}

TEST_F(AuditOfATest, BadgeWattsStandBesideTheWallsAtEverySetting) {
  const Audit a = audited_all({claim_of("power_w", 400)});
  ASSERT_EQ(a.watts.size(), 4u);
  const double percents[] = {100, 75, 50, 25};
  for (std::size_t i = 0; i < 4; ++i) {
    EXPECT_EQ(a.watts[i].percent, percents[i]);
    EXPECT_DOUBLE_EQ(a.watts[i].badge_w, 4 * percents[i]);
    if (i > 0) {
      EXPECT_DOUBLE_EQ(a.watts[i].wall.value, *bench_->record.stair_stops[i].power_w);
    }
  }
  EXPECT_TRUE(std::isnan(audited_all({}).watts.front().badge_w));
}

TEST_F(AuditOfATest, ASpectrumGoesBeforeWhatTheSheetSaysOfColor) {
  const auto measured = [](TestRecord& r) {
    Spectrum light;
    for (int nm = 320; nm <= 800; nm += 2) {
      const auto hump = [&](double center, double sigma) { return std::exp(-std::pow((nm - center) / sigma, 2) / 2); };
      light.wavelengths_nm.push_back(nm);
      light.values.push_back(0.4 * hump(450, 9) + hump(590, 55) + 0.3 * hump(385, 6));
    }
    r.spectra.resize(1);
    r.spectra[0].id = r.spectra[0].test_id = 1;
    record::put_spectrum(r.spectra[0], light);
  };
  TestRecord r;
  measured(r);
  const SpectrumFigures figures = spectrum_at_full(r)->figures;
  const AuditedClaim kelvin = audited(claim_of("color_temperature_k", 4000), measured);
  EXPECT_DOUBLE_EQ(kelvin.measured, figures.temperature->cct_k) << "the sheet says 4000";
  EXPECT_EQ(kelvin.judgement.verdict, Short) << kelvin.reason;
  EXPECT_DOUBLE_EQ(audited(claim_of("rendering_ra", 90), measured).measured, figures.rendering->ra);
  const AuditedClaim uv = audited(claim_of("uv_present", 1), measured);
  EXPECT_EQ(uv.judgement.verdict, Confirmed) << uv.reason;
  EXPECT_NE(uv.reason.find(fmt::format("{:.1f} % of its photons are UV", 100 * uv_share(figures))), std::string::npos);
  EXPECT_EQ(audited(claim_of("uv_present", 1)).judgement.verdict, Contradicted)
      << "without it the sheet is what there is";
}

TEST_F(AuditOfATest, CoverageGoesByTheTargetOfItsStage) {
  const AuditedClaim first = audited(coverage_of("young plants", 0.5));
  ASSERT_GT(first.measured, 10) << first.reason;
  const double served_m = first.measured / 100, u_m = first.expanded / 100;
  const AuditedClaim small = audited(coverage_of("young plants", 0.6 * served_m));
  EXPECT_EQ(small.judgement.verdict, Confirmed) << small.reason;
  EXPECT_GT(small.judgement.chance, 0.95);
  const AuditedClaim edge = audited(coverage_of("young plants", served_m));
  EXPECT_EQ(edge.judgement.verdict, NotToldApart) << edge.reason;
  EXPECT_FALSE(edge.lifts.empty());
  const AuditedClaim large = audited(coverage_of("young plants", std::min(served_m + 2.5 * u_m + 0.05, 1.2)));
  EXPECT_EQ(large.judgement.verdict, Contradicted) << large.reason;
  EXPECT_LT(large.judgement.difference_pct, 0);
  // In the tester's words for the stage, and at a height and setting of the claim's own.
  EXPECT_EQ(audited(coverage_of("in veg", 0.6 * served_m)).judgement.verdict, Confirmed);
  EXPECT_EQ(audited(coverage_of("orchids", 0.5)).judgement.verdict, NotTestable);
  Claim dim = coverage_of("young plants", 0.6 * served_m);
  dim.percent = 25, dim.height_m = bench_->heights_m.front();
  const AuditedClaim at_dim = audited(dim);
  EXPECT_NE(at_dim.reason.find("As claimed"), std::string::npos) << at_dim.reason;
  Claim far = dim;
  far.height_m = 3;
  EXPECT_EQ(audited(far).judgement.verdict, NotTestable);
  far.height_m.reset(), far.percent = 3;
  EXPECT_EQ(audited(far).judgement.verdict, NotTestable);
}

TEST_F(AuditOfATest, CoverageClaimedForOtherWallsIsPredictedThere) {
  const double here_m = audited(coverage_of("young plants", 0.5)).measured / 100;
  Claim claim = coverage_of("young plants", here_m * 1.05);
  const AuditedClaim open = audited(claim);
  claim.walls = "white";
  const AuditedClaim white = audited(claim);
  EXPECT_NE(white.reason.find("with white walls"), std::string::npos) << white.reason;
  EXPECT_GT(white.measured, open.measured);  // walls send light back to the edge
}

TEST_F(AuditOfATest, AHeightIsJudgedForItsStage) {
  Claim claim = claim_of("height_m", bench_->heights_m.back());
  EXPECT_EQ(audited(claim).judgement.verdict, NotTestable);  // for which stage is not said
  claim.stage = "young plants";
  const double served_m = audited(coverage_of("young plants", 0.5)).measured / 100;
  const auto over = [&](double side_m) {
    return audited_all({claim, coverage_of("young plants", side_m)}).claims.front();
  };
  // Over a small area some height of the reach does; over one far beyond what is served none.
  claim.value = 0.25, claim.value_to = 0.6;
  EXPECT_EQ(over(0.5 * served_m).judgement.verdict, Confirmed) << over(0.5 * served_m).reason;
  EXPECT_EQ(over(1.2).judgement.verdict, Contradicted) << over(1.2).reason;
  claim.value = 2, claim.value_to.reset();
  EXPECT_EQ(over(0.3).judgement.verdict, NotTestable);
}

TEST_F(AuditOfATest, DimmerAndBoostAreHeldAgainstTheStair) {
  // The stair stops at 25 %, where light and watts are near 25 % of full.
  Claim range = claim_of("dimming_range", 25);
  range.value_to = 100;
  EXPECT_EQ(audited(range).judgement.verdict, Confirmed) << audited(range).reason;
  range.value = 10;
  EXPECT_EQ(audited(range).judgement.verdict, NotTestable);
  const auto stays_bright = [](TestRecord& r) {
    for (StairReading& s : r.stair_readings)
      if (s.stair_stop_id == 4) s.raw = 200;
    r.stair_stops[3].power_w = 0.6 * *r.stair_stops[0].power_w;
  };
  range.value = 25;
  EXPECT_EQ(audited(range, stays_bright).judgement.verdict, Contradicted);
  // 25 and a tenth of it and a reading of the dial are 28.5 %: what reads just that holds with even odds.
  const auto at_the_bound = [](TestRecord& r) {
    for (StairReading& s : r.stair_readings)
      if (s.stair_stop_id == 4) s.raw = 0.285 * 400;
    r.stair_stops[3].power_w = 0.285 * *r.stair_stops[0].power_w;
  };
  EXPECT_EQ(audited(range, at_the_bound).judgement.verdict, NotToldApart);
  EXPECT_NEAR(audited(range, at_the_bound).judgement.chance, 0.5, 0.01);
  const auto checked_narrower = [](TestRecord& r) {
    r.box_facts.push_back({20, 1, "dimming_low_pct", "checked", 40, ""});
  };
  EXPECT_EQ(audited(range, checked_narrower).judgement.verdict, Contradicted);
  EXPECT_EQ(audited(claim_of("boost_pct", 110)).judgement.verdict, NotTestable);
  const auto boosted = [](double light) {
    return [light](TestRecord& r) {
      r.stair_stops.push_back({9, 1, 110, 1.1 * *r.stair_stops[0].power_w, {}, ""});
      for (const int station : {14, 21}) r.stair_readings.push_back({100 + station, 9, station, 400 * light, "typed"});
    };
  };
  EXPECT_EQ(audited(claim_of("boost_pct", 110), boosted(1.10)).judgement.verdict, Confirmed);
  EXPECT_EQ(audited(claim_of("boost_pct", 110), boosted(1.03)).judgement.verdict, Short);
  EXPECT_EQ(audited(claim_of("boost_pct", 110), boosted(1.15)).judgement.verdict, Over);
  range.value_to = 110;
  EXPECT_EQ(audited(range, boosted(1.1)).judgement.verdict, Confirmed);
  EXPECT_EQ(audited(range,
                    [&](TestRecord& r) {
                      boosted(1.0)(r);
                      r.stair_stops.back().power_w = r.stair_stops[0].power_w;
                    })
                .judgement.verdict,
            Contradicted);
}

TEST_F(AuditOfATest, AMapIsHeldAgainstTheLightAtItsVeryPlaces) {
  Claim map = claim_of("map");
  map.width_m = map.depth_m = 0.5, map.height_m = 0.4;
  const AuditedClaim bare = audited(map);
  EXPECT_EQ(bare.judgement.verdict, NotTestable);
  set_map(map, 3, 3, std::vector<double>(9, 300));
  const AuditedClaim first = audited(map);
  ASSERT_TRUE(first.map) << first.reason;
  const std::vector<double> ours = first.map->held.ours;
  const auto claimed = [&](double factor) {
    std::vector<double> shown = ours;
    for (double& e : shown) e *= factor;
    set_map(map, 3, 3, shown);
    return audited(map);
  };
  EXPECT_EQ(claimed(1).judgement.verdict, Confirmed);
  EXPECT_NEAR(claimed(1).map->held.pattern_spread, 0, 1e-9);
  EXPECT_EQ(claimed(1.3).judgement.verdict, Short);
  EXPECT_EQ(claimed(0.7).judgement.verdict, Over);
  EXPECT_NEAR(claimed(1.25).map->held.mean_ratio, 0.8, 1e-9);
  // The plain sentences: smaller than what is claimed to be covered, nearer than recommended.
  Claim height = claim_of("height_m", 0.6);
  const AuditedClaim plain = audited_all({map, coverage_of("young plants", 1.0), height}).claims.front();
  EXPECT_NE(plain.reason.find("which is 25 % of the 100 × 100 cm claimed"), std::string::npos) << plain.reason;
  EXPECT_NE(plain.reason.find("It was made at 40 cm, where 60 cm are recommended"), std::string::npos) << plain.reason;
  map.height_m = 0.05;
  EXPECT_EQ(audited(map).judgement.verdict, NotTestable);
  map.height_m = 0.4, map.walls = "white";
  EXPECT_GT(audited(map).measured, first.measured);
}

TEST_F(AuditOfATest, AReplacedLampIsOneOfTheLabBook) {
  TestRecord lamp = bench_->record;
  lamp.test.id = lamp.fixture.id = lamp.bench.id = 2;
  lamp.fixture.name = "Old Glow 600", lamp.fixture.kind = "sodium lamp in a hood";
  Claim badge = claim_of("power_w", 600);
  badge.fixture_id = 2;
  lamp.claims = {badge};
  Claim claim = claim_of("equivalent", 600);
  claim.says = "sodium";
  const auto against = [&](double light, const std::function<void(TestRecord&)>& alter = {}) {
    TestRecord other = lamp;
    for (Reading& r : other.readings) r.raw *= light;
    if (alter) alter(other);
    AuditContext with = context_;
    with.with_words = false;
    with.others = {evaluate(other)};
    TestRecord mine = bench_->record;
    mine.claims = {claim};
    return audit(*evaluate(mine, nullptr, UnitSystem::Metric, before_.get()), with).claims.front();
  };
  EXPECT_EQ(against(1).judgement.verdict, Confirmed) << against(1).reason;
  EXPECT_NEAR(against(1).measured, 100, 1e-9);
  EXPECT_EQ(against(1.3).judgement.verdict, Short);
  EXPECT_EQ(against(0.7).judgement.verdict, Over);
  EXPECT_EQ(against(1, [](TestRecord& r) { r.bench.width_m = 0.5; }).judgement.verdict, NotTestable);
  EXPECT_EQ(against(1, [](TestRecord& r) { r.claims[0].value = 400; }).judgement.verdict, NotTestable);
  EXPECT_EQ(against(1, [](TestRecord& r) { r.fixture.kind = "fluorescent tubes"; }).judgement.verdict, NotTestable);
  claim.says = "";
  EXPECT_EQ(against(1).judgement.verdict, NotTestable);
  EXPECT_EQ(audited(claim).judgement.verdict, NotTestable);
}

TEST_F(AuditOfATest, ATestersSentenceStandsInForTheDraft) {
  const Audit plain = audited_all({claim_of("power_w", 300)});
  ASSERT_FALSE(plain.words.empty());
  const VerdictWords& draft = plain.words.front();
  EXPECT_FALSE(draft.own);
  const auto written = [&](const char* words, const std::string& drafted) {
    return audited_all({claim_of("power_w", 300)},
                       [&](TestRecord& r) {
                         r.verdict_sentences = {{1, 1, draft.slot, words, drafted}};
                       })
        .words.front();
  };
  const VerdictWords own = written("Bright enough for us.", draft.drafted);
  EXPECT_TRUE(own.own);
  EXPECT_EQ(own.sentence, "Bright enough for us.");
  EXPECT_EQ(own.drafted, draft.drafted);
  EXPECT_FALSE(own.figure_changed);
  EXPECT_TRUE(written("Bright enough for us.", "It brings a mean of 1.").figure_changed);
  const VerdictWords struck = written("", draft.drafted);
  EXPECT_TRUE(struck.struck);
  // As JSON has it: struck ones are not there, own ones are marked.
  const auto json = exchange::audit_json(audited_all({claim_of("power_w", 300)}, [&](TestRecord& r) {
    r.verdict_sentences = {{1, 1, draft.slot, "", draft.drafted}};
  }));
  for (const auto& sentence : json["words"]) EXPECT_NE(sentence["slot"], draft.slot);
  EXPECT_EQ(json["claims"][0]["kind"], "power_w");
  EXPECT_EQ(json["claims"][0]["unit"], "W");
}

TEST_F(AuditOfATest, WordsAloneAreOfferedForSplitting) {
  Claim words = claim_of("coverage");
  words.words = "flowers everywhere";
  const AuditedClaim a = audited(words);
  EXPECT_EQ(a.judgement.verdict, NotTestable);
  EXPECT_NE(a.lifts.find("split it"), std::string::npos);
  EXPECT_EQ(a.claimed_words, "flowers everywhere");
}

TEST_F(AuditOfATest, NoSentenceGivesAVerdictOnWhatIsDisputed) {
  const Audit a = audited_all({claim_of("power_w", 300)});
  for (const VerdictWords& w : a.words)
    for (const char* disputed : {"red", "W/m²", "hours of light for", "best", "score", "points", "recommend"})
      EXPECT_EQ(w.drafted.find(std::string(" ") + disputed), std::string::npos) << w.drafted;
}

}  // namespace
}  // namespace sunbreak::evaluation
