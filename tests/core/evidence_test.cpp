#include <gtest/gtest.h>

#include <algorithm>
#include <functional>

#include "core/evidence/grade.h"
#include "core/figures/figure_table.h"

using namespace sunbreak;

namespace {

EvidenceFacts everything() {
  EvidenceFacts f;
  f.lattice = true;
  f.stations = 144;
  f.area_m2 = 1.44;
  f.stabilization = EvidenceFacts::Stabilized;
  f.drift = 0.004;
  f.power_w = 320;
  f.power_in_the_same_state = true;
  f.datum = "diodes";
  f.sensor_height_m = 0.03;
  f.months_since_calibration = 7;
  f.walls_stated = f.door_stated = f.level_checked = f.center_checked = true;
  return f;
}

const Condition& condition(const Evidence& e, std::string_view id) {
  return *std::find_if(e.conditions.begin(), e.conditions.end(), [&](const Condition& c) { return c.id == id; });
}

}  // namespace

TEST(EvidenceGrade, IsBenchmarkWhereNothingIsMissing) {
  const Evidence e = grade(everything());
  EXPECT_EQ(e.grade, Grade::Benchmark);
  EXPECT_EQ(e.missing(), 0);
  for (const Condition& c : e.conditions) {
    EXPECT_TRUE(c.way.empty()) << c.id;
    EXPECT_FALSE(c.saw.empty()) << c.id;
  }
}

TEST(EvidenceGrade, WhatCannotBeIsNoMoreThanASpotCheck) {
  EvidenceFacts f = everything();
  f.impossible = "13.3 µmol/J on 1.44 m² is more than 5.85 µmol/J";
  const Evidence e = grade(f);
  EXPECT_EQ(e.grade, Grade::Spot);
  ASSERT_EQ(e.missing(), 1);
  const auto condition = std::ranges::find(e.conditions, false, &Condition::met);
  EXPECT_EQ(condition->saw, f.impossible);
  EXPECT_FALSE(condition->way.empty());
}

TEST(EvidenceGrade, EveryConditionCountsAndShowsAWay) {
  const std::vector<std::pair<std::string, std::function<void(EvidenceFacts&)>>> faults{
      {"grid", [](auto& f) { f.stations = 35; }},
      {"grid", [](auto& f) { f.area_m2 = 144 / 24.9; }},
      {"complete", [](auto& f) { f.unread = 1; }},
      {"settled", [](auto& f) { f.stabilization = EvidenceFacts::NotStabilized; }},
      {"settled", [](auto& f) { f.stabilization = EvidenceFacts::StabilizationNotKnown; }},
      {"drift", [](auto& f) { f.drift = -0.031; }},
      {"drift", [](auto& f) { f.drift.reset(); }},
      {"watts", [](auto& f) { f.power_w.reset(); }},
      {"watts", [](auto& f) { f.power_in_the_same_state = false; }},
      {"height", [](auto& f) { f.datum.clear(); }},
      {"height", [](auto& f) { f.sensor_height_m.reset(); }},
      {"calibration", [](auto& f) { f.months_since_calibration = 25; }},
      {"calibration", [](auto& f) { f.months_since_calibration = -1; }},
      {"calibration", [](auto& f) { f.months_since_calibration.reset(); }},
      {"walls", [](auto& f) { f.door_stated = false; }},
      {"walls", [](auto& f) { f.walls_stated = false; }},
      {"level", [](auto& f) { f.center_checked = false; }},
      {"checks", [](auto& f) { f.open_checks = 2; }}};
  for (const auto& [id, spoil] : faults) {
    EvidenceFacts facts = everything();
    spoil(facts);
    const Evidence e = grade(facts);
    EXPECT_EQ(e.grade, Grade::Working) << id;
    EXPECT_EQ(e.missing(), 1) << id;
    EXPECT_FALSE(condition(e, id).met) << id;
    EXPECT_FALSE(condition(e, id).way.empty()) << id;
  }
}

TEST(EvidenceGrade, FallsToSpotWithThreeMissing) {
  EvidenceFacts f = everything();
  f.open_checks = 1;
  f.drift.reset();
  EXPECT_EQ(grade(f).grade, Grade::Working);
  f.datum.clear();
  EXPECT_EQ(grade(f).grade, Grade::Spot);
}

TEST(EvidenceGrade, SpotsAndLuxAreSpotWhateverElseIsMet) {
  EvidenceFacts f = everything();
  f.by_lux = true;
  EXPECT_EQ(grade(f).grade, Grade::Spot);
  f = everything();
  f.lattice = false;
  EXPECT_EQ(grade(f).grade, Grade::Spot);
  f = everything();
  f.unread = 10, f.read_share = 0.93;
  EXPECT_EQ(grade(f).grade, Grade::Working);
  f.read_share = 0.89;
  EXPECT_EQ(grade(f).grade, Grade::Spot) << "it stands for no whole area";
  EXPECT_EQ(name(Grade::Spot), "Spot");
}

TEST(WorkedFormula, FillsInTheSweepsNumbers) {
  SweepFigures f;
  f.stations = 144;
  f.area_m2 = 1.44;
  f.mean_ppfd = 500;
  f.lowest = {300, 0};
  f.highest = {650, 70};
  f.ppf_umol_s = 720;
  f.power_w = 360;
  f.efficacy = efficacy(500, 1.44, 360);
  f.evenness = evenness(300, 650, 500, 320);
  f.dli_mean_mol_m2_d = 21.6;
  f.photoperiod_h = 12;
  const Layout layout = lay_out({1.2, 1.2}, {GridKind::Cells, 12, 12, 0, 0, {}}).value();
  const std::vector<double> ppfd(144, 500);
  const auto worked = [&](const char* id) { return figure(id).worked(FigureSource(layout, ppfd, f)); };
  EXPECT_EQ(worked("canopy_efficacy_umol_j"), "720.0 µmol/s ÷ 360.0 W = 2.000 µmol/J");
  EXPECT_EQ(worked("lowest_over_mean"), "300.0 ÷ 500.0 = 0.600");
  EXPECT_EQ(worked("dli_mean_mol_m2_d"), "500.0 µmol/m²/s · 3600 s/h · 12.0 h ÷ 10⁶ = 21.60 mol/m²/day");
  EXPECT_EQ(worked("coverage"), "") << "no target";
  f.efficacy.reset();
  EXPECT_EQ(worked("canopy_efficacy_umol_j"), "");
}

TEST(Definitions, SayWhatEachFigureDependsOn) {
  for (const Figure& d : figures()) {
    EXPECT_FALSE(d.depends_on.empty()) << d.id;
    EXPECT_FALSE(d.formula.empty()) << d.id;
  }
}

TEST(EvidenceGrade, WhatIsNotEnoughIsToldWithWhatWouldBe) {
  EvidenceFacts f = everything();
  f.power_in_the_same_state = false;
  const Evidence e = grade(f);
  EXPECT_EQ(told(condition(e, "watts")),
            "320.0 W at the wall, not known to be in the same state: log the watts while the sweep is walked");
  EXPECT_EQ(told(condition(e, "complete")), "144 of 144 stations read");
}
