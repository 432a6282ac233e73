#include <QApplication>
#include <QComboBox>
#include <QDialog>
#include <QDir>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QProgressBar>
#include <QPushButton>
#include <QTemporaryDir>
#include <QTimer>

#include "desktop/instruments/instrument_hub.h"
#include "desktop/paint/sweep_map.h"
#include "desktop/rig/plan_drawing.h"
#include "desktop/rig/plan_handles.h"
#include "desktop/rig/side_drawing.h"
#include "desktop/shell/mast.h"
#include "desktop/walk/film_view.h"
#include "desktop/walk/live_taker.h"
#include "desktop/walk/tones.h"
#include "report/html_report.h"
#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;
using evaluation::StationState;

/// Walk and Rig as they are worked at the bench: a new 6 × 6 test, driven by keys.
class BenchSideTest : public WindowTest {
 protected:
  void SetUp() override {
    WindowTest::SetUp();
    key(Qt::Key_N, Qt::ControlModifier);
  }
  void walk() { window_->show_stage(Stage::Walk); }
  void enter(const QString& value) {
    type(value);
    key(Qt::Key_Return);
  }
  QString words(const char* object_name) { return find<QLabel>(object_name)->text(); }
  void choose(const char* object_name, const QVariant& value) {
    auto* box = find<QComboBox>(object_name);
    ASSERT_NE(box, nullptr);
    box->setCurrentIndex(box->findData(value));
    emit box->activated(box->currentIndex());
  }
  /// A sensor that writes its values into a file.
  void connect_growing_file() {
    log_.setFileName(path("log.txt"));
    ASSERT_TRUE(log_.open(QIODevice::WriteOnly));
    instruments::InstrumentSettings settings;
    settings.speaks = instruments::Speaks::Stream;
    settings.address = {instruments::TransportKind::File, {}, 0, log_.fileName(), 0};
    settings.answer_ms = settings.lost_ms = 60000;
    window_->instruments().connect_to(settings);
  }
  /// Writes a line into it until it is heard: old lines of a file are past.
  bool hear(const char* line) {
    return QTest::qWaitFor(
        [&] {
          log_.write(line);
          log_.flush();
          return window_->instruments().channel(instruments::Measures::Light).live().has_value();
        },
        60000);
  }
  /// Reads every station with a hump of light; the slipped one a tenth of it.
  void read_all(int slipped = -1) {
    for (const int s : std::vector<int>(desk().walk())) {
      const Station& st = desk().view()->layout.stations[s];
      const double x = st.x_m / 1.2 - 0.5, y = st.y_m / 1.2 - 0.5;
      const double ppfd = std::round(800 * (1 - x * x - y * y));
      desk().edits().accept(s, s == slipped ? std::floor(ppfd / 10) : ppfd, "typed");
    }
  }
  QFile log_;
};

TEST_F(BenchSideTest, TheWalkOpensWithCornersAndCenterAndGivesAVerdict) {
  walk();
  EXPECT_TRUE(words("walkPlace").startsWith("Row 1 from the far wall,\n1st"));
  for (const char* value : {"400", "401", "399", "400"}) enter(value);
  EXPECT_TRUE(words("walkPlace").contains("Row 4 from the far wall,\n3rd")) << words("walkPlace").toStdString();
  enter("700");
  EXPECT_TRUE(words("walkVerdict").contains("level and centered")) << words("walkVerdict").toStdString();
  EXPECT_TRUE(find<QLabel>("walkVerdict")->isVisible());
}

TEST_F(BenchSideTest, AnUnevenProbeSaysWhichWayToMoveIt) {
  walk();
  for (const char* value : {"400", "460", "458", "402", "700"}) enter(value);
  EXPECT_TRUE(words("walkVerdict").contains("right side is brighter"));
  // The model of the stated fixture is worked out beside the interface; then it says how far.
  EXPECT_TRUE(QTest::qWaitFor([&] { return words("walkVerdict").contains("cm toward the left"); }, 60000))
      << words("walkVerdict").toStdString();
}

TEST_F(BenchSideTest, OrderAndProbeFollowTheRig) {
  choose("walkOrder", "center outward");
  choose("openingProbe", false);
  walk();
  EXPECT_TRUE(words("walkPlace").startsWith("Row 3 from the far wall,\n3rd")) << words("walkPlace").toStdString();
}

TEST_F(BenchSideTest, SkippedStationsComeAgainAtTheEnd) {
  choose("openingProbe", false);
  fill("referenceEvery", "0");
  walk();
  key(Qt::Key_N);
  EXPECT_TRUE(words("walkPlace").contains("2nd from the left"));
  for (int i = 0; i < 35; ++i) enter(QString::number(400 + i % 4));
  EXPECT_TRUE(words("walkPlace").startsWith("Row 1 from the far wall,\n1st")) << "the skipped one is left";
  enter("402");
  EXPECT_TRUE(desk().view()->complete());
}

TEST_F(BenchSideTest, RepeatsAreKeptBesideTheSweep) {
  walk();
  enter("400");
  key(Qt::Key_Backspace);
  key(Qt::Key_R);
  EXPECT_TRUE(words("walkTurn").contains("repeatability"));
  enter("404");
  ASSERT_EQ(desk().test()->side_readings.size(), 1u);
  EXPECT_EQ(desk().test()->side_readings[0].purpose, "repeat");
  EXPECT_EQ(desk().view()->states[30].raw, 400) << "the sweep's own reading stays";
  EXPECT_TRUE(words("walkNote").contains("1.0 %"));
  desk().edits().undo();
  EXPECT_TRUE(desk().test()->side_readings.empty());
}

TEST_F(BenchSideTest, ARepeatNeedsAReading) {
  walk();
  key(Qt::Key_R);
  EXPECT_TRUE(words("walkNote").contains("no reading yet"));
}

TEST_F(BenchSideTest, TheReferenceComesWhenItIsDueAndCanBePutOff) {
  choose("openingProbe", false);
  fill("referenceEvery", "4");
  walk();
  key(Qt::Key_F);
  enter("900");  // before anything else: the start of the drift
  for (int i = 0; i < 4; ++i) enter("500");
  EXPECT_TRUE(words("walkTurn").contains("the reference"));
  EXPECT_TRUE(words("walkPlace").contains("Row 4 from the far wall,\n3rd"));
  key(Qt::Key_N);
  EXPECT_FALSE(words("walkTurn").contains("the reference")) << "put off";
  enter("500");
  EXPECT_TRUE(words("walkTurn").contains("the reference")) << "but not for good";
  enter("855");
  EXPECT_TRUE(words("walkProgress").contains("drift −5.0 %, corrected")) << words("walkProgress").toStdString();
  EXPECT_TRUE(words("walkPlace").startsWith("Row 1 from the far wall,\n6th")) << "and the walk goes on where it was";
  EXPECT_EQ(desk().view()->states[30].raw, 500);
  EXPECT_GT(desk().view()->ppfd[34], 500);
}

TEST_F(BenchSideTest, AllKeysOfACleanSweepTyped) {
  fill("gridColumns", "12");
  fill("gridRows", "12");
  fill("referenceEvery", "0");
  walk();
  int keys = 0, digits = 0;
  for (int i = 0; i < 144; ++i) {
    const QString value = QString::number(500 + i % 3);
    type(value);
    key(Qt::Key_Return);
    digits += static_cast<int>(value.size());
    ++keys;
  }
  EXPECT_TRUE(desk().view()->complete());
  EXPECT_EQ(keys, 144) << "the digits and one key each";
  EXPECT_EQ(digits, 3 * 144);
}

TEST_F(BenchSideTest, AllKeysOfACleanSweepLive) {
  fill("gridColumns", "12");
  fill("gridRows", "12");
  fill("referenceEvery", "0");
  connect_growing_file();
  ASSERT_TRUE(hear("424.5\n"));
  walk();
  int keys = 0;
  for (; !desk().view()->complete() && keys < 200; ++keys) {
    const int read = desk().view()->read();
    key(Qt::Key_Space);
    // The first stations have no neighbors to be held against: there the sensor is heard longer.
    ASSERT_TRUE(QTest::qWaitFor(
        [&] {
          if (desk().view()->read() == read) log_.write("424.5\n"), log_.flush();
          return desk().view()->read() > read;
        },
        5000))
        << read;
  }
  EXPECT_EQ(keys, 144);
  EXPECT_EQ(desk().test()->readings.front().source, "live");
}

TEST_F(BenchSideTest, ASensorThatSpeaksSeldomIsNotWaitedFor) {
  connect_growing_file();
  ASSERT_TRUE(hear("424.5\n"));
  walk();
  QTest::qWait(300);  // what was written is heard
  key(Qt::Key_Space);
  EXPECT_TRUE(words("walkDoing").contains("looking longer, 1 of 4")) << words("walkDoing").toStdString();
  key(Qt::Key_Space);
  EXPECT_EQ(desk().view()->read(), 1) << "Space takes it as it is";
  key(Qt::Key_Space);
  EXPECT_TRUE(QTest::qWaitFor([&] { return desk().view()->read() == 2; }, 60000)) << "and patience ends by itself";
  EXPECT_TRUE(words("walkDoing").isEmpty());
  EXPECT_EQ(desk().test()->readings.back().samples, 1);
}

TEST_F(BenchSideTest, SpaceAveragesAsManyValuesAsThePlanSays) {
  fill("samplesAReading", "3");
  connect_growing_file();
  const auto send = [&](const char* line, const std::function<bool()>& until) {
    return QTest::qWaitFor(
        [&, sent = false]() mutable {
          if (!std::exchange(sent, true)) log_.write(line), log_.flush();
          return until();
        },
        60000);
  };
  const auto& light = window_->instruments().channel(instruments::Measures::Light);
  ASSERT_TRUE(hear("400\n"));
  QTest::qWait(700);
  walk();
  key(Qt::Key_Space);
  EXPECT_TRUE(desk().test()->readings.empty()) << "one value of three";
  ASSERT_TRUE(send("404\n", [&] { return light.last && light.last->value == 404; }));
  ASSERT_TRUE(send("408\n", [&] { return !desk().test()->readings.empty(); }));
  const record::Reading& r = desk().test()->readings[0];
  EXPECT_DOUBLE_EQ(r.raw, 404);
  EXPECT_EQ(r.samples, 3);
  EXPECT_NEAR(r.spread.value_or(0), 4, 1e-9);
}

TEST_F(BenchSideTest, AnOpenCheckIsSetAsideWithAReasonThatTheReportPrints) {
  walk();
  read_all(14);
  ASSERT_EQ(desk().worked_out().findings().size(), 1u);
  EXPECT_TRUE(find<QPushButton>("walkListChecks")->text().contains("1 open"));
  const auto with_page = [&](const std::function<void(QDialog*)>& act) {
    QTimer::singleShot(200, [&] {
      auto* page = qobject_cast<QDialog*>(QApplication::activeModalWidget());
      ASSERT_NE(page, nullptr);
      act(page);
      page->close();
    });
    key(Qt::Key_L);
  };
  with_page([&](QDialog* page) {
    EXPECT_TRUE(page->findChild<QLabel*>("checkDetails")->text().contains("What to do"));
    QTest::mouseClick(page->findChild<QPushButton*>("checkAside"), Qt::LeftButton);
    EXPECT_EQ(desk().worked_out().findings().size(), 1u) << "not without a reason";
    QTest::keyClicks(page->findChild<QLineEdit*>("checkReason"), "a pot stands there");
    QTest::mouseClick(page->findChild<QPushButton*>("checkAside"), Qt::LeftButton);
  });
  EXPECT_TRUE(desk().worked_out().findings().empty());
  const std::string html = report::html_report({evaluation::evaluate(*desk().test())}).html;
  EXPECT_NE(html.find("a pot stands there"), std::string::npos);
  with_page([&](QDialog* page) {
    EXPECT_TRUE(page->findChild<QListWidget*>("checksList")->item(0)->text().contains("set aside"));
    QTest::mouseClick(page->findChild<QPushButton*>("checkAside"), Qt::LeftButton);
  });
  EXPECT_EQ(desk().worked_out().findings().size(), 1u) << "taken up again";
}

TEST_F(BenchSideTest, TheListOfChecksLeadsToTheStation) {
  fill("heights", "60, 45");
  walk();
  read_all(14);
  key(Qt::Key_PageUp);
  ASSERT_EQ(desk().rung()->height_m, 0.6);
  QTimer::singleShot(200, [&] {
    auto* page = QApplication::activeModalWidget();
    ASSERT_NE(page, nullptr);
    QTest::mouseClick(page->findChild<QPushButton*>("checkGo"), Qt::LeftButton);
  });
  key(Qt::Key_L);
  EXPECT_EQ(desk().rung()->height_m, 0.45) << "back on the sweep it is about";
  EXPECT_TRUE(words("walkPlace").contains("Row 4 from the far wall,\n3rd"));
}

TEST_F(BenchSideTest, HeightsThatCannotBeAreSaidBetweenSweeps) {
  fill("heights", "60, 45");
  desk().step_rung(-1);
  read_all();
  desk().step_rung(1);
  for (const int s : std::vector<int>(desk().walk())) desk().edits().accept(s, 300, "typed");
  bool said = false;
  for (const evaluation::TestFinding& c : desk().worked_out().all_findings())
    said = said || c.check.id == "brighter from higher up";
  EXPECT_TRUE(said);
  EXPECT_TRUE(window_->findChild<Mast*>()->accessibleDescription().contains("36 of 36"));
}

TEST_F(BenchSideTest, ArmsLengthFillsTheScreenAndEscapeEndsIt) {
  walk();
  key(Qt::Key_V);
  EXPECT_TRUE(window_->isFullScreen());
  EXPECT_FALSE(window_->findChild<Mast*>()->isVisible());
  const auto pixels = [&] { return find<QLineEdit>("walkValue")->font().pixelSize(); };
  EXPECT_GE(pixels(), 100);
  enter("400");
  EXPECT_EQ(desk().view()->read(), 1) << "the same keys work";
  key(Qt::Key_Escape);
  EXPECT_FALSE(window_->isFullScreen());
  EXPECT_TRUE(window_->findChild<Mast*>()->isVisible());
  key(Qt::Key_V);
  window_->show_home();
  EXPECT_FALSE(window_->isFullScreen()) << "leaving the stage ends it too";
}

TEST_F(BenchSideTest, WhatIsFilmedShowsValueStationAndMapAlone) {
  walk();
  key(Qt::Key_P);
  EXPECT_TRUE(window_->isFullScreen());
  auto* film = window_->findChild<FilmView*>();
  ASSERT_TRUE(film->isVisible());
  EXPECT_EQ(film->size(), film->parentWidget()->size()) << "it covers the stage";
  const auto words = [&](const char* name) { return film->findChild<QLabel*>(name)->text(); };
  const QString first = words("filmPlace");
  EXPECT_FALSE(first.isEmpty());
  type("412.5");
  EXPECT_EQ(words("filmValue"), "412.5") << "as it is typed";
  key(Qt::Key_Return);
  EXPECT_EQ(desk().view()->read(), 1) << "the same keys work";
  EXPECT_NE(words("filmPlace"), first) << "the next station";
  EXPECT_TRUE(words("filmValue").contains("412.5")) << "what was kept, until another is typed";
  key(Qt::Key_Escape);
  EXPECT_FALSE(film->isVisible());
  EXPECT_FALSE(window_->isFullScreen());
}

TEST_F(BenchSideTest, TonesCanBeSilencedAndThatIsRemembered) {
  walk();
  key(Qt::Key_T);
  EXPECT_FALSE(QSettings().value("walk/silenced").toBool());
  key(Qt::Key_T);
  EXPECT_TRUE(QSettings().value("walk/silenced").toBool());
  for (const Tone tone : {Tone::Kept, Tone::Look, Tone::Done}) {
    const auto samples = tone_samples(tone);
    ASSERT_GT(samples.size(), 1000u);
    EXPECT_EQ(samples.front(), 0) << "no click";
    EXPECT_GT(*std::max_element(samples.begin(), samples.end()), 5000);
  }
}

TEST_F(BenchSideTest, WithoutASoundCardTonesAreSilentOnTheTerminalToo) {
  QTemporaryDir folder;
  qunsetenv("PULSE_SERVER");
  EXPECT_FALSE(sound_is_there(folder.filePath("snd"), folder.filePath("run")));
  EXPECT_FALSE(sound_is_there(folder.filePath("snd"), {}));
  ASSERT_TRUE(QDir(folder.path()).mkpath("run/pulse/native"));
  EXPECT_TRUE(sound_is_there(folder.filePath("snd"), folder.filePath("run")));
  if (sound_is_there("/dev/snd", qEnvironmentVariable("XDG_RUNTIME_DIR"))) GTEST_SKIP() << "this machine plays";
  testing::internal::CaptureStderr();
  {
    Tones tones;
    tones.silence(false);
    for (int i = 0; i < 3; ++i) tones.play(Tone::Kept);
  }
  EXPECT_EQ(testing::internal::GetCapturedStderr(), "");
}

TEST_F(BenchSideTest, HandsFreeLeavesAFinishedSweepAlone) {
  walk();
  read_all();
  key(Qt::Key_H);
  EXPECT_TRUE(words("walkNote").contains("nothing to do"));
  EXPECT_FALSE(find<QPushButton>("walkHandsFree")->isChecked());
  EXPECT_TRUE(words("walkTurn").contains("All stations are read"));
}

TEST_F(BenchSideTest, HandsFreeWithoutASensorSaysSo) {
  walk();
  key(Qt::Key_H);
  EXPECT_TRUE(words("walkDoing").contains("Ctrl+I"));
  key(Qt::Key_H);
  EXPECT_TRUE(words("walkDoing").isEmpty());
}

TEST_F(BenchSideTest, PlanMapAndMastSpeak) {
  walk();
  enter("400");
  SweepMap* map = nullptr;
  for (SweepMap* m : window_->findChildren<SweepMap*>())
    if (m->isVisible()) map = m;
  ASSERT_NE(map, nullptr);
  EXPECT_TRUE(map->accessibleDescription().contains("1 of 36")) << map->accessibleDescription().toStdString();
  EXPECT_TRUE(map->accessibleDescription().contains("at hand: Row 1 from the far wall"));
  EXPECT_TRUE(window_->findChild<Mast*>()->accessibleDescription().contains("1 of 36"));
  EXPECT_TRUE(window_->findChild<PlanDrawing*>()->accessibleDescription().contains("6 × 6"));
  EXPECT_TRUE(window_->findChild<SideDrawing*>()->accessibleDescription().contains("45 cm"));
}

TEST_F(BenchSideTest, HeightsAreTypedAsTheTapeShowsThem) {
  desk().edits().make("sensor", [&](book::Edit& e) {
    record::Meter sensor;
    sensor.name = "S";
    sensor.receiving_height_m = 0.03;
    record::Test test = desk().test()->test;
    test.sensor_id = e.add(sensor);
    e.save(test);
  });
  choose("tapeFrom", "floor");
  fill("heights", "48, 63");
  ASSERT_EQ(desk().test()->rungs.size(), 2u);
  EXPECT_NEAR(desk().test()->rungs[1].height_m, 0.45, 1e-9);
  EXPECT_EQ(find<QLineEdit>("heights")->text(), "63, 48") << "and shown as the tape shows them";
  choose("tapeFrom", "sensor");
  EXPECT_EQ(find<QLineEdit>("heights")->text(), "60, 45");
}

TEST_F(BenchSideTest, ReadyMadeHeights) {
  const auto press = [&](const QString& text) {
    for (QPushButton* button : window_->findChildren<QPushButton*>())
      if (button->text() == text) return QTest::mouseClick(button, Qt::LeftButton);
    FAIL() << text.toStdString();
  };
  fill("emitterSpacing", "20");
  press("Ladder");
  EXPECT_NEAR(desk().test()->rungs.back().height_m, 0.30, 1e-9) << "one and a half gaps at least";
  EXPECT_GE(desk().test()->rungs.size(), 3u);
  press("Around the maker's height");
  EXPECT_TRUE(words("message").contains("No hanging height is claimed"));
  desk().edits().make("claim", [&](book::Edit& e) {
    e.add(record::Claim{0, desk().test()->fixture.id, "height_m", std::nullopt, "45 cm over the canopy"});
    e.add(record::Claim{0, desk().test()->fixture.id, "ppf_umol_s", 900, ""});
  });
  press("Around the maker's height");
  ASSERT_EQ(desk().test()->rungs.size(), 3u);
  EXPECT_NEAR(desk().test()->rungs[1].height_m, 0.45, 1e-9);
  fill("centerReads", "800");
  EXPECT_TRUE(QTest::qWaitFor([&] { return desk().test()->rungs.size() == 4; }, 60000))
      << words("message").toStdString();
}

TEST_F(BenchSideTest, TheDrawingsFollowWhatIsTyped) {
  const QImage before = find<SideDrawing>("sideDrawing")->grab().toImage();
  auto* heights = find<QLineEdit>("heights");
  heights->setFocus();
  heights->selectAll();
  QTest::keyClicks(heights, "90, 30");
  const QImage typing = find<SideDrawing>("sideDrawing")->grab().toImage();
  EXPECT_NE(before, typing);
  EXPECT_TRUE(words("effort").contains("2 sweeps"));
  EXPECT_EQ(desk().test()->rungs.size(), 1u) << "not kept yet";
  QTest::keyClick(heights, Qt::Key_Return);
  EXPECT_EQ(desk().test()->rungs.size(), 2u);
}

TEST_F(BenchSideTest, HeightsMoveInTheSideViewByMouseAndKeys) {
  auto* side = find<SideDrawing>("sideDrawing");
  side->setFocus();
  QTest::keyClick(side, Qt::Key_Up);
  EXPECT_NEAR(desk().test()->rungs[0].height_m, 0.46, 1e-9);
  QTest::keyClick(side, Qt::Key_Down);
  QTest::keyClick(side, Qt::Key_Down);
  EXPECT_NEAR(desk().test()->rungs[0].height_m, 0.44, 1e-9);
  // The line of the only height: find it by the cursor it gives.
  int y = -1;
  for (int candidate = 0; candidate < side->height() && y < 0; ++candidate) {
    QTest::mouseMove(side, QPoint(side->width() / 2, candidate));
    QMouseEvent move(QEvent::MouseMove, QPointF(side->width() / 2.0, candidate), side->mapToGlobal(QPointF(0, 0)),
                     Qt::NoButton, Qt::NoButton, Qt::NoModifier);
    QApplication::sendEvent(side, &move);
    if (side->cursor().shape() == Qt::SizeVerCursor) y = candidate + 8;
  }
  ASSERT_GE(y, 0);
  const auto send = [&](QEvent::Type type, int at, Qt::MouseButtons buttons) {
    QMouseEvent event(type, QPointF(side->width() / 2.0, at), side->mapToGlobal(QPointF(0, 0)), Qt::LeftButton, buttons,
                      Qt::NoModifier);
    QApplication::sendEvent(side, &event);
  };
  send(QEvent::MouseButtonPress, y, Qt::LeftButton);
  send(QEvent::MouseMove, y - 40, Qt::LeftButton);
  send(QEvent::MouseButtonRelease, y - 40, Qt::NoButton);
  EXPECT_GT(desk().test()->rungs[0].height_m, 0.5);
}

TEST_F(BenchSideTest, TheGridIsDraggedInThePlan) {
  auto* plan = find<PlanDrawing>("planDrawing");
  const auto send = [&](QEvent::Type type, const QPointF& at, Qt::MouseButtons buttons) {
    QMouseEvent event(type, at, plan->mapToGlobal(at), type == QEvent::MouseMove ? Qt::NoButton : Qt::LeftButton,
                      buttons, Qt::NoModifier);
    QApplication::sendEvent(plan, &event);
  };
  // A corner of the outer stations, by the cursor it gives, from the far left.
  QPointF corner;
  for (int at = 0; at < std::min(plan->width(), plan->height()) / 2 && corner.isNull(); ++at) {
    const MapFit fit = fit_map(plan->rect(), record::footprint_of(desk().test()->bench), true, 68);
    const QPointF place = fit.floor.topLeft() + QPointF(at, at);
    send(QEvent::MouseMove, place, Qt::NoButton);
    if (plan->cursor().shape() == Qt::SizeAllCursor) corner = place;
  }
  ASSERT_FALSE(corner.isNull());
  const double before = desk().view()->layout.xs_m.front();
  const QImage untouched = plan->grab().toImage();
  send(QEvent::MouseButtonPress, corner, Qt::LeftButton);
  send(QEvent::MouseMove, corner + QPointF(30, 30), Qt::LeftButton);
  EXPECT_NE(plan->grab().toImage(), untouched) << "it follows the mouse";
  EXPECT_EQ(desk().test()->test.grid_kind, "cells") << "and is kept when let go";
  send(QEvent::MouseButtonRelease, corner + QPointF(30, 30), Qt::NoButton);
  EXPECT_EQ(desk().test()->test.grid_kind, "inset");
  const double after = desk().view()->layout.xs_m.front();
  EXPECT_GT(after, before + 0.02);
  EXPECT_NEAR(after * 100, std::round(after * 100), 1e-9) << "whole centimeters";
  EXPECT_EQ(find<QLineEdit>("gridMarginX")->text(), QString::number(after * 100));
  desk().edits().undo();
  EXPECT_EQ(desk().test()->test.grid_kind, "cells");
}

TEST_F(BenchSideTest, GridAndFixtureMoveInThePlanByKeys) {
  desk().edits().make("two units", [&](book::Edit& e) {
    record::Fixture fixture = desk().test()->fixture;
    fixture.width_m = 0.3;
    fixture.depth_m = 0.4;
    e.save(fixture);
    record::Test test = desk().test()->test;
    test.unit_columns = 2;
    test.unit_spacing_x_m = 0.6;
    e.save(test);
  });
  auto* plan = find<PlanDrawing>("planDrawing");
  plan->setFocus();
  const auto spoken = [&](const char* words) { return plan->accessibleDescription().contains(words); };
  QTest::keyClick(plan, Qt::Key_Space);
  EXPECT_TRUE(spoken("outer stations")) << plan->accessibleDescription().toStdString();
  const double margin = desk().view()->layout.xs_m.front(), front = desk().view()->layout.ys_m.front();
  QTest::keyClick(plan, Qt::Key_Left);
  EXPECT_NEAR(desk().view()->layout.xs_m.front(), margin + 0.01, 1e-9) << "inward from the right wall's side";
  QTest::keyClick(plan, Qt::Key_Up);
  EXPECT_NEAR(desk().view()->layout.ys_m.front(), front - 0.01, 1e-9);
  QTest::keyClick(plan, Qt::Key_Space);
  EXPECT_TRUE(spoken("wide"));
  QTest::keyClick(plan, Qt::Key_Right);
  EXPECT_NEAR(*desk().test()->fixture.width_m, 0.31, 1e-9);
  QTest::keyClick(plan, Qt::Key_Space);
  QTest::keyClick(plan, Qt::Key_Down);
  EXPECT_NEAR(*desk().test()->fixture.depth_m, 0.39, 1e-9);
  QTest::keyClick(plan, Qt::Key_Space);
  EXPECT_TRUE(spoken("apart"));
  QTest::keyClick(plan, Qt::Key_Right);
  EXPECT_NEAR(*desk().test()->test.unit_spacing_x_m, 0.61, 1e-9);
  QTest::keyClick(plan, Qt::Key_Space);
  EXPECT_TRUE(spoken("outer stations")) << "round again";
  desk().edits().undo();
  EXPECT_NEAR(*desk().test()->test.unit_spacing_x_m, 0.6, 1e-9);
}

TEST_F(BenchSideTest, LooseSpotsMoveInThePlan) {
  choose("gridKind", "spots");
  auto* plan = find<PlanDrawing>("planDrawing");
  plan->setFocus();
  QTest::keyClick(plan, Qt::Key_Space);
  const Spot before = record::grid_of(desk().test()->test).spots[0];
  QTest::keyClick(plan, Qt::Key_Right);
  QTest::keyClick(plan, Qt::Key_Up);
  const Spot after = record::grid_of(desk().test()->test).spots[0];
  EXPECT_NEAR(after.x_m, before.x_m + 0.01, 1e-9);
  EXPECT_NEAR(after.y_m, before.y_m + 0.01, 1e-9);
  EXPECT_EQ(after.name, before.name);
}

TEST(PlanHandles, ADragStopsAtWhatThePlanCanBe) {
  record::TestRecord test;
  test.bench.width_m = test.bench.depth_m = 1.2;
  test.test.unit_columns = 2;
  test.fixture.width_m = test.fixture.depth_m = 0.4;
  test.test.unit_spacing_x_m = 0.5;
  const auto grid = record::grid_of(moved(test, {PlanHandle::Margin}, 0.6, -0.3).test);
  EXPECT_NEAR(grid.margin_x_m, 0.55, 1e-9) << "not past the middle";
  EXPECT_NEAR(grid.margin_y_m, 0, 1e-9) << "nor through the wall";
  EXPECT_TRUE(lay_out({1.2, 1.2}, grid));
  // The outer edge stands 0.25 + 0.2 m from the middle; dragged to 0.5 m, each unit is 0.5 m wide.
  EXPECT_NEAR(*moved(test, {PlanHandle::Width}, 1.1, 0.6).fixture.width_m, 0.5, 1e-9);
  EXPECT_NEAR(*moved(test, {PlanHandle::Spacing}, 0.9, 0.6).test.unit_spacing_x_m, 0.6, 1e-9);
  EXPECT_NEAR(*moved(test, {PlanHandle::Depth}, 0.6, 0.6).fixture.depth_m, 0.02, 1e-9) << "something is left of it";
  test.test.unit_spacing_x_m.reset();
  // Side by side without a stated spacing: two units end 0.4 m from the middle; dragged to 0.5 m, each is 0.5 m wide.
  EXPECT_NEAR(*moved(test, {PlanHandle::Width}, 1.1, 0.6).fixture.width_m, 0.5, 1e-9);
  const auto handles = plan_handles(test);
  EXPECT_EQ(handles[static_cast<std::size_t>(handle_at(test, 1.0, 0.6, 0.01))].kind, PlanHandle::Width);
  EXPECT_EQ(handle_at(test, 0.6, 0.05, 0.01), -1);
}

TEST_F(BenchSideTest, TheModelAdvisesOnStationsAndWarnsWhereItIsTooClose) {
  fill("emitterSpacing", "40");
  EXPECT_TRUE(words("heightAdvice").contains("1.5 times"));
  EXPECT_TRUE(QTest::qWaitFor([&] { return words("stationsAdvice").contains("give the mean to 1 %"); }, 60000));
}

TEST_F(BenchSideTest, TheChecklistIsKeptAndPrinted) {
  choose("checkedLevel", "yes");
  EXPECT_EQ(desk().test()->test.checked_level, "yes");
  const std::string html = report::html_report({evaluation::evaluate(*desk().test())}).html;
  EXPECT_NE(html.find("Hung level, by a level"), std::string::npos);
}
