#pragma once

#include <QLabel>
#include <QProcess>
#include <cmath>

#include "desktop/read/figure_row.h"
#include "desktop/read/read_view.h"
#include "desktop/read/targets_page.h"
#include "desktop/window_fixture.h"
#include "exchange/files/new_file.h"
#include "exchange/package/data_package.h"
#include "record/json.h"

namespace sunbreak::desktop {

/// A test of two heights and two dimmer settings on 12 × 12 stations, all read, opened on Read.
class ReadTest : public WindowTest {
 protected:
  void SetUp() override {
    WindowTest::SetUp();
    desk().book().edit("test to read", [&](book::Edit& e) {
      record::Fixture fixture;
      fixture.name = "Reed Lamp";
      record::Bench bench;
      bench.wall_left = bench.wall_right = bench.wall_front = bench.wall_back = "reflective";
      record::Meter sensor;
      sensor.name = "QS-T";
      sensor.calibrated_on = "2026-01-10";
      sensor.uncertainty_pct = 2.2;
      sensor.receiving_height_m = 0.03;
      record::Test test;
      test.fixture_id = e.add(fixture);
      test.bench_id = e.add(bench);
      test.sensor_id = e.add(sensor);
      test.name = "Reed Lamp";
      test.tested_on = "2026-06-01";
      test.datum = "diodes";
      test.door = "closed";
      test.checked_level = test.checked_center = "yes";
      test.id = test_id_ = e.add(test);
      const record::Id stops[] = {e.add(record::Stop{0, test_id_, 100}), e.add(record::Stop{0, test_id_, 60})};
      const double heights[] = {0.6, 0.4};
      for (const double height : heights) {
        const record::Id rung = e.add(record::Rung{0, test_id_, height});
        for (int s = 0; s < 2; ++s) {
          record::Sweep sweep;
          sweep.test_id = test_id_;
          sweep.rung_id = rung;
          sweep.stop_id = stops[s];
          sweep.power_w = s == 0 ? 300 : 185;
          sweep.id = e.add(sweep);
          const Layout layout = lay_out({1.2, 1.2}, record::grid_of(sweep)).value();
          for (int i = 0; i < 144; ++i) e.accept({0, sweep.id, i, light(layout.stations[i], height, s), "typed", ""});
        }
      }
    });
    window_->open_test(test_id_, Stage::Read);
    desk().choose(desk().test()->rungs[1].id, desk().test()->stops[0].id);
    settle();
  }

  static double light(const Station& s, double height, int stop) {
    const double r2 = std::pow(s.x_m - 0.61, 2) + std::pow(s.y_m - 0.6, 2);
    const double wobble = 1 + 0.004 * std::sin(37.0 * s.column + 53.0 * s.row);
    return std::round(10 * (stop == 0 ? 1 : 0.62) * wobble * 1100 * std::exp(-r2 / 0.55) * (1.2 - 0.9 * height)) / 10;
  }

  /// Lets the budget arrive from its thread.
  void settle() {
    EXPECT_TRUE(QTest::qWaitFor([&] { return desk().worked_out().budget() != nullptr; }, 60000));
    QApplication::processEvents();
  }
  /// The page of targets, once its table is filled.
  QTableWidget* targets_table() {
    auto* page = window_->findChild<TargetsPage*>();
    bool filled = false;
    const auto connection = QObject::connect(page, &TargetsPage::filled, page, [&] { filled = true; });
    key(Qt::Key_3);
    EXPECT_TRUE(QTest::qWaitFor([&] { return filled; }, 60000));
    QObject::disconnect(connection);
    return find<QTableWidget>("targetFits");
  }
  ReadView& read() { return *window_->findChild<ReadView*>(); }
  QString value(const char* id) { return window_->findChild<FigureRow*>(id)->value(); }
  QString uncertainty(const char* id) {
    return window_->findChild<FigureRow*>(id)->findChild<QLabel*>("uncertainty")->text();
  }
  QString words(const char* name) { return window_->findChild<QLabel*>(name)->text(); }

  /// What the command line says of the chosen sweep, from the published package.
  record::Json from_the_command_line(const QStringList& more = {}) {
    const QString package = path("published.zip");
    exchange::write_new_file(package.toStdString(), exchange::zip_bytes(exchange::make_package(*desk().test())),
                             exchange::Existing::Replace);
    QProcess cli;
    cli.start(SUNBREAK_CLI, QStringList{"read", package, "--json"} + more);
    EXPECT_TRUE(cli.waitForFinished(60000));
    EXPECT_EQ(cli.exitCode(), 0) << cli.readAllStandardError().toStdString();
    const auto all = record::json_of(cli.readAllStandardOutput().toStdString());
    for (const auto& sweep : all["sweeps"])
      if (std::abs(sweep["height_m"].number() - desk().rung()->height_m) < 1e-9 &&
          std::abs(sweep["dimmer_pct"].number() - desk().stop()->percent) < 1e-9)
        return sweep;
    ADD_FAILURE() << "the command line does not know this sweep";
    return {};
  }

  record::Id test_id_ = 0;
};

}  // namespace sunbreak::desktop
