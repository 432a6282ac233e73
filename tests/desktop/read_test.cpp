#include <QClipboard>
#include <QComboBox>
#include <QFile>
#include <QImage>
#include <QLabel>
#include <QPainter>
#include <QProcess>
#include <QPushButton>
#include <QSlider>
#include <QSvgRenderer>
#include <QTableWidget>
#include <QTimer>
#include <cmath>
#include <nlohmann/json.hpp>

#include "book/package/data_package.h"
#include "desktop/paint/contour_lines.h"
#include "desktop/paint/field_image.h"
#include "desktop/paint/map_painter.h"
#include "desktop/read/cut_chart.h"
#include "desktop/read/field_map.h"
#include "desktop/read/figure_row.h"
#include "desktop/read/figures_column.h"
#include "desktop/read/judge.h"
#include "desktop/read/read_view.h"
#include "desktop/read/save_picture.h"
#include "desktop/read/shown_values.h"
#include "desktop/read/target_sets_dialog.h"
#include "desktop/theme/theme.h"
#include "desktop/window_fixture.h"

namespace sunbreak::desktop {
namespace {

using nlohmann::json;

/// A test of two heights and two dimmer settings on 12 × 12 stations, all read, opened on Read.
class ReadTest : public WindowTest {
 protected:
  void SetUp() override {
    WindowTest::SetUp();
    desk().book().edit("test to read", [&](book::Edit& e) {
      book::Fixture fixture;
      fixture.name = "Reed Lamp";
      book::Bench bench;
      bench.wall_left = bench.wall_right = bench.wall_front = bench.wall_back = "reflective";
      book::Meter sensor;
      sensor.name = "QS-T";
      sensor.calibrated_on = "2026-01-10";
      sensor.uncertainty_pct = 2.2;
      sensor.receiving_height_m = 0.03;
      book::Test test;
      test.fixture_id = e.add(fixture);
      test.bench_id = e.add(bench);
      test.sensor_id = e.add(sensor);
      test.name = "Reed Lamp";
      test.tested_on = "2026-06-01";
      test.datum = "diodes";
      test.door = "closed";
      test.checked_level = test.checked_center = "yes";
      test.id = test_id_ = e.add(test);
      const book::Id stops[] = {e.add(book::Stop{0, test_id_, 100}), e.add(book::Stop{0, test_id_, 60})};
      const double heights[] = {0.6, 0.4};
      for (const double height : heights) {
        const book::Id rung = e.add(book::Rung{0, test_id_, height});
        for (int s = 0; s < 2; ++s) {
          book::Sweep sweep;
          sweep.test_id = test_id_;
          sweep.rung_id = rung;
          sweep.stop_id = stops[s];
          sweep.power_w = s == 0 ? 300 : 185;
          sweep.id = e.add(sweep);
          const Layout layout = lay_out({1.2, 1.2}, book::grid_of(sweep)).value();
          for (int i = 0; i < 144; ++i) e.accept({0, sweep.id, i, light(layout.stations[i], height, s), "typed", ""});
        }
      }
    });
    window_->open_test(test_id_, static_cast<int>(Stage::Read));
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
    auto* judge = window_->findChild<Judge*>();
    EXPECT_TRUE(QTest::qWaitFor([&] { return judge->budget() != nullptr; }, 10000));
    QApplication::processEvents();
  }
  ReadView& read() { return *window_->findChild<ReadView*>(); }
  QString value(const char* id) { return window_->findChild<FigureRow*>(id)->value(); }
  QString uncertainty(const char* id) {
    return window_->findChild<FigureRow*>(id)->findChild<QLabel*>("uncertainty")->text();
  }
  QString words(const char* name) { return window_->findChild<QLabel*>(name)->text(); }

  /// What the command line says of the chosen sweep, from the published package.
  json from_the_command_line(const QStringList& more = {}) {
    const QString package = path("published.zip");
    book::write_zip(package.toStdString(), book::make_package(*desk().test()));
    QProcess cli;
    cli.start(SUNBREAK_CLI, QStringList{"read", package, "--json"} + more);
    EXPECT_TRUE(cli.waitForFinished(60000));
    EXPECT_EQ(cli.exitCode(), 0) << cli.readAllStandardError().toStdString();
    const json all = json::parse(cli.readAllStandardOutput().toStdString());
    for (const json& sweep : all["sweeps"])
      if (std::abs(sweep["height_m"].get<double>() - desk().rung()->height_m) < 1e-9 &&
          std::abs(sweep["dimmer_pct"].get<double>() - desk().stop()->percent) < 1e-9)
        return sweep;
    ADD_FAILURE() << "the command line does not know this sweep";
    return {};
  }

  book::Id test_id_ = 0;
};

}  // namespace

/// Chooses a sweep, switches the quantity, draws a cut, changes the target and reads the verdict, with keys alone; what
/// the screen says is what the command line says.
TEST_F(ReadTest, ByKeysAloneTheScreenSaysWhatTheCommandLineSays) {
  key(Qt::Key_PageUp);
  key(Qt::Key_BracketRight);
  EXPECT_DOUBLE_EQ(desk().rung()->height_m, 0.6);
  EXPECT_DOUBLE_EQ(desk().stop()->percent, 60);
  key(Qt::Key_PageDown);
  key(Qt::Key_BracketLeft);
  settle();
  EXPECT_DOUBLE_EQ(desk().rung()->height_m, 0.4);

  key(Qt::Key_Q);
  EXPECT_EQ(read().settings().quantity, Quantity::DailyLight);
  key(Qt::Key_Q, Qt::ShiftModifier);
  EXPECT_EQ(read().settings().quantity, Quantity::Ppfd);

  key(Qt::Key_X);
  ASSERT_TRUE(read().settings().cut);
  auto* chart = find<CutChart>("cutChart");
  EXPECT_TRUE(chart->isVisible());

  // The target: on the page of targets, the cell of "vegetative" at this sweep, taken with Enter.
  key(Qt::Key_3);
  auto* table = find<QTableWidget>("targetFits");
  ASSERT_EQ(QApplication::focusWidget(), table);
  EXPECT_EQ(table->rowCount(), 4);
  EXPECT_EQ(table->columnCount(), 5);
  key(Qt::Key_Left);
  key(Qt::Key_Return);
  settle();
  EXPECT_EQ(desk().test()->test.target_name, "vegetative");
  EXPECT_DOUBLE_EQ(desk().test()->test.target_high_ppfd, 600);
  EXPECT_DOUBLE_EQ(desk().rung()->height_m, 0.4);

  const json told = from_the_command_line({"--cut", "0,60,120,60"});
  const json& f = told["figures"];
  const auto fixed = [](const json& number, int decimals) {
    return QString::number(number.get<double>(), 'f', decimals);
  };
  EXPECT_EQ(value("mean_ppfd"), text_of(ppfd_text(f["mean_ppfd"])));
  EXPECT_EQ(value("canopy_efficacy_umol_j"), fixed(f["canopy_efficacy_umol_j"], 2));
  EXPECT_EQ(value("lowest_over_mean"), fixed(f["lowest_over_mean"], 2));
  EXPECT_EQ(value("coverage"), QString::number(100 * f["coverage"]["in_band_share"].get<double>(), 'f', 0));
  EXPECT_EQ(uncertainty("mean_ppfd"), "± " + fixed(told["uncertainty"]["mean_ppfd"]["expanded_k2"], 0));
  EXPECT_EQ(uncertainty("lowest_over_mean"), "± " + fixed(told["uncertainty"]["lowest_over_mean"]["expanded_k2"], 2));
  EXPECT_TRUE(chart->words().contains("mean " + text_of(ppfd_text(told["cut"]["mean_ppfd"]))))
      << chart->words().toStdString();
  EXPECT_TRUE(chart->words().contains("lowest " + text_of(ppfd_text(told["cut"]["lowest_ppfd"]))));
  const QString grade = text_of(told["evidence"]["grade"].get<std::string>());
  EXPECT_TRUE(words("gradeLine").contains(grade + " grade")) << words("gradeLine").toStdString();

  // The verdict of every target as the command line has it.
  key(Qt::Key_3);
  for (const json& target : told["targets"]) {
    if (target["set"] != "Bands") continue;
    const QString name = text_of(target["name"].get<std::string>());
    for (int c = 0; c < table->columnCount(); ++c) {
      if (!table->horizontalHeaderItem(c)->text().replace('\n', ' ').startsWith(name)) continue;
      EXPECT_TRUE(table->item(2, c)->text().endsWith(
          QString::number(100 * target["in_band_share"].get<double>(), 'f', 0) + " %"))
          << name.toStdString();
    }
  }

  // How sure: the conditions that are missing, and the budget's largest part.
  key(Qt::Key_4);
  QApplication::processEvents();
  EXPECT_TRUE(words("evidenceGrade").contains(grade));
  for (const json& condition : told["evidence"]["conditions"]) {
    const QString way = "way_" + text_of(condition["id"].get<std::string>());
    const auto buttons = window_->findChildren<QPushButton*>(way);
    EXPECT_EQ(std::any_of(buttons.begin(), buttons.end(), [](auto* b) { return b->isVisible(); }),
              !condition["met"].get<bool>())
        << way.toStdString();
  }
  EXPECT_TRUE(words("budgetWords").contains("sensor calibration"));
}

TEST_F(ReadTest, AWayLeadsToTheStageWhereAConditionIsMet) {
  key(Qt::Key_4);
  QApplication::processEvents();
  auto* way = find<QPushButton>("way_settled");
  ASSERT_NE(way, nullptr);
  way->setFocus();
  key(Qt::Key_Space);
  EXPECT_FALSE(read().isVisible()) << "Warm-up is in front";
}

TEST_F(ReadTest, EveryFigureSaysItsFormulaWithThisSweepsNumbers) {
  auto* row = find<FigureRow>("canopy_efficacy_umol_j");
  const QString definition = row->whatsThis();
  EXPECT_TRUE(definition.contains("300.0 W")) << definition.toStdString();
  EXPECT_TRUE(definition.contains("Depends on:"));
  EXPECT_TRUE(definition.contains("the largest part is sensor calibration"));
  row->setFocus();
  EXPECT_EQ(words("definition"), definition);
}

TEST_F(ReadTest, DailyLightIsPpfdTimesThePhotoperiod) {
  const ShownValues ppfd = shown_values(desk(), *desk().view(), {});
  MapSettings daily;
  daily.quantity = Quantity::DailyLight;
  const ShownValues dli = shown_values(desk(), *desk().view(), daily);
  EXPECT_NEAR(dli.values[70], ppfd.values[70] * 3600 * 12 / 1e6, 1e-9);
  EXPECT_NEAR(dli.band->low, ppfd.band->low * 3600 * 12 / 1e6, 1e-9);
  MapSettings share;
  share.quantity = Quantity::PercentOfMean;
  const ShownValues percent = shown_values(desk(), *desk().view(), share);
  EXPECT_NEAR(percent.values[70], 100 * ppfd.values[70] / desk().figures()->mean_ppfd, 1e-9);
}

TEST_F(ReadTest, DifferencesAreFromTheSweepChosenAndOddAboutZero) {
  for (int i = 0; i < 3; ++i) key(Qt::Key_Q);
  ASSERT_EQ(read().settings().quantity, Quantity::Difference);
  const book::Id first = read().settings().other;
  EXPECT_NE(first, desk().sweep()->id);
  const ShownValues shown = shown_values(desk(), *desk().view(), read().settings());
  EXPECT_DOUBLE_EQ(shown.values[5], desk().view()->ppfd[5] - desk().view_of(first)->ppfd[5]);
  EXPECT_DOUBLE_EQ(shown.scale.range.low, -shown.scale.range.high);
  EXPECT_EQ(qcolor(shown.scale.color(0)), theme().ground);
  EXPECT_EQ(qcolor(shown.scale.color(shown.scale.range.high)), theme().ember);
  EXPECT_EQ(qcolor(shown.scale.color(shown.scale.range.low)), theme().lake);
  key(Qt::Key_D);
  EXPECT_NE(read().settings().other, first);
  EXPECT_EQ(find<QComboBox>("otherSweep")->currentData().toLongLong(), read().settings().other);
}

TEST_F(ReadTest, OneScaleServesAllSweepsUnlessFreed) {
  const auto shown = [&] { return shown_values(desk(), *desk().view(), read().settings()).scale.range; };
  const auto bright = shown();
  desk().choose(desk().test()->rungs[0].id, desk().test()->stops[1].id);
  EXPECT_EQ(shown(), bright);
  key(Qt::Key_S);
  EXPECT_LT(shown().high, bright.high);
}

TEST_F(ReadTest, ArrowsReadOutStationsAndMoveACut) {
  key(Qt::Key_Right);
  const int first = read().settings().pointed;
  ASSERT_GE(first, 0);
  EXPECT_TRUE(words("readout").contains("raw")) << words("readout").toStdString();
  key(Qt::Key_Right);
  key(Qt::Key_Up);
  EXPECT_EQ(read().settings().pointed, first + 1 + 12);
  const Station& s = desk().view()->layout.stations[first + 13];
  EXPECT_TRUE(words("readout").contains(text_of(short_number(100 * s.x_m, 1))));

  key(Qt::Key_X);
  const auto before = *read().settings().cut;
  key(Qt::Key_Up);
  EXPECT_NEAR(read().settings().cut->first.y_m, before.first.y_m + 0.1, 1e-9);
  key(Qt::Key_Down, Qt::ShiftModifier);
  EXPECT_NEAR(read().settings().cut->first.y_m, before.first.y_m + 0.09, 1e-9);
  for (int i = 0; i < 20; ++i) key(Qt::Key_Up);
  EXPECT_NEAR(read().settings().cut->first.y_m, 1.2, 1e-9) << "held at the wall";
  for (int i = 0; i < 4; ++i) key(Qt::Key_X);
  EXPECT_FALSE(read().settings().cut);
  key(Qt::Key_X);
  key(Qt::Key_R);
  const auto& [from, to] = *read().settings().cut;
  EXPECT_NEAR(std::atan2(to.y_m - from.y_m, to.x_m - from.x_m) * 180 / M_PI, 15, 1e-6);
}

TEST_F(ReadTest, ZoomKeepsThePlaceUnderThePointerAndTheFloorInTheFrame) {
  const MapFit whole = fit_map(QRectF(0, 0, 500, 560), {1.2, 1.2}, true);
  const MapFit near = zoomed(whole, 4, {0.1, 1.15});
  EXPECT_EQ(near.frame, whole.frame);
  EXPECT_NEAR(near.floor.left(), whole.frame.left(), 1e-9) << "held at the left wall";
  EXPECT_NEAR(near.floor.top(), whole.frame.top(), 1e-9);
  EXPECT_NEAR(near.scale, 4 * whole.scale, 1e-9);
  EXPECT_EQ(zoomed(whole, 1, {0, 0}).floor, whole.floor);
  auto* map = find<FieldMap>("fieldMap");
  map->zoom_by(2, QPointF(0.3, 0.9));
  EXPECT_DOUBLE_EQ(read().settings().zoom, 2);
  EXPECT_NEAR(read().settings().middle_m.x(), 0.3 + (0.6 - 0.3) / 2, 1e-9);
  key(Qt::Key_Right, Qt::ControlModifier);
  EXPECT_NEAR(read().settings().middle_m.x(), 0.55, 1e-6);
  key(Qt::Key_0);
  EXPECT_DOUBLE_EQ(read().settings().zoom, 1);
}

TEST_F(ReadTest, ALineDrawnWithShiftAndTheMouseCutsTheField) {
  auto* map = find<FieldMap>("fieldMap");
  const MapFit fit = fit_map(map->rect(), {1.2, 1.2}, true);
  const QPoint a = fit.pixel(0.2, 0.2).toPoint(), b = fit.pixel(1.0, 0.9).toPoint();
  QTest::mousePress(map, Qt::LeftButton, Qt::ShiftModifier, a);
  QTest::mouseMove(map, b);
  QTest::mouseRelease(map, Qt::LeftButton, Qt::ShiftModifier, b);
  ASSERT_TRUE(read().settings().cut);
  EXPECT_NEAR(read().settings().cut->second.x_m, 1.0, 0.01);
  EXPECT_NEAR(read().settings().cut->second.y_m, 0.9, 0.01);
}

TEST_F(ReadTest, AllSweepsOnOnePageAreChosenByArrows) {
  key(Qt::Key_2);
  EXPECT_EQ(QApplication::focusWidget()->objectName(), "allSweeps");
  key(Qt::Key_Up);
  key(Qt::Key_Right);
  EXPECT_DOUBLE_EQ(desk().rung()->height_m, 0.6);
  EXPECT_DOUBLE_EQ(desk().stop()->percent, 60);
  key(Qt::Key_Return);
  EXPECT_TRUE(find<FieldMap>("fieldMap")->isVisible());
}

TEST_F(ReadTest, ThePhotoperiodSliderMovesBandsOfDailyLight) {
  key(Qt::Key_3);
  find<QComboBox>("targetSet")->setCurrentText("Daily light");
  auto* table = find<QTableWidget>("targetFits");
  const QString before = table->horizontalHeaderItem(2)->text();
  EXPECT_TRUE(before.contains("278–540")) << before.toStdString();  // 18 to 35 mol over 18 h
  find<QSlider>("photoperiodSlider")->setValue(20);                 // 10 h
  EXPECT_TRUE(table->horizontalHeaderItem(2)->text().contains("500–972"))
      << table->horizontalHeaderItem(2)->text().toStdString();
}

TEST_F(ReadTest, ATestsBandOfDailyLightMovesWithItsPhotoperiod) {
  book::Test test = desk().test()->test;
  for (const book::CropTarget& t : book::crop_targets(desk().book()))
    if (t.by_daily_light && t.name == "vegetative") book::set_target(test, t);
  desk().edit("target", [&](book::Edit& e) { e.save(test); });
  EXPECT_NEAR(desk().test()->test.target_low_ppfd, 18e6 / (3600 * 18), 1e-6);
  fill("photoperiod", "12");
  EXPECT_NEAR(desk().test()->test.target_low_ppfd, 18e6 / (3600 * 12), 1e-6);
  EXPECT_TRUE(book::target_of(book::crop_targets(desk().book()), desk().test()->test));
}

TEST_F(ReadTest, TargetListsAreEditedRefusedAndRestored) {
  TargetSetsDialog dialog(desk(), "Gentle", window_.get());
  dialog.show();
  auto* list = dialog.findChild<QTableWidget*>("targetList");
  ASSERT_EQ(list->rowCount(), 4);
  list->item(0, 2)->setText("120");
  EXPECT_EQ(book::targets_of_set(book::crop_targets(desk().book()), "Gentle")[0].low, 120);
  list->item(0, 3)->setText("90");
  EXPECT_EQ(book::targets_of_set(book::crop_targets(desk().book()), "Gentle")[0].high, 200) << "refused";
  const auto said = [&](const QString& part) {
    for (QLabel* label : dialog.findChildren<QLabel*>())
      if (label->text().contains(part)) return true;
    return false;
  };
  EXPECT_TRUE(said("high end does not lie above"));
  list->item(0, 3)->setText("many");
  EXPECT_TRUE(said("is no number"));
  QTest::mouseClick(dialog.findChild<QPushButton*>("copySet"), Qt::LeftButton);
  EXPECT_EQ(dialog.findChild<QComboBox*>("setName")->currentText(), "Gentle, own");
  QTest::mouseClick(dialog.findChild<QPushButton*>("addTarget"), Qt::LeftButton);
  EXPECT_EQ(book::targets_of_set(book::crop_targets(desk().book()), "Gentle, own").size(), 5u);
  QTest::mouseClick(dialog.findChild<QPushButton*>("restoreSets"), Qt::LeftButton);
  EXPECT_EQ(book::targets_of_set(book::crop_targets(desk().book()), "Gentle")[0].low, 100);
  EXPECT_EQ(book::targets_of_set(book::crop_targets(desk().book()), "Gentle, own").size(), 5u) << "own lists stay";
  desk().undo();
  EXPECT_EQ(book::targets_of_set(book::crop_targets(desk().book()), "Gentle")[0].low, 120) << "undone";
}

TEST_F(ReadTest, StatedUncertaintiesReplaceTheAssumedOnes) {
  const double before = window_->findChild<Judge*>()->budget()->expanded("mean_ppfd");
  key(Qt::Key_4);
  fill("spectralUncertainty", "4");
  settle();
  EXPECT_DOUBLE_EQ(*desk().test()->test.spectral_uncertainty_pct, 4);
  EXPECT_GT(window_->findChild<Judge*>()->budget()->expanded("mean_ppfd"), 1.2 * before);
}

TEST_F(ReadTest, PicturesAreWrittenAtAnySizeAsPixelsAndAsLines) {
  key(Qt::Key_C);
  const auto draw = [&](QPainter& p, const QRectF& room, bool in_vectors) {
    find<FieldMap>("fieldMap")->paint_picture(p, room, in_vectors);
  };
  ASSERT_TRUE(write_picture(draw, {900, 1000}, path("map.png")));
  EXPECT_EQ(QImage(path("map.png")).size(), QSize(900, 1000));
  ASSERT_TRUE(write_picture(draw, {900, 1000}, path("map.svg")));
  QSvgRenderer svg(path("map.svg"));
  EXPECT_TRUE(svg.isValid());
  QFile file(path("map.svg"));
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  EXPECT_GT(file.readAll().count("<text"), 20) << "numbers stay text";
  EXPECT_FALSE(write_picture(draw, {900, 1000}, path("no such folder/map.svg")));
  key(Qt::Key_C, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(QApplication::clipboard()->image().width(), 1600);
}

TEST_F(ReadTest, ContoursAreLabeledAtRoundValuesInsideTheMap) {
  const MapFit fit = fit_map(QRectF(0, 0, 600, 640), {1.2, 1.2}, true);
  const auto lines = contour_lines(Field(desk().view()->layout, desk().view()->ppfd), fit, {});
  ASSERT_GE(lines.size(), 4u);
  int labels = 0;
  for (const ContourLines& line : lines) {
    EXPECT_NEAR(std::fmod(line.level, 50), 0, 1e-9);
    for (const QRectF& label : line.labels) {
      EXPECT_TRUE(fit.frame.contains(label));
      ++labels;
    }
  }
  EXPECT_GE(labels, 4);
}

TEST_F(ReadTest, AFieldPictureHatchesWhatIsOutOfBand) {
  const MapFit fit = fit_map(QRectF(0, 0, 200, 200), {1.2, 1.2}, false);
  const Field field(desk().view()->layout, std::vector<double>(144, 500));
  ValueScale scale;
  scale.range = {0, 1000};
  const QImage bare = field_image(field, fit, scale, std::nullopt, 1).image;
  EXPECT_EQ(bare.pixelColor(100, 100), qcolor(report::light_color(0.5)));
  EXPECT_EQ(field_image(field, fit, scale, Band{400, 600}, 1).image, bare);
  const QImage dim = field_image(field, fit, scale, Band{600, 700}, 1).image,
               bright = field_image(field, fit, scale, Band{300, 400}, 1).image;
  EXPECT_NE(dim, bare);
  EXPECT_NE(bright, bare);
  EXPECT_NE(bright, dim);
}

TEST_F(ReadTest, ADenseMapStillTellsItsLowestAndHighest) {
  // A needle in one station of a dense sweep has to be seen at any thinning.
  const Layout layout = lay_out({1.2, 1.2}, {GridKind::Cells, 48, 48, 0, 0, {}}).value();
  book::SweepView view{layout, std::vector<book::StationState>(2304), std::vector<double>(2304, 500), {}, {}};
  for (auto& s : view.states) s.kind = book::StationState::Read;
  const auto painted = [&] {
    QImage image(600, 660, QImage::Format_RGB32);
    image.fill(Qt::white);
    QPainter p(&image);
    MapScene scene;
    scene.view = &view;
    scene.bench = &desk().test()->bench;
    scene.scale.range = {0, 1000};
    paint_map(p, fit_map(QRectF(0, 0, 600, 660), layout.footprint, true), scene);
    return image;
  };
  view.ppfd[layout.index(20, 20)] = 501;
  const QImage one = painted();
  view.ppfd[layout.index(20, 20)] = 500;
  view.ppfd[layout.index(21, 20)] = 501;
  EXPECT_NE(painted(), one) << "the frame of the highest moved with it";
}

TEST_F(ReadTest, EveryPageShowsInBothLooksAtASmallWindow) {
  for (const LookChoice look : {LookChoice::Paper, LookChoice::Loft}) {
    apply_look(*qApp, look);
    window_->resize(1024, 700);
    for (const Qt::Key page : {Qt::Key_1, Qt::Key_2, Qt::Key_3, Qt::Key_4}) {
      key(page);
      QApplication::processEvents();
      EXPECT_FALSE(window_->grab().isNull());
      EXPECT_LE(window_->width(), 1024) << "nothing pushes the window wider";
    }
  }
  apply_look(*qApp, LookChoice::Paper);
}

}  // namespace sunbreak::desktop
