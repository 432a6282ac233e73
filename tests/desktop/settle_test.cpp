#include <QClipboard>
#include <QComboBox>
#include <QFile>
#include <QLabel>
#include <QProcess>
#include <QPushButton>
#include <QTableWidget>

#include "book/test_rows.h"
#include "core/optics/fixture_shapes.h"
#include "core/optics/room_light.h"
#include "core/power/running_cost.h"
#include "desktop/settle/field_chart.h"
#include "desktop/settle/settle_view.h"
#include "desktop/settle/settle_work.h"
#include "desktop/walk/walk_view.h"
#include "desktop/widgets/elided_combo.h"
#include "desktop/widgets/text.h"
#include "desktop/window_fixture.h"
#include "evaluation/settings_card.h"
#include "evaluation/test_light.h"
#include "instruments/bench_process.h"
#include "instruments/simulator/simulated_bench.h"
#include "quick_bench.h"
#include "record/json.h"
#include "report/card_section.h"
#include "report/html_report.h"

namespace sunbreak::desktop {

using record::Json;

/// Settle in the real window.
class SettleTest : public WindowTest {
 protected:
  void use_sample_book() {
    open_sample_book();
    for (const record::Test& test : desk().book().all<record::Test>("ORDER BY id"))
      tests_[desk().book().find<record::Fixture>(test.fixture_id)->name] = test.id;
  }
  SettleView* settle() { return window_->findChild<SettleView*>(); }
  bool answered() {
    return QTest::qWaitFor(
        [&] {
          const auto& answers = settle()->work().answers();
          return answers && !settle()->work().filling() && answers->maps == settle()->work().maps() &&
                 answers->request == settle()->work().request();
        },
        60000);
  }
  /// Chooses the line of a closed list that begins so, by arrow keys.
  void choose(const char* object, const QString& begins) {
    auto* box = find<QComboBox>(object);
    ASSERT_NE(box, nullptr) << object;
    box->setFocus();
    QTest::keyClick(box, Qt::Key_Home);
    for (int i = 0; i < box->count() && !box->currentText().startsWith(begins); ++i) QTest::keyClick(box, Qt::Key_Down);
    ASSERT_TRUE(box->currentText().startsWith(begins)) << box->currentText().toStdString();
  }
  Json command_line(QStringList arguments) {
    arguments.prepend(QString::fromStdString(book_file()));
    arguments.prepend("settle");
    arguments << "--json";
    QProcess cli;
    cli.start(SUNBREAK_CLI, arguments);
    EXPECT_TRUE(cli.waitForFinished(60000));
    EXPECT_EQ(cli.exitCode(), 0) << cli.readAllStandardError().toStdString();
    return record::json_of(cli.readAllStandardOutput().toStdString());
  }
  static void expect_same(const Result<SettlePoint>& here, const Json& told, const char* name) {
    ASSERT_EQ(here.ok(), !told.is_null()) << name;
    if (!here) return;
    const SettlePoint& p = here.value();
    EXPECT_EQ(p.height->height_m, told["height_m"].number()) << name;
    EXPECT_EQ(p.setting.percent, told["dimmer_pct"].number()) << name;
    EXPECT_EQ(*p.setting.power_w, told["power_w"].number()) << name;
    EXPECT_EQ(p.figures.edge, told["edge_mean_ppfd"].number()) << name;
    EXPECT_EQ(p.figures.in_band, told["in_band_share"].number()) << name;
    EXPECT_EQ(p.chance, told["chance"].number()) << name;
    EXPECT_TRUE(told["predicted"].truth());
  }
  std::map<std::string, record::Id> tests_;
};

TEST_F(SettleTest, TargetRuleAndLimitAreChosenByKeysAndTheAnswersAreTheCommandLines) {
  use_sample_book();
  open_test(tests_.at("Marrow Row"), Stage::Settle);
  ASSERT_TRUE(answered());
  key(Qt::Key_T);
  EXPECT_EQ(focused(), find<QComboBox>("settleTarget"));
  const auto* target = dynamic_cast<ElidedCombo*>(find<QComboBox>("settleTarget"));
  ASSERT_TRUE(target);
  EXPECT_TRUE(target->shown().endsWith("…")) << "a target's list is wider than there is room for";
  window_->grab();
  EXPECT_EQ(target->toolTip(), target->currentText());
  choose("settleTarget", "Short days: young plants");
  EXPECT_EQ(desk().test()->test.target_low_ppfd, 245);
  choose("settleRule", "a share");
  fill("settleRuleValue", "70");
  choose("settleSure", "80");
  fill("settleMaxWatts", "400");
  fill("settleMinHeight", "25");
  ASSERT_TRUE(answered());
  const record::Settling kept = desk().test()->settlings.at(0);
  EXPECT_EQ(kept.rule, "share:70");
  EXPECT_EQ(kept.sure_pct, 80);
  const Json told = command_line({"--test", QString::number(tests_.at("Marrow Row")), "--target-low", "245",
                                  "--target-high", "400", "--photoperiod", "18", "--rule", "share:70", "--sure", "80",
                                  "--max-watts", "400", "--min-height", "25cm", "--list", "Short days"});
  const auto& best = settle()->work().answers()->best;
  expect_same(best.fewest_watts, told["fewest_watts"], "fewest watts");
  expect_same(best.widest, told["widest"], "widest");
  expect_same(best.most_even, told["most_even"], "most even");
  ASSERT_TRUE(best.fewest_watts);
  EXPECT_GE(best.fewest_watts.value().chance, 0.8);
  EXPECT_GE(best.fewest_watts.value().height->height_m, 0.25);

  find<FieldChart>("settleField")->setFocus();
  key(Qt::Key_F);
  EXPECT_EQ(settle()->work().point()->setting.percent, best.fewest_watts.value().setting.percent);
  EXPECT_TRUE(find<QLabel>("settleChance")->text().contains("The rule is met here"));
  key(Qt::Key_W);
  EXPECT_EQ(settle()->work().point()->height->height_m, best.widest.value().height->height_m);
  const double from_m = settle()->work().point()->height->height_m,
               from_pct = settle()->work().point()->setting.percent;
  key(Qt::Key_Left);
  EXPECT_LT(settle()->work().point()->height->height_m, from_m);
  // With the watts up the same keys do the same, and a click lands on the watts clicked at.
  key(Qt::Key_Y);
  auto* field = find<FieldChart>("settleField");
  QTest::mouseClick(field, Qt::LeftButton, {}, QPoint(field->width() / 2, field->height() / 2));
  const double watts_in_middle = *settle()->work().point()->setting.power_w;
  const auto& steps = settle()->work().maps()->steps;
  EXPECT_NEAR(watts_in_middle, (*steps.front().power_w + *steps.back().power_w) / 2,
              0.1 * (*steps.back().power_w - *steps.front().power_w));
  key(Qt::Key_Y);
  key(Qt::Key_W);
  key(Qt::Key_Down, Qt::ShiftModifier);
  EXPECT_LT(settle()->work().point()->setting.percent, from_pct);
  key(Qt::Key_C, Qt::ControlModifier);
  const QString copied = QApplication::clipboard()->text();
  EXPECT_TRUE(copied.startsWith("answer\theight_m")) << copied.toStdString();
  EXPECT_TRUE(copied.contains("\nfewest watts\t")) << copied.toStdString();

  // The card, its rows by the same solver.
  key(Qt::Key_4);
  choose("cardList", "Short days");
  find<QPushButton>("makeCard")->setFocus();
  key(Qt::Key_Space);
  auto* table = find<QTableWidget>("cardTable");
  ASSERT_TRUE(QTest::qWaitFor([&] { return table->rowCount() == 5; }, 60000));
  const auto& rows = desk().test()->card_rows;
  ASSERT_EQ(rows.size(), told["card"].size());
  for (std::size_t i = 0; i < rows.size(); ++i) {
    EXPECT_EQ(rows[i].height_m.has_value(), !told["card"][i]["height_m"].is_null()) << rows[i].stage;
    if (!rows[i].height_m) continue;
    EXPECT_EQ(*rows[i].height_m, told["card"][i]["height_m"].number()) << rows[i].stage;
    EXPECT_EQ(*rows[i].percent, told["card"][i]["dimmer_pct"].number()) << rows[i].stage;
  }
  // A height typed over is judged anew, and the weeks make a sum.
  constexpr int height_column = 2, watts_column = 5, weeks_column = 13, young = 2;
  const QString watts = table->item(young, watts_column)->text();
  ASSERT_NE(watts, QString::fromUtf8("–"));
  table->item(young, height_column)->setText("40");
  ASSERT_TRUE(QTest::qWaitFor([&] { return desk().test()->card_rows[young].own; }, 60000));
  EXPECT_NEAR(*desk().test()->card_rows[young].height_m, 0.4, 1e-9);
  table->item(young, weeks_column)->setText("4");
  const QString sum_begins = "The whole grow: 28 days, ";
  ASSERT_TRUE(QTest::qWaitFor([&] { return find<QLabel>("cardSum")->text().startsWith(sum_begins); }, 60000));
  const double kwh = 28 * running_cost(watts.toDouble(), 18, 0).kwh_day;
  EXPECT_NEAR(find<QLabel>("cardSum")->text().mid(sum_begins.size()).section(' ', 0, 0).toDouble(), kwh, 0.02 * kwh);
  table->item(young, height_column)->setText("high");
  EXPECT_NEAR(*desk().test()->card_rows[young].height_m, 0.4, 1e-9);

  // Page and card carry it.
  const auto& evaluation = desk().worked_out().evaluation();
  const auto page = report::html_report({evaluation}).html;
  EXPECT_NE(page.find("<h2 id=\"card\">Settings card</h2>"), std::string::npos);
  EXPECT_NE(page.find("young plants (typed by the tester)"), std::string::npos);
  const auto card = report::settings_card_page(
      *desk().test(), evaluation::settings_card(*desk().test(), *evaluation->light(), *evaluation), UnitSystem::Metric);
  EXPECT_NE(card.find("70 % of the area in band"), std::string::npos);
  EXPECT_NE(card.find("The whole grow, 28 days"), std::string::npos);

  // Asked one by one.
  key(Qt::Key_3);
  fill("askWatts", "300");
  ASSERT_TRUE(QTest::qWaitFor([&] { return find<QLabel>("answer0")->text().contains("300 W"); }, 60000))
      << find<QLabel>("answer0")->text().toStdString();
  fill("askCenter", "20000");
  ASSERT_TRUE(QTest::qWaitFor([&] { return find<QLabel>("answer2")->text().contains("at no height"); }, 60000));
}

TEST_F(SettleTest, WhatWasWalkedIsToldAsReadTellsIt) {
  use_sample_book();
  open_test(tests_.at("Bess 400"), Stage::Settle);
  ASSERT_TRUE(answered());
  const auto& maps = *settle()->work().maps();
  const auto walked =
      std::ranges::find_if(maps.heights, [](const auto& h) { return std::abs(h->height_m - 0.6) < 1e-9; });
  ASSERT_NE(walked, maps.heights.end());
  settle()->work().stand_on(point_at(maps, settle()->work().request(), *walked, *setting_at(maps, 100)));
  const auto* table = find<QTableWidget>("settleFigures");
  const auto* sweep = [&]() -> const record::Sweep* {
    for (const record::Sweep& s : desk().test()->sweeps)
      if (std::abs(desk().test()->rung(s.rung_id)->height_m - 0.6) < 1e-9) return &s;
    return nullptr;
  }();
  ASSERT_TRUE(sweep);
  ASSERT_TRUE(QTest::qWaitFor([&] { return desk().worked_out().budget_of(sweep->id) != nullptr; }, 60000));
  const Told read = shown_told(figure("mean_ppfd"), desk().worked_out().evaluation()->figures(sweep->id)->mean_ppfd,
                               desk().worked_out().budget_of(sweep->id)->expanded("mean_ppfd"), UnitSystem::Metric);
  EXPECT_TRUE(QTest::qWaitFor([&] { return text_of(table->item(0, 2)->text()) == read.expanded; }, 60000))
      << table->item(0, 2)->text().toStdString() << " beside " << read.expanded;
  EXPECT_EQ(table->horizontalHeaderItem(0)->text(), "as walked");
  EXPECT_EQ(table->item(0, 0)->text(), "Mean PPFD");
  EXPECT_EQ(text_of(table->item(0, 1)->text()), read.value + " µmol/m²/s");
  const Json told = command_line({"--test", QString::number(tests_.at("Bess 400")), "--at-height", "60cm",
                                  "--at-dimmer", "100", "--target-low", "1", "--target-high", "5000"});
  EXPECT_EQ(told["widest"]["expanded_k2"]["mean_ppfd"].number(),
            desk().worked_out().budget_of(sweep->id)->expanded("mean_ppfd"))
      << "whoever asks";
  EXPECT_FALSE(told["widest"]["predicted"].truth());
}

TEST_F(SettleTest, WhatATestLacksIsSaidWithTheWayThere) {
  use_sample_book();
  // Walked at one height, without a stair.
  open_test(tests_.at("Tansy Round 60"), Stage::Settle);
  ASSERT_TRUE(answered());
  EXPECT_TRUE(find<QLabel>("settleState")->text().contains("walk another"))
      << find<QLabel>("settleState")->text().toStdString();
  EXPECT_TRUE(settle()->work().point()) << "what can be told is told";
  find<QPushButton>("settleWayOn")->click();
  EXPECT_TRUE(window_->findChild<WalkView*>()->isVisible());
  // Without any reading there is one sentence and one way on.
  record::TestRecord fresh;
  fresh.fixture.id = fresh.bench.id = fresh.test.id = 1;
  fresh.test.fixture_id = fresh.test.bench_id = 1;
  fresh.rungs = {{1, 1, 0.4}};
  fresh.stops = {{1, 1, 100}};
  const record::Id id = book::add_test(desk().book(), fresh, "fresh");
  open_test(id, Stage::Settle);
  EXPECT_TRUE(find<QLabel>("settleState")->text().contains("No sweep has a reading"));
  EXPECT_TRUE(find<QPushButton>("settleWayOn")->isVisible());
}

/// A test of the simulated bench's own fixture: walked at three heights, then a point of the field is confirmed on the
/// bench, hands-free, and once more with the fixture hung lower than it is said to be.
class SettleBenchTest : public SettleTest {
 protected:
  SettleBenchTest() : bench_({"--speed", "60"}) {}

  void SetUp() override {
    SettleTest::SetUp();
    be_quick();
    bench_.control("SIM:SPE 6000");
    QTest::qWait(1000);
    bench_.control("SIM:SPE 60");
    bench_.control("SIM:TILC 0");
  }
  /// Light as it truly is, read by a sensor that is right.
  void walk_truth() {
    const auto scene = instruments::SimulatedScene::six_bars();
    const RoomLight room(scene.room);
    const Layout layout = lay_out({1.2, 1.2}, Grid{GridKind::Cells, 8, 8, 0, 0, {}}).value();
    desk().edits().make("walked", [&](book::Edit& e) {
      record::Fixture fixture;
      fixture.name = "Test Bars";
      fixture.width_m = fixture.depth_m = 1.0;
      fixture.emitters_across = 6;
      fixture.emitters_deep = 18;
      record::Bench tent{0, "Tent", 1.2, 1.2, 2.0, "reflective", "reflective", "reflective", "reflective", "", false};
      record::Meter sensor;
      sensor.name = "simulated";
      sensor.factor = factor;
      sensor.dark_offset = dark;
      record::Test test;
      test.fixture_id = e.add(fixture);
      test.bench_id = e.add(tent);
      test.sensor_id = e.add(sensor);
      test.columns = test.rows = 8;
      test.reference_every = 0;
      test.target_low_ppfd = 300, test.target_high_ppfd = 700;
      test.id = test_id_ = e.add(test);
      const record::Id stop = e.add(record::Stop{0, test.id, 100});
      std::vector<Vec3> places;
      for (const Station& s : layout.stations) places.push_back({s.x_m, s.y_m, 0});
      int count = 0;
      for (const double height : {0.6, 0.45, 0.3}) {
        record::Sweep sweep{0, test.id, e.add(record::Rung{0, test.id, height}), stop, "cells", 8, 8};
        sweep.calibration_factor = factor, sweep.dark_offset = dark;
        sweep.power_w = 320;
        sweep.id = e.add(sweep);
        const Prediction p =
            room.predict_once(placed(scene.fixture, {0.6 + scene.off_x_m, 0.6 + scene.off_y_m, height}), places);
        for (int i = 0; i < 64; ++i) {
          const double noise = 1 + 0.004 * std::sin(7.0 * ++count);
          const auto at = static_cast<std::size_t>(i);
          e.accept({0, sweep.id, i, (p.direct[at] + p.reflected[at]) * noise / factor + dark, "typed",
                    "2026-03-14T10:00:00.000Z"});
        }
      }
    });
  }
  /// Confirms where one stands, hands-free; gives the verdict.
  QString confirmed() {
    find<FieldChart>("settleField")->setFocus();
    key(Qt::Key_C);
    EXPECT_TRUE(window_->findChild<WalkView*>()->isVisible());
    EXPECT_TRUE(desk().sweep() && desk().sweep()->confirms);
    EXPECT_LE(desk().view()->states.size(), 9u);
    EXPECT_GE(desk().view()->states.size(), 5u);
    // As a tester would hang and dim it.
    bench_.control("SIM:HEIG " + QByteArray::number(desk().rung()->height_m - hung_low_m));
    bench_.control("SIM:DIM " + QByteArray::number(desk().stop()->percent));
    key(Qt::Key_H);
    EXPECT_TRUE(QTest::qWaitFor([&] { return desk().view()->complete(); }, 120000));
    window_->show_stage(Stage::Settle);
    EXPECT_TRUE(QTest::qWaitFor([&] { return find<QLabel>("settleState")->text().contains("onfirmed:"); }, 60000))
        << find<QLabel>("settleState")->text().toStdString();
    return find<QLabel>("settleState")->text();
  }

  static constexpr double factor = 1.0245, dark = 0.4;
  instruments::BenchProcess bench_;
  record::Id test_id_ = 0;
  double hung_low_m = 0;
};

TEST_F(SettleBenchTest, APointOfTheFieldIsConfirmedOnTheBenchOrNot) {
  walk_truth();
  open_test(test_id_, Stage::Settle);
  ASSERT_TRUE(answered());
  connect_quickly(window_->instruments(), bench_.port("sensor"), bench_.port("carriage"));
  ASSERT_TRUE(both_live(window_->instruments()));
  settle()->work().stand_at(0.38, 100);
  const auto planned = desk().test()->planned_sweeps();
  EXPECT_TRUE(confirmed().startsWith("Confirmed: ")) << find<QLabel>("settleState")->text().toStdString();
  EXPECT_EQ(desk().test()->planned_sweeps(), planned) << "it is no part of the plan";
  const auto* light = desk().worked_out().light();
  EXPECT_EQ(light->question().fit.sweeps.size(), 3u) << "nor of what predicts";
  // Hung 3 cm lower than is said.
  hung_low_m = 0.03;
  settle()->work().stand_at(0.52, 100);
  const QString words = confirmed();
  EXPECT_TRUE(words.contains("Not confirmed: ")) << words.toStdString();
  const auto page = report::html_report({desk().worked_out().evaluation()}).html;
  EXPECT_NE(page.find("<h2>Predictions held against readings</h2>"), std::string::npos);
  EXPECT_NE(page.find("front left"), std::string::npos);

  // By the sensor at the center, the panel on Rig says how far to hang it until it reads what is wanted.
  window_->show_stage(Stage::Rig);
  fill("rigHangWanted", "500");
  EXPECT_EQ(desk().test()->test.height_rule, "center");
  bench_.control("SIM:HEIG 0.45");
  window_->instruments().send_carriage({0.6, 0.6});
  const auto* said = find<QLabel>("rigHangWords");
  ASSERT_TRUE(QTest::qWaitFor([&] { return said->text().contains("The center reads"); }, 60000))
      << said->text().toStdString();
  if (find<QPushButton>("rigHangAgree")->isVisible()) {
    desk().choose(desk().test()->rungs[1].id, desk().test()->stops[0].id);
    QTest::qWait(500);
    find<QPushButton>("rigHangAgree")->click();
  }
  EXPECT_TRUE(
      QTest::qWaitFor([&] { return said->text().contains("raise by") || said->text().contains("lower by"); }, 60000))
      << said->text().toStdString();
}

}  // namespace sunbreak::desktop
