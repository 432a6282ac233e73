#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>
#include <cmath>
#include <ctime>

#include "book/plan.h"
#include "desktop/desk/bench_clock.h"
#include "desktop/desk/test_log.h"
#include "desktop/warmup/stair_run.h"
#include "desktop/warmup/target_finder.h"
#include "desktop/warmup/trace_chart.h"
#include "evaluation/stair_records.h"
#include "record/utc.h"
#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

namespace {

/// Warm-up without instruments: everything is typed.
class TypedWarmUpTest : public WindowTest {
 protected:
  void SetUp() override {
    WindowTest::SetUp();
    key(Qt::Key_N, Qt::ControlModifier);
    ASSERT_TRUE(desk().test());
    window_->show_stage(Stage::WarmUp);
  }
  static void enter(QWidget* dialog, const char* field, const QString& text) {
    auto* edit = dialog->findChild<QLineEdit*>(field);
    edit->selectAll();
    QTest::keyClicks(edit, text);
  }
  static QString words(QWidget* dialog, const char* label) { return dialog->findChild<QLabel*>(label)->text(); }
};

}  // namespace

TEST_F(TypedWarmUpTest, AStairIsTypedStepByStepAndEachStepIsKept) {
  StairRun run(desk(), window_->instruments(), window_.get());
  run.show();
  QApplication::setActiveWindow(&run);
  enter(&run, "stairStops", "100, 50, 0");
  QTest::keyClick(&run, Qt::Key_Return);
  for (const auto& [watts, light] : {std::pair{"320", "800"}, {"168,5", "440"}}) {
    ASSERT_TRUE(run.waits_for_setting());
    QTest::keyClick(&run, Qt::Key_Return);
    enter(&run, "stairWatts", watts);
    QTest::keyClick(&run, Qt::Key_Return);
    enter(&run, "stairLight", light);
    QTest::keyClick(&run, Qt::Key_Return);
  }
  EXPECT_EQ(desk().test()->stair_stops.size(), 2u) << "in the lab book before the stair is over";
  // Standby asks for watts alone.
  QTest::keyClick(&run, Qt::Key_Return);
  enter(&run, "stairWatts", "0,6");
  QTest::keyClick(&run, Qt::Key_Return);
  EXPECT_FALSE(run.asked_for());
  const DimmingCurve stair = evaluation::stair_of(*desk().test()).value();
  EXPECT_NEAR(*stair.rows[1].light_factor, 0.55, 1e-9);
  EXPECT_NEAR(*stair.rows[1].power_share, 168.5 / 320, 1e-9);
  EXPECT_EQ(stair.standby_w, 0.6);
}

TEST_F(TypedWarmUpTest, AStepWithoutANumberIsNotKept) {
  StairRun run(desk(), window_->instruments(), window_.get());
  run.show();
  QApplication::setActiveWindow(&run);
  enter(&run, "stairStops", "100, 250");
  QTest::keyClick(&run, Qt::Key_Return);
  EXPECT_TRUE(words(&run, "stairProblem").contains("0 to 100 %")) << words(&run, "stairProblem").toStdString();
  EXPECT_FALSE(run.asked_for());
  enter(&run, "stairStops", "100, 50");
  QTest::keyClick(&run, Qt::Key_Return);
  QTest::keyClick(&run, Qt::Key_Return);
  QTest::keyClick(&run, Qt::Key_Return);
  EXPECT_TRUE(words(&run, "stairProblem").contains("type what it shows"));
  enter(&run, "stairWatts", "lots");
  QTest::keyClick(&run, Qt::Key_Return);
  EXPECT_TRUE(words(&run, "stairProblem").contains("not a number"));
  QTest::mouseClick(run.findChild<QPushButton*>("stairSkip"), Qt::LeftButton);
  EXPECT_EQ(run.asked_for(), 50);
  EXPECT_TRUE(desk().test()->stair_stops.empty());
}

TEST_F(TypedWarmUpTest, TheFinderSaysWhichWayToTurnAndKeepsTheWatts) {
  TargetFinder finder(desk(), window_->instruments(), window_.get());
  finder.show();
  QApplication::setActiveWindow(&finder);
  enter(&finder, "finderWanted", "600");
  enter(&finder, "finderLight", "900");
  EXPECT_TRUE(words(&finder, "finderTurn").contains("50 % too bright: turn down"));
  enter(&finder, "finderLight", "560");
  EXPECT_TRUE(words(&finder, "finderTurn").contains("too dim: turn up a little"));
  enter(&finder, "finderLight", "603");
  EXPECT_TRUE(words(&finder, "finderTurn").contains("there"));
  QTest::keyClick(&finder, Qt::Key_Return);
  EXPECT_TRUE(words(&finder, "finderProblem").contains("both needed")) << "no watts yet";
  enter(&finder, "finderWatts", "212.5");
  enter(&finder, "finderDial", "62");
  QTest::keyClick(&finder, Qt::Key_Return);
  ASSERT_EQ(desk().test()->target_settings.size(), 1u);
  const record::TargetSetting& s = desk().test()->target_settings[0];
  EXPECT_EQ(s.power_w, 212.5);
  EXPECT_EQ(s.percent, 62);
  EXPECT_EQ(s.raw, 603);
  EXPECT_EQ(s.place, "corners");
  EXPECT_EQ(find<QTableWidget>("targetTable")->rowCount(), 1);
}

TEST_F(TypedWarmUpTest, ATemperatureIsTakenOutByDeleteAndComesBack) {
  desk().edits().make("temperature", [&](book::Edit& e) {
    record::Temperature t;
    t.test_id = desk().test()->test.id;
    t.place = "driver";
    t.read_c = 48;
    t.taken_at = desk().clock().utc_text();
    e.add(t);
  });
  auto* table = find<QTableWidget>("temperatureTable");
  ASSERT_EQ(table->rowCount(), 1);
  table->setFocus();
  table->setCurrentCell(0, 0);
  key(Qt::Key_Delete);
  EXPECT_TRUE(desk().test()->temperatures.empty());
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(desk().test()->temperatures.size(), 1u);
}

TEST_F(TypedWarmUpTest, CostFollowsTariffHoursAndTheCircuit) {
  fill("typedWatts", "3000");
  fill("tariff", "0,3");
  fill("costHours", "10");
  fill("mainsVolts", "230");
  fill("circuitAmperes", "16");
  auto* table = find<QTableWidget>("costTable");
  EXPECT_EQ(table->item(0, 1)->text(), "30.0");
  EXPECT_EQ(table->item(0, 2)->text(), "9.00 EUR");
  const QString said = words(window_.get(), "costWords");
  EXPECT_TRUE(said.contains("13.04 A at 230 V, 82 % of the circuit")) << said.toStdString();
  EXPECT_TRUE(said.contains("licensed electrician"));
  fill("circuitAmperes", "20");
  EXPECT_TRUE(words(window_.get(), "costWords").contains("Local rules decide"));
}

TEST_F(TypedWarmUpTest, RecordingWithoutInstrumentsSaysWhatToDo) {
  key(Qt::Key_R);
  EXPECT_FALSE(window_->log().recording());
  EXPECT_TRUE(words(window_.get(), "message").contains("Ctrl+I")) << words(window_.get(), "message").toStdString();
}

TEST_F(TypedWarmUpTest, ALoggersLocalTimeIsTakenAsSuch) {
  qputenv("TZ", "EST5");  // five hours behind UTC, no summer time
  tzset();
  QFile file(path("dated.csv"));
  ASSERT_TRUE(file.open(QIODevice::WriteOnly));
  file.write("timestamp,W\n2026-03-14 09:00:00,322\n2026-03-14 09:00:10,322\n");
  file.close();
  QTimer::singleShot(300, window_.get(), [] {
    QWidget* dialog = QApplication::activeModalWidget();
    ASSERT_NE(dialog, nullptr);
    QTest::keyClick(dialog->findChild<QPushButton*>("takeLog"), Qt::Key_Return);
  });
  window_->bring_in_file(path("dated.csv"));
  qunsetenv("TZ");
  tzset();
  ASSERT_EQ(window_->log().log().watts.size(), 2u);
  EXPECT_EQ(window_->log().log().watts[0].time_s, record::seconds_of("2026-03-14T14:00:00.000Z"));
}

TEST_F(TypedWarmUpTest, ASimulatedTestThatRanAheadDoesNotMoveAnothersClock) {
  const double real = desk().clock().now_s();
  desk().edits().make("ahead", [&](book::Edit& e) {
    record::Test test = desk().test()->test;
    test.simulated = true;
    e.save(test);
    e.add(record::LampEvent{0, test.id, "on", 100.0, record::utc_text(real + 2 * 86400)});
  });
  EXPECT_GT(desk().clock().now_s(), real + 86400) << "what it reads next comes after that";
  key(Qt::Key_Home, Qt::AltModifier);
  key(Qt::Key_N, Qt::ControlModifier);
  EXPECT_LT(desk().clock().now_s(), real + 60);
}

TEST(BenchClock, RunsFasterWhenToldAndNeverGoesBack) {
  BenchClock clock;
  const double before = clock.now_s();
  clock.run_at(10'000);
  QTest::qWait(30);
  const double after = clock.now_s();
  EXPECT_GT(after - before, 200);
  clock.run_at(1);
  EXPECT_GE(clock.now_s(), after) << "what was read stays in the past";
  clock.not_before(after + 5000);
  EXPECT_GE(clock.now_s(), after + 5000);
  clock.not_before(0);
  EXPECT_GE(clock.now_s(), after + 5000);
}

/// Without a log the time axis counts from the first sweep, not from now, months later.
TEST_F(TypedWarmUpTest, SweepsOfOldWithoutALogAreCountedFromTheFirst) {
  const double began_s = 1.7e9;
  const record::TestRecord test = *desk().test();
  desk().book().edit("walked long ago", [&](book::Edit& e) {
    const record::Id sweep = book::sweep_for(e, test, test.rungs[0].id, test.stops[0].id).id;
    for (int station = 0; station < 4; ++station)
      e.accept({0, sweep, station, 500, "typed", record::utc_text(began_s + 20 * station)});
  });
  auto* traces = find<TraceChart>("traceChart");
  EXPECT_TRUE(QTest::qWaitFor([&] { return std::abs(traces->zero_s() - began_s) < 1; }, 10000))
      << traces->zero_s() - began_s;
  EXPECT_LT(traces->to_s() - traces->from_s(), 3600);
}
