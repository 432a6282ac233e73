#include "evaluation/settle_field.h"

#include <gtest/gtest.h>

#include <cmath>
#include <functional>
#include <memory>
#include <set>
#include <stop_token>

#include "core/optics/direct_light.h"
#include "core/optics/fixture_shapes.h"
#include "core/settle/settle_questions.h"
#include "evaluation/confirmation.h"
#include "evaluation/evaluation.h"
#include "evaluation/settings_card.h"
#include "evaluation/settle_replies.h"
#include "evaluation/settle_words.h"
#include "record/plan_grid.h"

namespace sunbreak::evaluation {
namespace {

constexpr Rectangle tent{0, 0, 1.2, 1.2};

TEST(SettleArea, IsReadFromWhatPeopleType) {
  struct Case {
    const char* text;
    Rectangle area;
  };
  for (const Case& c : {Case{"", tent},
                        {"  ", tent},
                        {"100x100cm", {0.1, 0.1, 1, 1}},
                        {"100 × 60", {0.1, 0.3, 1, 0.6}},
                        {"100x60cm@10x20cm", {0.1, 0.2, 1, 0.6}},
                        {"100 × 60 @ 0 × 20", {0, 0.2, 1, 0.6}},
                        {"2x3ft", {0.6 - 0.3048, 0.6 - 0.4572, 0.6096, 0.9144}}}) {
    const auto area = parse_area(c.text, tent, LengthUnit::Centimeter);
    ASSERT_TRUE(area) << c.text;
    EXPECT_NEAR(area.value().left_m, c.area.left_m, 1e-9) << c.text;
    EXPECT_NEAR(area.value().front_m, c.area.front_m, 1e-9) << c.text;
    EXPECT_NEAR(area.value().width_m, c.area.width_m, 1e-9) << c.text;
    EXPECT_NEAR(area.value().depth_m, c.area.depth_m, 1e-9) << c.text;
  }
  for (const char* text :
       {"100", "x", "axb", "100x", "100x60@", "100x60@10", "100x60@x", "1e9x1e9km", "-5x5cm", "100x60@nanxinf"})
    EXPECT_FALSE(parse_area(text, tent, LengthUnit::Centimeter)) << text;
}

/// A board on an open floor, walked at two heights at full and read by a stair of three stops; what it truly gives.
class SettleOnARecord : public ::testing::Test {
 protected:
  static void SetUpTestSuite() {
    auto b = std::make_unique<TestRecord>();
    b->fixture.id = b->bench.id = b->test.id = 1;
    b->test.fixture_id = b->test.bench_id = 1;
    b->fixture.width_m = b->fixture.depth_m = 0.4;
    b->bench.wall_left = b->bench.wall_right = b->bench.wall_front = b->bench.wall_back = "open";
    b->bench.height_m = 2;
    b->test.columns = b->test.rows = 8;
    b->test.reference_every = 0;
    b->test.target_low_ppfd = 60, b->test.target_high_ppfd = 400;
    b->test.tariff_per_kwh = 0.25;
    b->rungs = {{1, 1, 0.6}, {2, 1, 0.4}};
    b->stops = {{1, 1, 100}};
    const Layout layout = lay_out({1.2, 1.2}, grid_of(b->test)).value();
    Id reading = 0;
    for (Id sweep = 1; sweep <= 2; ++sweep) {
      Sweep s{sweep, 1, sweep, 1, "cells", 8, 8};
      s.power_w = 100;
      b->sweeps.push_back(s);
      const auto light = truth(b->rungs[static_cast<std::size_t>(sweep - 1)].height_m, layout);
      for (int i = 0; i < 64; ++i) {
        const double noise = 1 + 0.003 * std::sin(3.0 * static_cast<double>(++reading));
        b->readings.push_back({reading, sweep, i, light[static_cast<std::size_t>(i)] * noise, "typed", ""});
        b->placements.push_back({reading, sweep, i, reading, ""});
      }
    }
    Id stop = 0;
    for (const auto& [percent, watts] : {std::pair{100.0, 100.0}, {50.0, 52.0}, {20.0, 23.0}}) {
      b->stair_stops.push_back({++stop, 1, percent, watts, 0.95, ""});
      b->stair_readings.push_back({stop, stop, 27, 500 * percent / 100, "typed", 1, 0.0});
    }
    b->claims = {{1, 1, "height_m", 0.45, ""}};
    b->settlings = {{1, 1, "mean", 50, {}, {}, 1.0, 1.0, {}, {}, {}, {}, "own", "fewest watts"}};
    b->card_rows = {{1, 1, "seedlings", 100, 200, 16, 0.5, 60, 2, false},
                    {2, 1, "too high up", 100, 200, 16, 1.9, 60, {}, true},
                    {3, 1, "nothing suits", 3000, 4000, 12, {}, {}, {}, false}};
    record_ = std::move(b);
    evaluation_ = evaluate(*record_);
    light_ = evaluation_->light();
  }
  static void TearDownTestSuite() { evaluation_.reset(), record_.reset(); }

  static std::vector<double> truth(double height_m, const Layout& layout) {
    std::vector<Vec3> places;
    for (const Station& s : layout.stations) places.push_back({s.x_m, s.y_m, 0});
    std::vector<double> light;
    const auto lamp = placed(board(0.4, 0.4, 8, 8, 250, 1.2), {0.6, 0.6, height_m});
    for (const Vec3& place : places) light.push_back(direct_ppfd(lamp, place));
    return light;
  }

  static inline std::unique_ptr<TestRecord> record_;
  static inline std::shared_ptr<const Evaluation> evaluation_;
  static inline const TestLight* light_ = nullptr;
};

TEST_F(SettleOnARecord, SettingsComeFromTheStairAndTheWalkedOne) {
  ASSERT_TRUE(light_->found().fits) << light_->found().reason;
  const SettleMaps maps = settle_settings(*light_);
  EXPECT_EQ(maps.settings.front().percent, 20);
  EXPECT_EQ(maps.settings.back().percent, 100);
  EXPECT_EQ(maps.settings.back().light_sd, 0) << "the walked one stands for itself";
  EXPECT_NEAR(*setting_at(maps, 50)->power_w, 52, 0.2);
  EXPECT_NEAR(setting_at(maps, 50)->light_factor, 0.5, 0.005);
  EXPECT_TRUE(settle_lacks(*light_).empty());
  EXPECT_EQ(problem_of_area(*light_, {0.5, 0.5, 1, 1})->remedy, "choose an area within it");
  EXPECT_TRUE(problem_of_area(*light_, {0.5, 0.5, 0.01, 1}));
  EXPECT_FALSE(problem_of_area(*light_, tent));
}

TEST_F(SettleOnARecord, FiguresOfAnAreaAreThoseOfTheLight) {
  const Rectangle area = area_asked(settling_of(*record_), *light_);
  EXPECT_NEAR(area.left_m, 0.1, 1e-9);
  const auto maps = settle_maps(*light_, area, {0.5}, 0);
  ASSERT_TRUE(maps);
  const AreaLight f = settle_figures(*maps.value().heights.at(0), maps.value().steps.back(), {60, 400});
  // What a sensor would find at the stations.
  const Layout stations = lay_out({1.2, 1.2}, grid_of(record_->test)).value();
  const auto lamp = placed(board(0.4, 0.4, 8, 8, 250, 1.2), {0.6, 0.6, 0.5});
  std::vector<double> light;
  for (const Station& s : stations.stations) light.push_back(direct_ppfd(lamp, {s.x_m, s.y_m, 0}));
  const AreaLight found = AreaPlan(stations, area).light(light);
  for (double AreaLight::*figure : {&AreaLight::mean, &AreaLight::edge, &AreaLight::center, &AreaLight::corners,
                                    &AreaLight::lowest, &AreaLight::highest})
    EXPECT_NEAR(f.*figure / (found.*figure), 1, 0.012);
}

TEST_F(SettleOnARecord, AtAWalkedHeightAndSettingFiguresAreThoseThatWereRead) {
  const auto evaluation = evaluate(*record_);
  const auto maps = settle_maps(*light_, whole_area(*light_), {0.4, 0.6}, 0);
  ASSERT_TRUE(maps);
  const Band band{60, 400};
  for (const Sweep& sweep : record_->sweeps) {
    const double height_m = record_->rung(sweep.rung_id)->height_m;
    const SweepFigures& read = *evaluation->figures(sweep.id);
    const AreaLight f =
        settle_figures(*at_height(maps.value(), height_m).heights.front(), *setting_at(maps.value(), 100), band);
    EXPECT_NEAR(f.mean, read.mean_ppfd, 1e-9);
    EXPECT_NEAR(f.edge, read.edge_ppfd, 1e-9);
    EXPECT_NEAR(f.center, read.center_ppfd, 1e-9);
    EXPECT_NEAR(f.corners, read.corner_ppfd, 1e-9);
    EXPECT_NEAR(f.lowest, read.lowest.ppfd, 1e-9);
    EXPECT_NEAR(f.highest, read.highest.ppfd, 1e-9);
    EXPECT_NEAR(f.in_band, evaluation->target_fits(sweep.id, std::span(&band, 1)).front().coverage.in_band_share, 1e-4);
    const auto predicted = light_->between(height_m, 100, {});
    ASSERT_TRUE(predicted);
    EXPECT_NEAR(predicted.value().figures.mean_ppfd, read.mean_ppfd, 1e-9);
    EXPECT_NEAR(predicted.value().figures.evenness.lowest_over_mean, read.evenness.lowest_over_mean, 1e-12);
  }
}

TEST_F(SettleOnARecord, TheCardIsJudgedRowByRow) {
  const auto evaluation = evaluate(*record_);
  const SettingsCard card = settings_card(*record_, *light_, *evaluation);
  ASSERT_EQ(card.lines.size(), 3u);
  ASSERT_TRUE(card.lines[0].point);
  EXPECT_EQ(card.lines[0].point->height->height_m, 0.5);
  EXPECT_EQ(card.lines[0].met, judged(card.request.rule, {100, 200}, card.lines[0].point->figures).met());
  // Where it was walked its ± is Read's, too.
  TestRecord walked = *record_;
  walked.settlings.clear();  // the area is the whole, not a part
  const Sweep& sweep = walked.sweeps.front();
  walked.card_rows[0].height_m = walked.rung(sweep.rung_id)->height_m,
  walked.card_rows[0].percent = walked.stop(sweep.stop_id)->percent;
  const CardLine there = settings_card(walked, *light_, *evaluation).lines[0];
  ASSERT_TRUE(there.walked);
  EXPECT_EQ(there.expanded.mean, evaluation->budget(sweep.id)->expanded("mean_ppfd"));
  EXPECT_EQ(there.expanded.edge, evaluation->budget(sweep.id)->expanded("edge_ppfd"));
  EXPECT_EQ(card.lines[1].why, "light is not known at that height");
  EXPECT_EQ(card.lines[2].why, "no height and setting lies within the limits");
  const auto sum = grow_sum(card);
  ASSERT_TRUE(sum);
  EXPECT_EQ(sum->days, 14);
  EXPECT_NEAR(sum->kwh, 14 * 16 * *card.lines[0].point->setting.power_w / 1000, 1e-9);
  EXPECT_EQ(claimed_heights(*record_, UnitSystem::Metric), std::vector<std::string>{"45 cm"});
}

TEST_F(SettleOnARecord, QuestionsAreAnsweredInWordsAndWithTheirPlace) {
  const auto maps = settle_maps(*light_, whole_area(*light_), settle_heights(*light_), 0);
  ASSERT_TRUE(maps);
  const SettleRequest request = request_asked(settling_of(*record_), record_->test, {60, 400});
  const SettlePoint here =
      point_at(maps.value(), request, at_height(maps.value(), 0.5).heights.front(), *setting_at(maps.value(), 80));
  const auto replies = settle_replies(
      *light_, maps.value(), request, here,
      {52, 0.5, here.figures.center, here.figures.corners, 0.9 * here.figures.center, 20}, 12, UnitSystem::Metric);
  ASSERT_EQ(replies.size(), 6u);
  for (const SettleReply& reply : replies) EXPECT_TRUE(reply.known) << reply.words;
  EXPECT_NEAR(replies[0].place->second, 50, 0.5) << "52 W is half of the dial";
  EXPECT_EQ(replies[1].place->first, 0.5);
  EXPECT_NEAR(replies[2].place->first, 0.5, 1e-3) << "the center reads what it reads here";
  EXPECT_NEAR(replies[3].place->second, 80, 0.1);
  EXPECT_NE(replies[4].words.find("With the walls where they are: a square of "), std::string::npos);
  // On an open floor walls brought in change nothing.
  const BroughtIn in = walls_brought_in(*light_, 0.5, here.setting.light_factor, 0.9 * here.figures.center);
  const Shrunk left =
      shrunk_to(maps.value().lattice, settle_cells_ppfd(*here.height, here.setting), 0.9 * here.figures.center);
  ASSERT_TRUE(in.square && left.square);
  EXPECT_NEAR(in.square->width_m, left.square->width_m, 0.1) << "stations are 15 cm apart";
  const auto refused =
      settle_replies(*light_, maps.value(), request, here, {5000, 1.9, 1e5, 1e5, 1e5, {}}, 12, UnitSystem::Metric);
  for (std::size_t q = 0; q < 5; ++q) EXPECT_FALSE(refused[q].known) << refused[q].words;
  EXPECT_TRUE(refused[5].words.empty());
}

TEST_F(SettleOnARecord, APredictionIsConfirmedOrNotByAFewReadings) {
  const Grid spots{GridKind::Spots,
                   0,
                   0,
                   0,
                   0,
                   {{"center", 0.675, 0.675},
                    {"front left", 0.075, 0.075},
                    {"far right", 1.125, 1.125},
                    {"left", 0.075, 0.675},
                    {"far", 0.675, 1.125}}};
  for (const auto& [scale, expected] : {std::pair{1.0, true}, {0.93, false}}) {
    TestRecord b = *record_;
    b.rungs.push_back({3, 1, 0.5, true});
    Sweep s{3, 1, 3, 1};
    record::set_grid(s, spots);
    s.confirms = true;
    b.sweeps.push_back(s);
    const auto light = truth(0.5, lay_out({1.2, 1.2}, spots).value());
    for (int i = 0; i < 5; ++i) {
      const Id id = 1000 + i;
      b.readings.push_back({id, 3, i, scale * light[static_cast<std::size_t>(i)], "typed", ""});
      b.placements.push_back({id, 3, i, id, ""});
    }
    const auto evaluation = evaluate(b);
    EXPECT_EQ(evaluation->light()->question().fit.sweeps.size(), 2u);
    const auto c = confirmation(*evaluation, *evaluation->light(), 3);
    ASSERT_TRUE(c);
    EXPECT_EQ(c->confirmed, expected) << c->words;
    EXPECT_NEAR(c->ratio, scale, 0.01);
    EXPECT_FALSE(confirmation(*evaluation, *evaluation->light(), 1)) << "a whole sweep confirms nothing";
    EXPECT_EQ(b.planned_sweeps(), 2u);
  }
}

TEST_F(SettleOnARecord, WorkOnLightThatIsGivenUpIsNotKept) {
  const auto fresh = evaluate(*record_);
  std::stop_source given_up;
  given_up.request_stop();
  EXPECT_EQ(fresh->light(given_up.get_token()), nullptr);
  EXPECT_EQ(fresh->light_so_far(), nullptr);
  const TestLight* light = fresh->light();
  ASSERT_TRUE(light);
  light->work_out_left_out(given_up.get_token());
  EXPECT_FALSE(light->left_out_known());
  EXPECT_EQ(light->left_out().size(), light_->left_out().size());
  EXPECT_EQ(light->ppf_umol_s().value, light_->ppf_umol_s().value) << "the same record, the same light";
}

TEST_F(SettleOnARecord, StoppedBeforeAHeightThereAreNoMaps) {
  std::stop_source stop;
  stop.request_stop();
  const auto maps = settle_maps(*light_, whole_area(*light_), {0.4, 0.6}, 0, stop.get_token());
  ASSERT_FALSE(maps.ok()) << "what takes maps looks at their first height";
  EXPECT_NE(maps.problem().seen.find("stopped"), std::string::npos);
}

TEST_F(SettleOnARecord, LightIsKeptWhileWhatItIsUsedForChanges) {
  const auto kept = [&](const std::function<void(TestRecord&)>& change) {
    TestRecord changed = *record_;
    change(changed);
    const std::set<Id> readings_of_none;
    return evaluate(changed, nullptr, UnitSystem::Metric, evaluation_.get(), &readings_of_none)->light_so_far() ==
           light_;
  };
  EXPECT_TRUE(kept([](TestRecord& b) { b.test.target_low_ppfd = 10, b.test.photoperiod_h = 18; }));
  EXPECT_TRUE(kept([](TestRecord& b) { b.test.height_rule = "center", b.test.height_rule_ppfd = 500; }));
  EXPECT_TRUE(kept([](TestRecord& b) { b.settlings.clear(), b.card_rows.clear(); }));
  EXPECT_TRUE(kept([](TestRecord& b) {
    b.rungs.push_back({3, 1, 0.5, true});
    Sweep s{3, 1, 3, 1};
    s.confirms = true;
    b.sweeps.push_back(s);
  }));
  EXPECT_FALSE(kept([](TestRecord& b) { b.fixture.width_m = 0.5; }));
  EXPECT_FALSE(kept([](TestRecord& b) { b.test.height_uncertainty_m = 0.02; }));
  EXPECT_FALSE(kept([](TestRecord& b) { b.sweeps[0].power_w = 120; }));
  EXPECT_FALSE(kept([](TestRecord& b) { b.stair_stops[1].power_w = 60; }));
}

TEST(SettleLimits, TheCircuitHoldsWhereItsRatingIsKnown) {
  record::Test test;
  Settling settling;
  EXPECT_FALSE(request_asked(settling, test, {}).limits.max_power_w);
  test.circuit_a = 10;
  EXPECT_FALSE(circuit_limit_w(test)) << "the voltage is not known";
  test.mains_v = 230;
  EXPECT_NEAR(*request_asked(settling, test, {}).limits.max_power_w, 1840, 1e-9);
  settling.max_power_w = 400;
  EXPECT_EQ(request_asked(settling, test, {}).limits.max_power_w, 400);
  settling.max_power_w = 4000;
  EXPECT_NEAR(*request_asked(settling, test, {}).limits.max_power_w, 1840, 1e-9);
}

TEST(SettleWords, SayWhatEachCostsAgainstTheFewestWatts) {
  const auto point = [](double watts, double in_band, double lowest) {
    SettlePoint p;
    p.height = std::make_shared<const SettleHeight>(SettleHeight{.height_m = 0.4, .patterns = {}, .errors = {}});
    p.setting.power_w = watts;
    p.figures.mean = 100, p.figures.lowest = lowest, p.figures.in_band = in_band;
    return p;
  };
  SettleLattice lattice;
  lattice.area = {0, 0, 1, 1};
  const SettleAnswers answers{point(100, 0.8, 60), point(140, 0.91, 60), point(90, 0.7, 70)};
  const auto words = settle_cost_words(answers, lattice, UnitSystem::Metric);
  ASSERT_EQ(words.size(), 2u);
  EXPECT_EQ(words[0], "40 W more than needed buys 0.11 m² more in band.");
  EXPECT_EQ(words[1], "The most even takes 10 W less and brings lowest ÷ mean from 0.60 to 0.70.");
  EXPECT_EQ(settle_price_words(point(100, 1, 1), point(112, 1, 1), 0.95), "For 95 % instead of 50 %: 12 W more.");
  EXPECT_EQ(settle_price_words({}, point(112, 1, 1), 0.95), "");
}

}  // namespace
}  // namespace sunbreak::evaluation
