#include <QClipboard>
#include <QComboBox>
#include <QFile>
#include <QHeaderView>
#include <QListWidget>
#include <QPushButton>
#include <QTcpSocket>
#include <QTimer>

#include "desktop/instruments/instrument_hub.h"
#include "desktop/meters/pair_table.h"
#include "desktop/read_fixture.h"
#include "desktop/warmup/stair_run.h"
#include "evaluation/stair_records.h"
#include "record/sensor_pairs.h"
#include "record/spectrum_samples.h"
#include "record/utc.h"

namespace sunbreak::desktop {
namespace {

constexpr double a_day_s = 86'400;

record::Json cli_json(const QStringList& arguments) {
  QProcess cli;
  cli.start(SUNBREAK_CLI, arguments);
  cli.waitForFinished();
  return record::json_of(cli.readAllStandardOutput().toStdString());
}

/// The window with meters on the shelf and dialogs driven by keys.
class MetersTest : public ReadTest {
 protected:
  /// Opens a dialog from Home by its key, and looks at it while it is open.
  void at_dialog(Qt::Key letter, const char* name, const std::function<void(QDialog*)>& look) {
    bool looked = false;
    auto* timer = new QTimer(qApp);
    QObject::connect(timer, &QTimer::timeout, timer, [&, timer] {
      auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
      if (!dialog || dialog->objectName() != name) return;
      timer->stop();
      timer->deleteLater();
      looked = true;
      QApplication::setActiveWindow(dialog);
      look(dialog);
      dialog->close();
    });
    timer->start(10);
    window_->show_home();
    QApplication::setActiveWindow(window_.get());
    QTest::keyClick(focused(), letter, Qt::ControlModifier);
    if (!looked) timer->deleteLater();
    EXPECT_TRUE(looked) << name;
  }
  static void choose(QDialog* dialog, const char* box, const QString& text) {
    auto* combo = dialog->findChild<QComboBox*>(box);
    ASSERT_NE(combo, nullptr);
    ASSERT_GE(combo->findText(text), 0) << text.toStdString();
    combo->setCurrentIndex(combo->findText(text));
  }
  record::Id add_meter(const char* kind, const char* name) {
    record::Meter meter;
    meter.kind = kind, meter.name = name;
    desk().book().edit("meter", [&](book::Edit& e) { meter.id = e.add(meter); });
    return meter.id;
  }
  /// Pastes a table, and takes what the preview shows.
  void take_pasted(const QString& table) {
    QApplication::clipboard()->setText(table);
    auto* timer = new QTimer(qApp);
    QObject::connect(timer, &QTimer::timeout, timer, [timer] {
      auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
      if (!dialog) return;
      timer->stop();
      timer->deleteLater();
      QTest::mouseClick(dialog->findChild<QPushButton*>("takeReadings"), Qt::LeftButton);
      if (dialog->isVisible()) dialog->reject();
    });
    timer->start(10);
    key(Qt::Key_V, Qt::ControlModifier);
  }
  void start_bench() {
    InstrumentHub& hub = window_->instruments();
    hub.start_simulated_bench();
    ASSERT_TRUE(QTest::qWaitFor(
        [&] { return hub.channel(instruments::Measures::Light).live() && !hub.spectrometer().isEmpty(); }, 30000));
  }
  /// Tells the bench something, and waits until it has answered.
  void command(const QByteArray& lines) {
    QTcpSocket line;
    line.connectToHost("127.0.0.1", window_->instruments().simulator_control_port());
    ASSERT_TRUE(line.waitForConnected(5000));
    line.write(lines);
    ASSERT_TRUE(QTest::qWaitFor([&] { return line.bytesAvailable() > 0; }, 5000));
  }
  void next_live_value() {
    InstrumentHub& hub = window_->instruments();
    const qint64 before = hub.channel(instruments::Measures::Light).last->at_ms;
    int values = 0;
    qint64 seen = before;
    ASSERT_TRUE(QTest::qWaitFor(
        [&] {
          const qint64 now = hub.channel(instruments::Measures::Light).last->at_ms;
          if (now != seen) seen = now, ++values;
          return values >= 2;  // the first may have been asked for before
        },
        10000));
  }
  QString file_of(const QString& name, const QString& text) {
    QFile file(path(name));
    EXPECT_TRUE(file.open(QIODevice::WriteOnly));
    file.write(text.toUtf8());
    return path(name);
  }
};

TEST_F(MetersTest, ALuxFactorIsFoundAsPairsAreTypedAndASweepIsWalkedByIt) {
  const record::Id lux = add_meter("lux", "LX-T");
  const std::pair<int, double> pairs[] = {{3000, 51.3}, {6000, 101.4}, {12000, 204.9}, {24000, 407.5}, {36000, 613.0}};
  QString csv = "lux,ppfd\n";
  double k = 0;
  at_dialog(Qt::Key_U, "luxFactorDialog", [&](QDialog* dialog) {
    choose(dialog, "factorFixture", "Reed Lamp");
    auto* table = dialog->findChild<PairTable*>("luxPairs");
    auto* keep = dialog->findChild<QPushButton*>("keepFactor");
    table->setFocus();
    for (const auto& [lx, ppfd] : pairs) {
      EXPECT_FALSE(keep->isEnabled()) << "a factor of fewer pairs does not hold";
      csv += QString("%1,%2\n").arg(lx).arg(ppfd);
      for (const QString& text : {QString::number(lx), QString::number(ppfd)}) {
        QTest::keyClicks(table, text.left(1));
        const auto editors = table->findChildren<QLineEdit*>();
        ASSERT_FALSE(editors.isEmpty());
        QLineEdit* editor = editors.last();  // those before are closed
        QTest::keyClicks(editor, text.mid(1));
        QTest::keyClick(editor, Qt::Key_Return);
        QApplication::processEvents();
      }
    }
    const auto told = cli_json({"lux-factor", "--json", file_of("pairs.csv", csv)});
    k = told["k"].number();
    EXPECT_TRUE(dialog->findChild<QLabel*>("luxTold")->text().startsWith(
        QString("k = %1 ± %2").arg(k, 0, 'f', 5).arg(told["k_expanded_k2"].number(), 0, 'f', 5)))
        << dialog->findChild<QLabel*>("luxTold")->text().toStdString();
    ASSERT_TRUE(keep->isEnabled());
    QTest::keyClick(keep, Qt::Key_Space);
  });
  const auto factors = desk().book().all<record::FittedLuxFactor>("WHERE meter_id = ?", lux);
  ASSERT_EQ(factors.size(), 1u);
  EXPECT_DOUBLE_EQ(factors[0].k, k);
  EXPECT_EQ(factors[0].fixture, "Reed Lamp");

  record::Id walked = 0;
  desk().book().edit("test by lux", [&](book::Edit& e) {
    record::Test test = *desk().book().find<record::Test>(test_id_);
    test.id = 0, test.name = "by lux", test.sensor_id = lux;
    test.columns = test.rows = 2, test.opening_probe = false;
    walked = e.add(test);
    e.add(record::Rung{0, walked, 0.5});
    e.add(record::Stop{0, walked, 100});
  });
  open_test(walked, Stage::Walk);
  type("20000");
  key(Qt::Key_Return);
  EXPECT_TRUE(desk().test()->readings.empty()) << "lux without a factor is no PPFD";
  take_pasted("20000\t19000\n18000\t17000\n");
  EXPECT_TRUE(desk().test()->readings.empty()) << "nor is a table of it";
  window_->open_test(walked, Stage::Rig);
  unfold_all();
  auto* box = find<QComboBox>("luxFactor");
  ASSERT_EQ(box->count(), 2);
  box->setFocus();
  key(Qt::Key_Down);
  ASSERT_TRUE(desk().test()->test.lux_factor_id);
  open_test(walked, Stage::Walk);
  find<QLineEdit>("walkValue")->clear();
  find<QLineEdit>("walkValue")->setFocus();
  for (const char* value : {"20000", "18000", "19000", "17500"}) {
    type(value);
    key(Qt::Key_Return);
  }
  ASSERT_EQ(desk().test()->readings.size(), 4u);
  EXPECT_NEAR(desk().view()->ppfd[static_cast<std::size_t>(desk().test()->readings[0].station)], 20000 * k, 1e-9);
  EXPECT_TRUE(desk().test()->sweeps[0].lux_fitted_here);
  window_->show_stage(Stage::Read);
  take_pasted("20000\t18000\n19000\t17500\n");
  EXPECT_EQ(desk().test()->readings.size(), 8u) << "a table of lux is taken as lux";
  EXPECT_DOUBLE_EQ(*desk().test()->sweeps[0].lux_k, k);
  const auto read = cli_json({"read", QString::fromStdString(book_file()), "--test", "by lux", "--json"});
  EXPECT_NEAR(read["sweeps"][0]["figures"]["mean_ppfd"].number(), 18625 * k, 1e-6);
}

/// What is connected tells PPFD: beside typed lux it would make a dimming curve of two units.
TEST_F(MetersTest, AStairOfALuxMeterIsTypedThoughASensorIsConnected) {
  const record::Id lux = add_meter("lux", "LX-T");
  record::Id walked = 0;
  desk().book().edit("test by lux", [&](book::Edit& e) {
    record::Test test = *desk().book().find<record::Test>(test_id_);
    test.id = 0, test.name = "by lux", test.sensor_id = lux;
    walked = e.add(test);
    e.add(record::Rung{0, walked, 0.5});
    e.add(record::Stop{0, walked, 100});
  });
  open_test(walked, Stage::WarmUp);
  start_bench();
  StairRun run(desk(), window_->instruments(), window_.get());
  run.show();
  QApplication::setActiveWindow(&run);
  const auto enter = [&](const char* field, const QString& text) {
    put(&run, field, text);
    QTest::keyClick(&run, Qt::Key_Return);
  };
  enter("stairStops", "100, 50");
  for (const auto& [watts, light] : {std::pair{"320", "61500"}, {"168", "33825"}}) {
    QTest::keyClick(&run, Qt::Key_Return);
    enter("stairWatts", watts);
    EXPECT_TRUE(run.findChild<QLabel*>("stairDoing")->text().startsWith("Type the light"));
    next_live_value();
    enter("stairLight", light);
    EXPECT_TRUE(run.findChild<QLabel*>("stairProblem")->text().isEmpty());
  }
  ASSERT_EQ(desk().test()->stair_readings.size(), 2u);
  for (const record::StairReading& r : desk().test()->stair_readings) EXPECT_EQ(r.source, "typed");
  EXPECT_NEAR(*evaluation::stair_of(*desk().test()).value().rows[1].light_factor, 0.55, 1e-9);
}

TEST_F(MetersTest, TwoSensorsAreComparedOnTheSimulatedBench) {
  add_meter("quantum", "QS-B");
  start_bench();
  command("SIM:TILC 0\n");
  QString csv = "first,second\n";
  at_dialog(Qt::Key_T, "agreementDialog", [&](QDialog* dialog) {
    choose(dialog, "firstSensor", "QS-T");
    choose(dialog, "secondSensor", "QS-B");
    auto* table = dialog->findChild<PairTable*>("sensorPairs");
    for (int column = 0; column < 2; ++column)
      EXPECT_GE(table->columnWidth(column), table->horizontalHeader()->sectionSizeHint(column)) << "a head is cut";
    for (const int dimmer : {30, 45, 60, 75, 90, 100}) {
      command("SIM:DIM " + QByteArray::number(dimmer) + "\n");
      command("SIM:SENS -0.012,0.04\n");
      next_live_value();
      QTest::keyClick(dialog, Qt::Key_F5);
      command("SIM:SENS -0.05,0.04\n");  // the other head
      next_live_value();
      QTest::keyClick(dialog, Qt::Key_F6);
    }
    ASSERT_EQ(table->pairs().size(), 6u);
    const auto so_far = desk().book().all<record::SensorComparison>();
    ASSERT_EQ(so_far.size(), 1u) << "kept as they come";
    EXPECT_EQ(record::pairs_of(so_far[0]), table->pairs());
    EXPECT_TRUE(dialog->findChild<QPushButton*>("dropComparison")->isEnabled());
    for (const auto& [first, second] : table->pairs())
      csv += QString("%1,%2\n").arg(first, 0, 'f', 1).arg(second, 0, 'f', 1);
    const auto told = cli_json({"agree", "--json", "--trusted-pct", "2.2", file_of("two.csv", csv)});
    EXPECT_NEAR(told["ratio"].number(), 0.95 / 0.988, 0.01);
    EXPECT_TRUE(dialog->findChild<QLabel*>("agreementFigures")
                    ->text()
                    .startsWith(QString("Ratio %1 (%2 to %3)")
                                    .arg(told["ratio"].number(), 0, 'f', 4)
                                    .arg(told["ratio_interval"][0].number(), 0, 'f', 4)
                                    .arg(told["ratio_interval"][1].number(), 0, 'f', 4)))
        << dialog->findChild<QLabel*>("agreementFigures")->text().toStdString();
    auto* carry = dialog->findChild<QPushButton*>("carryCalibration");
    ASSERT_TRUE(carry->isEnabled());
    QTest::keyClick(carry, Qt::Key_Space);
    const auto meters = desk().book().all<record::Meter>("WHERE name = 'QS-B'");
    EXPECT_NEAR(meters[0].factor, 1 / told["ratio"].number(), 1e-9);
    EXPECT_GT(*meters[0].uncertainty_pct, 2.2);
  });
  desk().edits().undo();
  EXPECT_DOUBLE_EQ(desk().book().all<record::Meter>("WHERE name = 'QS-B'")[0].factor, 1) << "taken back";

  // The pairs were kept; they are opened again, go on, and are dropped.
  ASSERT_EQ(desk().book().all<record::SensorComparison>().size(), 1u);
  at_dialog(Qt::Key_T, "agreementDialog", [&](QDialog* dialog) {
    auto* kept = dialog->findChild<QComboBox*>("keptComparison");
    auto* table = dialog->findChild<PairTable*>("sensorPairs");
    ASSERT_EQ(kept->count(), 2);
    EXPECT_TRUE(kept->itemText(1).endsWith("QS-T and QS-B · 6 pairs")) << kept->itemText(1).toStdString();
    EXPECT_EQ(table->pairs().size(), 0u);
    kept->setFocus();
    QTest::keyClick(kept, Qt::Key_Down);
    EXPECT_EQ(dialog->findChild<QComboBox*>("secondSensor")->currentText(), "QS-B");
    ASSERT_EQ(table->pairs().size(), 6u);
    EXPECT_TRUE(dialog->findChild<QLabel*>("agreementFigures")->text().startsWith("Ratio "));
    table->append({{500, 480}});
    dialog->reject();
  });
  const auto with_more = desk().book().all<record::SensorComparison>();
  ASSERT_EQ(with_more.size(), 1u) << "the same one";
  EXPECT_EQ(record::pairs_of(with_more[0])->size(), 7u);
  at_dialog(Qt::Key_T, "agreementDialog", [&](QDialog* dialog) {
    auto* kept = dialog->findChild<QComboBox*>("keptComparison");
    kept->setFocus();
    QTest::keyClick(kept, Qt::Key_Down);
    QTest::keyClick(dialog->findChild<QPushButton*>("dropComparison"), Qt::Key_Space);
    EXPECT_EQ(kept->count(), 1);
    EXPECT_EQ(dialog->findChild<PairTable*>("sensorPairs")->pairs().size(), 0u);
  });
  EXPECT_TRUE(desk().book().all<record::SensorComparison>().empty());
  desk().edits().undo();
  EXPECT_EQ(desk().book().all<record::SensorComparison>(), with_more);
}

TEST_F(MetersTest, TwoSweepsOfTheSameStationsAreComparedWithTheMapOfTheirRatio) {
  const record::Id other = add_meter("quantum", "QS-B");
  desk().book().edit("again by the other", [&](book::Edit& e) {
    record::Test test = *desk().book().find<record::Test>(test_id_);
    test.id = 0, test.name = "by QS-B", test.sensor_id = other;
    record::Sweep sweep;
    sweep.test_id = e.add(test);
    sweep.rung_id = e.add(record::Rung{0, sweep.test_id, 0.6});
    sweep.stop_id = e.add(record::Stop{0, sweep.test_id, 100});
    sweep.id = e.add(sweep);
    const Layout layout = lay_out({1.2, 1.2}, record::grid_of(sweep)).value();
    for (int i = 0; i < 144; ++i) {
      const Station& s = layout.stations[static_cast<std::size_t>(i)];
      const double edge = std::max(std::fabs(s.x_m - 0.6), std::fabs(s.y_m - 0.6)) / 0.55;
      e.accept({0, sweep.id, i, light(s, 0.6, 0) * (0.97 - 0.06 * edge), "typed", ""});
    }
  });
  at_dialog(Qt::Key_T, "agreementDialog", [&](QDialog* dialog) {
    auto* first = dialog->findChild<QComboBox*>("firstSweep");
    auto* second = dialog->findChild<QComboBox*>("secondSweep");
    ASSERT_EQ(first->count(), 6) << "five sweeps, or none";
    choose(dialog, "firstSensor", "QS-B");
    choose(dialog, "secondSensor", "QS-T");
    auto* table = dialog->findChild<PairTable*>("sensorPairs");
    table->append({{500, 480}, {600, 575}});
    first->setCurrentIndex(1);
    second->setCurrentIndex(1);
    EXPECT_TRUE(dialog->findChild<QLabel*>("agreementTold")->text().startsWith("Both are the same sweep"));
    second->setCurrentIndex(2);
    EXPECT_TRUE(dialog->findChild<QLabel*>("agreementTold")->text().contains("height or dimmer setting"))
        << "one setting against another is no matter of sensors";
    second->setCurrentIndex(5);
    EXPECT_EQ(dialog->findChild<QComboBox*>("secondSensor")->currentText(), "QS-B") << "who walked it";
    EXPECT_TRUE(dialog->findChild<QLabel*>("agreementTold")->text().contains("light from the side"))
        << dialog->findChild<QLabel*>("agreementTold")->text().toStdString();
    EXPECT_TRUE(dialog->findChild<QLabel*>("agreementFigures")->text().contains("edge over middle"));
    EXPECT_FALSE(dialog->findChild<QPushButton*>("carryCalibration")->isEnabled()) << "no one factor mends it";
    EXPECT_EQ(table->pairs().size(), 0u) << "they were of other sensors";
  });
  const auto kept = desk().book().all<record::SensorComparison>();
  ASSERT_EQ(kept.size(), 1u);
  EXPECT_EQ(record::pairs_of(kept[0]), (record::SensorPairs{{500, 480}, {600, 575}}));
  EXPECT_EQ(kept[0].first_meter_id, other) << "as the sensors stood when they were typed";
}

TEST_F(MetersTest, LuxAndPpfdAreNoPairOfSensors) {
  add_meter("lux", "LX-T");
  at_dialog(Qt::Key_T, "agreementDialog", [&](QDialog* dialog) {
    choose(dialog, "firstSensor", "QS-T");
    choose(dialog, "secondSensor", "LX-T");
    auto* table = dialog->findChild<PairTable*>("sensorPairs");
    table->append({{300, 17000}, {400, 23000}, {500, 29000}, {600, 35000}, {700, 41000}});
    EXPECT_TRUE(dialog->findChild<QLabel*>("agreementTold")->text().startsWith("One of the two tells lux"));
    EXPECT_FALSE(dialog->findChild<QPushButton*>("carryCalibration")->isEnabled());
  });
}

TEST_F(MetersTest, TwoLuxMetersAreComparedInLux) {
  add_meter("lux", "pocket lux meter");
  add_meter("lux", "borrowed lux meter");
  at_dialog(Qt::Key_T, "agreementDialog", [&](QDialog* dialog) {
    const auto* table = dialog->findChild<PairTable*>("sensorPairs");
    const auto head = [&](int column) { return table->horizontalHeaderItem(column)->text(); };
    choose(dialog, "firstSensor", "QS-T");
    choose(dialog, "secondSensor", "borrowed lux meter");
    EXPECT_EQ(head(0), "first, µmol/m²/s");
    EXPECT_EQ(head(1), "second, lx");
    choose(dialog, "firstSensor", "pocket lux meter");
    EXPECT_EQ(head(0), "first, lx");
    QTest::keyClick(dialog, Qt::Key_F5);
    EXPECT_TRUE(dialog->findChild<QLabel*>("agreementProblem")->text().contains("type what it shows"));
  });
}

TEST_F(MetersTest, TheCheckLampAlarmsAndItsTestsAreCorrectedWhereThatIsWanted) {
  const double now_s = record::seconds_of(desk().clock().utc_text());
  const record::Id sensor = *desk().book().find<record::Test>(test_id_)->sensor_id,
                   other = add_meter("quantum", "QS-B");
  const auto level = [](record::Id meter, int day) {
    return 1 + 0.002 * std::sin(7.3 * day + 2.9 * static_cast<double>(meter));
  };
  desk().book().edit("history", [&](book::Edit& e) {
    record::Test test = *desk().book().find<record::Test>(test_id_);
    test.tested_on = record::utc_text(now_s + a_day_s).substr(0, 10);
    e.save(test);
    for (int day = 0; day < 30; ++day)
      for (const record::Id meter : {sensor, other}) {
        record::CheckLampReading row;
        row.meter_id = meter;
        row.lamp = "lamp A";
        row.taken_at = record::utc_text(now_s - (30 - day) * a_day_s + static_cast<double>(meter));
        const double l = level(meter, day) * (meter == sensor && day >= 26 ? 0.98 : 1);
        row.light = record::text_of_numbers({300 * l, 250 * l, 251 * l});
        e.add(row);
      }
  });
  at_dialog(Qt::Key_K, "checkLampDialog", [&](QDialog* dialog) {
    // Today's reading of both, a fiftieth low by QS-T again.
    for (const auto& [name, share] : {std::pair{"QS-T", 0.98}, {"QS-B", 1.0}}) {
      choose(dialog, "lampMeter", name);
      put(dialog, "lampCenter", QString::number(300 * share));
      put(dialog, "lampLeft", QString::number(250 * share));
      put(dialog, "lampRight", QString::number(251 * share));
      QTest::keyClick(dialog->findChild<QPushButton*>("keepLamp"), Qt::Key_Space);
    }
    put(dialog, "lampCenter", "0");
    QTest::keyClick(dialog->findChild<QPushButton*>("keepLamp"), Qt::Key_Space);
    EXPECT_TRUE(dialog->findChild<QLabel*>("lampProblem")->text().startsWith("'0' is no light"));
    EXPECT_EQ(desk().book().all<record::CheckLampReading>("").size(), 62u);
    auto* charts = dialog->findChild<QListWidget*>("lampCharts");
    ASSERT_EQ(charts->count(), 2);
    charts->setCurrentRow(charts->item(0)->text().contains("QS-T") ? 0 : 1);
    EXPECT_TRUE(charts->currentItem()->text().startsWith("◣"));
    const auto told = cli_json({"check-lamp", "--json", QString::fromStdString(book_file())});
    ASSERT_EQ(told["findings"].size(), 1u);
    EXPECT_EQ(told["findings"][0]["moved"], "sensor");
    EXPECT_EQ(dialog->findChild<QLabel*>("lampTold")->text().toStdString(), told["findings"][0]["words"]);
    auto* correct = dialog->findChild<QPushButton*>("correctTests");
    ASSERT_TRUE(correct->isEnabled());
    QTest::keyClick(correct, Qt::Key_Space);
    for (const auto& sweep : desk().book().all<record::Sweep>("WHERE test_id = ?", test_id_))
      EXPECT_NEAR(sweep.moved_factor, told["findings"][0]["correction"].number(), 1e-12);
    EXPECT_FALSE(correct->isEnabled()) << "once is enough";
  });
  desk().edits().undo();
  for (const auto& sweep : desk().book().all<record::Sweep>("WHERE test_id = ?", test_id_))
    EXPECT_EQ(sweep.moved_factor, 1) << "offered, and taken back";
  open_test(test_id_, Stage::Read);
  const auto all = desk().worked_out().all_findings();
  EXPECT_TRUE(std::ranges::any_of(all, [](const auto& f) { return f.check.id == "sensor moved"; }));
}

TEST_F(MetersTest, ASpectrumIsReadFromTheStandInAndTheSensorCorrectedByIt) {
  start_bench();
  key(Qt::Key_9);
  key(Qt::Key_L);
  ASSERT_TRUE(QTest::qWaitFor([&] { return desk().test()->spectra.size() == 1; }, 20000));
  const record::MeasuredSpectrum row = desk().test()->spectra[0];
  EXPECT_EQ(row.source, "simulated");
  EXPECT_EQ(row.percent, 100);
  const Spectrum light = record::spectrum_of(row).value();
  EXPECT_EQ(light.values.size(), 201u);
  QString csv = "nm,W/m2/nm\n";
  for (std::size_t i = 0; i < light.values.size(); ++i)
    csv += QString("%1,%2\n").arg(light.wavelengths_nm[i]).arg(light.values[i], 0, 'g', 12);
  const auto told = cli_json({"spectrum", "--json", "--band", "640-680", file_of("live.csv", csv)});
  EXPECT_EQ(find<QLabel>("spectrum_red")->text(),
            QString::number(100 * told["photon_share"]["red"].number(), 'f', 1) + " %");
  EXPECT_TRUE(
      find<QLabel>("spectrum_cct_k")->text().startsWith(QString::number(std::lround(told["cct_k"].number())) + " K"));
  fill("ownBand", "640-680");
  EXPECT_TRUE(find<QLabel>("ownShare")
                  ->text()
                  .startsWith(QString::number(100 * told["own_bands"][0]["share"].number(), 'f', 1) + " %"));
  EXPECT_EQ(cli_json({"read", QString::fromStdString(book_file()), "--test", "Reed Lamp",
                      "--json"})["spectra"][0]["figures"]["ra"]
                .number(),
            told["ra"].number());
  // A second one, mixed with the first.
  find<QListWidget>("spectra")->setFocus();
  key(Qt::Key_L);
  ASSERT_TRUE(QTest::qWaitFor([&] { return desk().test()->spectra.size() == 2; }, 20000));
  // The sensor's response makes a factor of it.
  auto sensor = *desk().book().find<record::Meter>(*desk().test()->test.sensor_id);
  record::put_response(sensor, {{380, 400, 700, 750, 770}, {0, 1, 0.9, 0.9, 0}});
  record::put_reference_light(sensor, Spectrum{{380, 780}, {1, 1}, SpectralScale::Photons, false});
  desk().book().edit("response", [&](book::Edit& e) { e.save(sensor); });
  auto* correct = find<QPushButton>("correctBySpectrum");
  ASSERT_TRUE(correct->isVisible());
  const double before = desk().figures()->mean_ppfd;
  correct->setFocus();
  key(Qt::Key_Space);
  const double factor = desk().test()->sweeps[0].spectral_factor;
  EXPECT_GT(std::fabs(factor - 1), 0.001);
  EXPECT_NEAR(desk().figures()->mean_ppfd, factor * before, 1e-6);
  EXPECT_TRUE(desk().test()->test.spectral_uncertainty_pct);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(desk().test()->sweeps[0].spectral_factor, 1);
  EXPECT_FALSE(desk().test()->test.spectral_uncertainty_pct);
  // What the tester stated of the spectrum stays, on and off.
  record::Test stated = desk().test()->test;
  stated.spectral_uncertainty_pct = 1.25;
  desk().book().edit("state", [&](book::Edit& e) { e.save(stated); });
  for (const bool on : {true, false}) {
    correct->setFocus();
    key(Qt::Key_Space);
    EXPECT_EQ(desk().test()->sweeps[0].spectral_factor != 1, on);
    EXPECT_EQ(desk().test()->test.spectral_uncertainty_pct, 1.25);
  }
}

TEST_F(MetersTest, ASpectrometerThatIsNotThereIsSaid) {
  window_->instruments().set_spectrometer("1");
  QString said;
  QObject::connect(&desk(), &Desk::said, &desk(), [&](const QString& words, bool bad) {
    if (bad) said = words;
  });
  key(Qt::Key_9);
  key(Qt::Key_L);
  ASSERT_TRUE(QTest::qWaitFor([&] { return !said.isEmpty(); }, 10000));
  EXPECT_TRUE(said.contains("spectrometer")) << said.toStdString();
  EXPECT_TRUE(desk().test()->spectra.empty());
  EXPECT_FALSE(window_->instruments().set_spectrometer("nowhere near"));
}

}  // namespace
}  // namespace sunbreak::desktop
