#include <QDialog>
#include <QElapsedTimer>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>
#include <cmath>

#include "core/bench/walk_order.h"
#include "desktop/desk/test_log.h"
#include "desktop/warmup/stair_run.h"
#include "desktop/warmup/trace_chart.h"
#include "evaluation/stair_records.h"
#include "instruments/bench_process.h"
#include "instruments/simulator/simulated_bench.h"
#include "quick_bench.h"
#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;
using instruments::BenchProcess;
using instruments::Measures;

namespace {

constexpr double speed = 300;

class WarmUpTest : public WindowTest {
 protected:
  void SetUp() override {
    WindowTest::SetUp();
    be_quick();
    desk().edits().make("plan", [](book::Edit& e) {
      record::Fixture fixture;
      fixture.name = "Test Bars";
      record::Bench tent{0, "Tent", 1.2, 1.2, 2.0, "reflective", "reflective", "reflective", "reflective", "", false};
      record::Meter sensor;
      sensor.name = "simulated";
      sensor.dark_offset = 0.4;
      record::Test test;
      test.fixture_id = e.add(fixture);
      test.bench_id = e.add(tent);
      test.sensor_id = e.add(sensor);
      test.opening_probe = false;
      test.reference_every = 0;
      test.id = e.add(test);
      e.add(record::Rung{0, test.id, 0.45});
      e.add(record::Stop{0, test.id, 100});
    });
    window_->open_test(1, Stage::WarmUp);
  }
  void connect_all(BenchProcess& bench) {
    connect_quickly(window_->instruments(), bench.port("sensor"), bench.port("carriage"));
    instruments::InstrumentSettings meter;
    meter.measures = Measures::Power;
    meter.address.port = bench.port("meter");
    meter.poll_ms = 15;
    meter.answer_ms = 400;
    window_->instruments().connect_to(meter);
    ASSERT_TRUE(both_live(window_->instruments()));
    ASSERT_TRUE(
        QTest::qWaitFor([&] { return window_->instruments().channel(Measures::Power).live().has_value(); }, 60000));
  }
  QString words(const char* name) { return find<QLabel>(name)->text(); }
  bool wait_until_stabilized() {
    return QTest::qWaitFor([&] { return window_->log().stabilization().state == StabilizationState::Stabilized; },
                           60000);
  }
  /// Does `act` every few milliseconds while a dialog is open, until it says that it is done.
  void in_dialog(const std::function<bool(QWidget*)>& act) {
    auto* timer = new QTimer(window_.get());
    QObject::connect(timer, &QTimer::timeout, window_.get(), [this, act, timer] {
      QWidget* dialog = QApplication::activeModalWidget();
      if (dialog && QApplication::activeWindow() != dialog) QApplication::setActiveWindow(dialog);
      if (!dialog || !act(dialog)) return;
      QTimer::singleShot(3000, window_.get(), [] {
        // A dialog that would not close is a failure, not a test that hangs.
        if (auto* stuck = qobject_cast<QDialog*>(QApplication::activeModalWidget())) stuck->reject();
      });
      timer->stop();
      timer->deleteLater();
    });
    timer->start(10);
  }
};

}  // namespace

TEST_F(WarmUpTest, FromSwitchOnToASettledSweep) {
  BenchProcess bench({"--speed", QString::number(speed)});
  connect_all(bench);
  bench.control("SIM:TILC 0");
  bench.control("SIM:HEIG 0.45");
  bench.control("SIM:POW 0");
  QElapsedTimer since_on;
  since_on.start();
  bench.control("SIM:POW 1");
  desk().clock().run_at(speed);

  // O: it is on, and what the instruments show is recorded.
  key(Qt::Key_O);
  ASSERT_TRUE(window_->log().recording());
  ASSERT_TRUE(QTest::qWaitFor([&] { return !window_->log().log().light.empty(); }, 60000));
  const double missed_s = speed * static_cast<double>(since_on.elapsed()) / 1000;
  EXPECT_EQ(desk().test()->lamp_events.size(), 1u);
  ASSERT_TRUE(QTest::qWaitFor([&] { return window_->log().log().light.size() > 20; }, 60000));
  QTest::qWait(600);
  EXPECT_EQ(words("settlingVerdict"), "Too early to say");
  ASSERT_TRUE(wait_until_stabilized()) << window_->log().stabilization().words;
  QTest::qWait(50);
  EXPECT_TRUE(words("settlingVerdict").startsWith("Settled")) << words("settlingVerdict").toStdString();
  const instruments::SimulatedScene scene;
  EXPECT_LT(*window_->log().fall(), scene.light_drop + 0.008) << "the bench's own, from switch-on";
  // A busy computer misses the first seconds, and with few readings in the next the fitted curve begins as much later.
  constexpr double begins_later_s = 60;
  EXPECT_GT(*window_->log().fall(),
            scene.light_drop * std::exp(-(missed_s + begins_later_s) / scene.light_stabilizes_s) - 0.008)
      << "missed were the first " << missed_s << " s";

  // D: down the stair. At each setting the tester turns the dimmer and presses Enter; watts and light follow by
  // themselves.
  std::optional<double> set_to;
  const double from_s = window_->log().stabilization().from_s;
  in_dialog([&](QWidget* dialog) {
    auto* run = qobject_cast<StairRun*>(dialog);
    if (!run) return false;
    auto* stops = run->findChild<QLineEdit*>("stairStops");
    if (!run->asked_for() && !stops->isReadOnly()) {
      put(run, "stairStops", "100, 80, 60, 40, 20, 0, 100");
      QTest::keyClick(run, Qt::Key_Return);
      return false;
    }
    if (run->waits_for_setting() && run->asked_for()) {
      bench.control("SIM:DIM " + QByteArray::number(*run->asked_for()));
      set_to = run->asked_for();
      QTest::keyClick(run, Qt::Key_Return);
      return false;
    }
    if (run->asked_for()) return false;
    QTest::keyClick(run, Qt::Key_Return);
    return true;
  });
  key(Qt::Key_D);
  EXPECT_EQ(set_to, 100);
  const auto stair = evaluation::stair_of(*desk().test());
  ASSERT_TRUE(stair.ok()) << stair.problem().sentence();
  ASSERT_EQ(stair.value().rows.size(), 5u);
  for (const DimmingPoint& row : stair.value().rows) {
    const double dial = row.dial_pct / 100;
    EXPECT_NEAR(*row.light_factor, dial * (1.06 - 0.06 * dial), 0.01) << row.dial_pct;
    EXPECT_NEAR(*row.power_share, 0.03 + 0.97 * dial, 0.01) << row.dial_pct;
  }
  for (double dial = 0.2; dial <= 1; dial += 0.05)
    EXPECT_NEAR(*stair.value().light_factor_at(100 * dial), dial * (1.06 - 0.06 * dial), 0.01) << dial;
  EXPECT_NEAR(*stair.value().standby_w, 10, 1) << "at 0 % the simulated driver still draws 3 %";
  EXPECT_EQ(find<QTableWidget>("stairTable")->rowCount(), 5);

  // T: a temperature by infrared, corrected.
  in_dialog([&](QWidget* dialog) {
    if (dialog->objectName() != "temperatureDialog") return false;
    put(dialog, "temperatureRead", "52");
    put(dialog, "emissivitySet", "0.95");
    put(dialog, "emissivityTrue", "0.6");
    put(dialog, "reflected", "22");
    QTest::mouseClick(dialog->findChild<QPushButton*>("keepTemperature"), Qt::LeftButton);
    return true;
  });
  key(Qt::Key_T);
  ASSERT_EQ(desk().test()->temperatures.size(), 1u);
  auto* temperatures = find<QTableWidget>("temperatureTable");
  ASSERT_EQ(temperatures->rowCount(), 1);
  EXPECT_NEAR(temperatures->item(0, 2)->text().toDouble(), 66.3, 0.1);
  EXPECT_TRUE(words("temperatureWords").contains("over 60 °C")) << words("temperatureWords").toStdString();

  // The stair began the wait anew; once it is over, a sweep is walked stabilized and says so.
  ASSERT_TRUE(QTest::qWaitFor([&] { return window_->log().stabilization().from_s > from_s; }, 60000));
  // At the border of the rule noise decides for a while: it has to have held for some of the bench's minutes.
  QElapsedTimer held;
  held.start();
  ASSERT_TRUE(QTest::qWaitFor(
      [&] {
        if (window_->log().stabilization().state != StabilizationState::Stabilized) held.restart();
        return held.elapsed() > 4000;
      },
      60000))
      << window_->log().stabilization().words;
  key(Qt::Key_3, Qt::AltModifier);
  EXPECT_TRUE(words("walkSettling").contains("have settled")) << words("walkSettling").toStdString();
  for (const char* value : {"701", "702", "703"}) {
    type(value);
    key(Qt::Key_Return);
  }
  ASSERT_TRUE(QTest::qWaitFor([&] { return words("walkSettling") == "walked settled"; }, 60000))
      << words("walkSettling").toStdString();

  // All of it is in the lab book: the log too, when it is opened anew.
  const std::size_t logged = window_->log().log().samples.size();
  open();
  window_->open_test(1, Stage::WarmUp);
  EXPECT_EQ(window_->log().log().samples.size(), logged);
  ASSERT_TRUE(QTest::qWaitFor(
      [&] {
        const auto* walked = window_->desk().worked_out().walked(desk().test()->sweeps.front().id);
        return walked && walked->kind == evaluation::WalkedState::Stabilized;
      },
      5000));
}

TEST_F(WarmUpTest, WhatWasRecordedStaysInSightWhenTheRecordingStops) {
  BenchProcess bench({"--speed", QString::number(speed)});
  connect_all(bench);
  desk().clock().run_at(speed);
  key(Qt::Key_R);
  ASSERT_TRUE(QTest::qWaitFor([&] { return window_->log().log().samples.size() > 20; }, 60000));
  key(Qt::Key_R);
  EXPECT_FALSE(window_->log().recording());
  const std::size_t recorded = window_->log().log().samples.size();
  desk().choose(desk().test()->rungs[0].id, desk().test()->stops[0].id);  // no edit: the test is not read anew
  EXPECT_EQ(window_->log().log().samples.size(), recorded);
  desk().edits().make("remark", [&](book::Edit& e) {
    record::Test test = desk().test()->test;
    test.notes = "read anew";
    e.save(test);
  });
  EXPECT_EQ(window_->log().log().samples.size(), recorded);
}

TEST_F(WarmUpTest, WalkingBeforeItHasSettledIsAllowedAndMarked) {
  key(Qt::Key_O);
  desk().clock().run_at(10'000);
  key(Qt::Key_W);
  for (const int watts : {330, 328, 326, 325}) {
    type(QString::number(watts));
    key(Qt::Key_Return);
    QTest::qWait(90);  // a quarter of an hour at this pace
  }
  EXPECT_EQ(window_->log().log().watts.size(), 4u);
  desk().clock().run_at(1);
  key(Qt::Key_3, Qt::AltModifier);
  type("700");
  key(Qt::Key_Return);
  ASSERT_TRUE(QTest::qWaitFor([&] { return words("walkSettling").contains("before it had settled"); }, 60000))
      << words("walkSettling").toStdString();
  EXPECT_EQ(desk().view()->read(), 1) << "it is allowed";
}

TEST_F(WarmUpTest, WhatCannotBeBetweenTheMetersNumbersIsSaidAndKept) {
  key(Qt::Key_W);
  type("322");
  for (const auto& [field, text] : {std::pair{"typedVolts", "230"}, {"typedAmperes", "1.2"}, {"typedFactor", "1.08"}}) {
    find<QLineEdit>(field)->setFocus();
    type(text);
  }
  key(Qt::Key_Return);
  const QString said = words("wallWords");
  EXPECT_TRUE(said.contains("power factor of 1.08")) << said.toStdString();
  EXPECT_TRUE(said.contains("322.0 W where 230.0 V · 1.200 A is 276.0 VA")) << said.toStdString();
  EXPECT_EQ(desk().test()->wall_readings.size(), 1u);
  type("twelve");
  key(Qt::Key_Return);
  EXPECT_TRUE(words("wallWords").contains("not a number")) << words("wallWords").toStdString();
  EXPECT_EQ(desk().test()->wall_readings.size(), 1u);
  EXPECT_EQ(find<QLineEdit>("typedWatts")->text(), "twelve") << "what was typed stays";
  find<QLineEdit>("typedWatts")->clear();
  key(Qt::Key_Escape);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(desk().test()->wall_readings.empty());
}

TEST_F(WarmUpTest, ALoggersTableIsShownBeforeItIsTaken) {
  QFile file(path("w1.csv"));
  ASSERT_TRUE(file.open(QIODevice::WriteOnly));
  file.write("time (min);PPFD;Power (W)\n");
  for (int i = 0; i < 90; ++i) file.write(QString("%1;%2;322,0\n").arg(i).arg(i == 40 ? "n/a" : "700,5").toUtf8());
  file.close();
  key(Qt::Key_O);
  QString understood, findings;
  in_dialog([&](QWidget* dialog) {
    if (dialog->objectName() != "logImport") return false;
    understood = dialog->findChild<QLabel*>("logUnderstood")->text();
    findings = dialog->findChild<QLabel*>("logFindings")->text();
    QTest::keyClick(dialog->findChild<QPushButton*>("takeLog"), Qt::Key_Return);
    return true;
  });
  window_->bring_in_file(path("w1.csv"));
  EXPECT_TRUE(understood.contains("times in minutes")) << understood.toStdString();
  EXPECT_TRUE(findings.contains("row 42: 'n/a' was not taken as light")) << findings.toStdString();
  EXPECT_EQ(window_->log().log().watts.size(), 90u);
  EXPECT_EQ(window_->log().log().light.size(), 89u);
  EXPECT_NEAR(window_->log().log().watts.front().time_s, record::seconds_of(desk().test()->lamp_events[0].at), 1e-3);
  ASSERT_TRUE(wait_until_stabilized()) << window_->log().stabilization().words;
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(window_->log().log().samples.empty());
}

TEST_F(WarmUpTest, TheTracesZoomAndPanByKeysAndNeverLeaveTheLog) {
  desk().edits().make("log", [&](book::Edit& e) {
    record::LogPart part = book::empty_part(*desk().test(), "file");
    std::vector<record::LogSample> samples;
    for (int t = 0; t < 7200; ++t) {
      record::LogSample s;
      s.time_s = 1'773'478'800.0 + t;
      s.power_w = 322;
      samples.push_back(s);
    }
    part.count = 7200;
    part.samples = record::pack_samples(samples);
    e.add(part);
  });
  auto* traces = find<TraceChart>("traceChart");
  traces->setFocus();
  EXPECT_NEAR(traces->to_s() - traces->from_s(), 7199, 1);
  key(Qt::Key_Plus);
  key(Qt::Key_Plus);
  EXPECT_NEAR(traces->to_s() - traces->from_s(), 7199 / 4.0, 1);
  for (int i = 0; i < 20; ++i) key(Qt::Key_Right);
  EXPECT_NEAR(traces->to_s(), 1'773'478'800.0 + 7199, 1);
  for (int i = 0; i < 40; ++i) key(Qt::Key_Left);
  EXPECT_NEAR(traces->from_s(), 1'773'478'800.0, 1);
  key(Qt::Key_Home);
  EXPECT_NEAR(traces->to_s() - traces->from_s(), 7199, 1);
}
