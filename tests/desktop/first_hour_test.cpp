#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QProcess>
#include <QProcessEnvironment>
#include <QPushButton>
#include <QTimer>
#include <QToolButton>
#include <QWheelEvent>

#include "desktop/home/home_view.h"
#include "desktop/home/test_cards.h"
#include "desktop/read/figure_row.h"
#include "desktop/walk/walk_view.h"
#include "desktop/window_fixture.h"
#include "report/html_report.h"

namespace sunbreak::desktop {

/// What a newcomer stumbles over in the first hour.
class FirstHourTest : public WindowTest {
 protected:
  QString message() { return find<QLabel>("message")->text(); }
  void begin_test() { key(Qt::Key_N, Qt::ControlModifier); }
};

TEST_F(FirstHourTest, UnitsHaveAKeyThatNoFieldOwns) {
  begin_test();
  auto* name = find<QLineEdit>("fixtureName");
  name->setFocus();
  name->selectAll();
  type("Six bars");
  key(Qt::Key_M, Qt::ControlModifier);
  EXPECT_EQ(desk().units(), UnitSystem::Imperial);
  EXPECT_EQ(name->text(), "Six bars");
  key(Qt::Key_M, Qt::ControlModifier);
  key(Qt::Key_U, Qt::ControlModifier);
  EXPECT_EQ(desk().units(), UnitSystem::Metric);
  EXPECT_EQ(name->text(), "Six bars") << "no key takes a whole field at once";
}

TEST_F(FirstHourTest, TheWheelTurnsNoChoice) {
  begin_test();
  auto* kind = find<QComboBox>("gridKind");
  find<QLineEdit>("fixtureName")->setFocus();
  const int before = kind->currentIndex();
  const auto turn = [&] {
    QWheelEvent wheel(QPointF(5, 5), kind->mapToGlobal(QPointF(5, 5)), {}, {0, -120}, Qt::NoButton, Qt::NoModifier,
                      Qt::NoScrollPhase, false);
    QApplication::sendEvent(kind, &wheel);
  };
  turn();
  EXPECT_EQ(kind->currentIndex(), before);
  kind->setFocus();
  turn();
  EXPECT_EQ(kind->currentIndex(), before) << "nor one that has the keyboard: who scrolls a page may have been in it";
}

TEST_F(FirstHourTest, LettersInTheMiddleOfANumberAreNoCommands) {
  begin_test();
  window_->show_stage(Stage::Walk);
  auto* value = find<QLineEdit>("walkValue");
  type("51m");
  EXPECT_EQ(value->text(), "51m");
  key(Qt::Key_Return);
  EXPECT_TRUE(find<QLabel>("walkNote")->text().contains("'51m' is not a number"));
  EXPECT_EQ(value->text(), "51m") << "what was typed stays";
  ASSERT_NE(desk().view(), nullptr);
  EXPECT_EQ(desk().view()->missing(), 0);
  key(Qt::Key_Escape);
  type("51l0");
  EXPECT_EQ(QApplication::activeModalWidget(), nullptr);
  key(Qt::Key_Space);
  EXPECT_EQ(value->text(), "51l0") << "nor is it lost to the live value";
  key(Qt::Key_Escape);
  type("m");
  EXPECT_EQ(desk().view()->missing(), 1) << "alone it is a command";
}

TEST_F(FirstHourTest, WattsHaveAKeyOfTheirOwn) {
  begin_test();
  window_->show_stage(Stage::Walk);
  type("512.5");
  key(Qt::Key_Return);
  type("w");
  auto* watts = find<QLineEdit>("walkWatts");
  ASSERT_TRUE(watts->hasFocus());
  key(Qt::Key_Space);
  EXPECT_TRUE(find<QLabel>("walkNote")->text().contains("no live watts"));
  type("318.5");
  key(Qt::Key_Return);
  EXPECT_EQ(desk().sweep()->power_w, 318.5);
  EXPECT_TRUE(find<QLineEdit>("walkValue")->hasFocus()) << "and on with the walk";
  type("w");
  type("9");
  find<QLineEdit>("walkValue")->setFocus();
  EXPECT_EQ(desk().sweep()->power_w, 9) << "what was typed is not lost to a change of focus";
}

TEST_F(FirstHourTest, ARefusalGoesWithUndoAndStaysWithItsTest) {
  begin_test();
  const record::Id first = desk().test()->test.id;
  fill("gridColumns", "8");
  fill("gridColumns", "ninety");
  auto* columns = find<QLineEdit>("gridColumns");
  EXPECT_TRUE(columns->property("wrong").toBool());
  key(Qt::Key_Escape);
  desk().edits().undo();
  EXPECT_FALSE(columns->property("wrong").toBool());
  EXPECT_NE(columns->text(), "ninety");
  fill("gridColumns", "ninety");
  EXPECT_TRUE(columns->property("wrong").toBool());
  begin_test();
  ASSERT_NE(desk().test()->test.id, first);
  EXPECT_FALSE(columns->property("wrong").toBool()) << "never in another test";
}

TEST_F(FirstHourTest, EnterPressesTheButtonWithTheKeyboard) {
  find<QPushButton>("newTest")->setFocus();
  key(Qt::Key_Return);
  ASSERT_NE(desk().test(), nullptr);
  fill("fixtureName", "Alder");
  begin_test();
  fill("fixtureName", "Birch");
  const record::Id birch = desk().test()->test.id;
  begin_test();
  window_->show_home();
  auto* search = find<QLineEdit>("search");
  search->setFocus();
  type("bir");
  key(Qt::Key_Return);
  ASSERT_NE(desk().test(), nullptr);
  EXPECT_EQ(desk().test()->test.id, birch) << "the search's only hit";
}

TEST_F(FirstHourTest, ANewTestBeginsFromEverywhere) {
  begin_test();
  for (const Stage stage : {Stage::Rig, Stage::WarmUp, Stage::Walk, Stage::Read, Stage::Publish}) {
    window_->show_stage(stage);
    const record::Id before = desk().test()->test.id;
    begin_test();
    EXPECT_NE(desk().test()->test.id, before);
  }
}

TEST_F(FirstHourTest, TheKeyPageIsTrueOnPublish) {
  begin_test();
  fill("heights", "60, 45, 30");
  window_->show_stage(Stage::Publish);
  const double before = desk().rung()->height_m;
  key(Qt::Key_PageUp);
  key(Qt::Key_PageDown);
  key(Qt::Key_PageDown);
  EXPECT_EQ(desk().rung()->height_m, before) << "page keys scroll the page there";
  window_->show_stage(Stage::Read);
  key(Qt::Key_PageDown);
  key(Qt::Key_PageDown);
  EXPECT_NE(desk().rung()->height_m, before) << "and change the height elsewhere";
  window_->show_stage(Stage::Publish);
  int told = 0;
  QTimer::singleShot(50, [&] {
    QWidget* page = QApplication::activeModalWidget();
    ASSERT_NE(page, nullptr);
    for (const QLabel* label : page->findChildren<QLabel*>()) told += label->text() == "Page Up, Page Down";
    QTest::keyClick(page, Qt::Key_Escape);
  });
  key(Qt::Key_F1);
  EXPECT_EQ(told, 1);
}

TEST_F(FirstHourTest, TheLastTestOpensAgainAtItsStage) {
  begin_test();
  const record::Id test = desk().test()->test.id;
  begin_test();
  open_test(test, Stage::Walk);
  window_->close();
  open();
  EXPECT_EQ(desk().test(), nullptr);
  window_->reopen_last_test();
  ASSERT_NE(desk().test(), nullptr);
  EXPECT_EQ(desk().test()->test.id, test);
  EXPECT_TRUE(window_->findChild<WalkView*>()->isVisible());
  EXPECT_EQ(MainWindow::remembered_books().value(0).toStdString(), book_file());
}

TEST_F(FirstHourTest, DatesThatAreNoneAreRefusedWithTheFormThatIsTaken) {
  begin_test();
  unfold_all();
  const std::string before = desk().test()->test.tested_on;
  for (const char* wrong : {"12/05/2026", "2026-02-30", "May", "2026-5-12"}) {
    fill("testedOn", wrong);
    EXPECT_EQ(desk().test()->test.tested_on, before) << wrong;
    bool told = false;
    for (const QLabel* label : window_->findChildren<QLabel*>())
      told = told || (label->isVisible() && label->text().contains("year-month-day, like 2026-05-12"));
    EXPECT_TRUE(told) << wrong;
  }
  fill("testedOn", "2026-05-12");
  EXPECT_EQ(desk().test()->test.tested_on, "2026-05-12");
}

TEST_F(FirstHourTest, RigShowsADozenFieldsAndFoldsTheRest) {
  begin_test();
  const auto fields = [&] {
    int shown = 0;
    QWidget* rig = find<QLineEdit>("fixtureName")->parentWidget()->parentWidget();
    for (const QWidget* editor : rig->findChildren<QWidget*>())
      shown +=
          editor->isVisible() && (qobject_cast<const QLineEdit*>(editor) || qobject_cast<const QComboBox*>(editor));
    return shown;
  };
  const int folded = fields();
  EXPECT_LE(folded, 11 + 5) << "and the five of the checklist, which stand beside their cautions";
  auto* claims = find<QPushButton>("part_claims");
  EXPECT_TRUE(claims->text().contains("0 of 7 filled")) << claims->text().toStdString();
  claims->setFocus();
  key(Qt::Key_Return);
  EXPECT_EQ(fields(), folded + 7);
  find<QLineEdit>("fixtureName")->setFocus();
  desk().edits().make("claim", [&](book::Edit& e) {
    e.add(record::Claim{0, desk().test()->fixture.id, "power_w", 300.0, ""});
  });
  EXPECT_TRUE(claims->text().contains("1 of 7 filled")) << claims->text().toStdString();
  open();
  begin_test();
  EXPECT_EQ(fields(), folded + 7) << "what was opened stays open";
}

TEST_F(FirstHourTest, WaysToRigPutTheKeyboardIntoTheField) {
  begin_test();
  for (int i = 0; i < 36; ++i) ASSERT_TRUE(desk().edits().accept(i, 500 + i % 7, "typed"));
  window_->show_stage(Stage::Publish);
  find<QPushButton>("fillGaps")->click();
  EXPECT_EQ(focused()->objectName(), "obtained");
  EXPECT_TRUE(focused()->isVisible());
  window_->show_stage(Stage::Read);
  find<QPushButton>("readPage4")->click();
  for (const auto& [way, field] : {std::pair{"way_walls", "wallLeft"},
                                   {"way_calibration", "sensorPicker"},
                                   {"way_height", "datum"},
                                   {"way_level", "checkedLevel"}}) {
    window_->show_stage(Stage::Read);
    ASSERT_TRUE(QTest::qWaitFor([&] { return find<QPushButton>(way) != nullptr; }, 60000)) << way;
    find<QPushButton>(way)->click();
    EXPECT_EQ(focused()->objectName(), field);
    EXPECT_TRUE(focused()->isVisible()) << field;
  }
}

/// Sentences send to "Home, under Meters": both stand on the screen under these names.
TEST_F(FirstHourTest, WhatSentencesCallHomeIsCalledSo) {
  window_->show_home();
  EXPECT_EQ(find<QToolButton>("homeButton")->text(), "Home");
  const auto* list = find<QListWidget>("shelfList");
  QStringList sections;
  for (int row = 0; row < list->count(); ++row) sections << list->item(row)->text();
  EXPECT_TRUE(sections.contains("Meters")) << sections.join(", ").toStdString();
}

TEST_F(FirstHourTest, AMetersUncertaintyIsAskedAsItIsQuoted) {
  begin_test();
  record::Id meter = 0;
  desk().edits().make("meter", [&](book::Edit& e) {
    record::Meter m;
    m.name = "QS-9";
    meter = e.add(m);
  });
  window_->show_home();
  auto* list = find<QListWidget>("shelfList");
  const auto in_dialog = [&](const std::function<void(QWidget*)>& act) {
    for (int row = 0; row < list->count(); ++row)
      if (list->item(row)->text() == "QS-9") list->setCurrentRow(row);
    QTimer::singleShot(50, [&] {
      QWidget* dialog = QApplication::activeModalWidget();
      ASSERT_NE(dialog, nullptr);
      dialog->activateWindow();
      EXPECT_TRUE(QTest::qWaitFor([&] { return QApplication::activeWindow() == dialog; })) << "keys go to it then";
      act(dialog);
      dialog->close();
    });
    emit list->itemActivated(list->currentItem());
    return *desk().book().find<record::Meter>(meter);
  };
  const auto quote = [](QWidget* dialog, const char* text, const QVariant& as) {
    auto* field = dialog->findChild<QLineEdit*>("meterUncertainty");
    field->setFocus();
    EXPECT_TRUE(QTest::qWaitFor([&] { return field->hasFocus(); })) << "a field that never had it never loses it";
    field->selectAll();
    QTest::keyClicks(field, text);
    QTest::keyClick(field, Qt::Key_Tab);
    auto* box = dialog->findChild<QComboBox*>("meterQuotedAs");
    box->setCurrentIndex(box->findData(as));
    emit box->activated(box->currentIndex());
    return field->text();
  };
  record::Meter kept =
      in_dialog([&](QWidget* d) { EXPECT_EQ(quote(d, "5", 2.0), "5") << "the number stays as it is"; });
  EXPECT_NEAR(*kept.uncertainty_pct, 2.5, 1e-12) << "one standard deviation of ± 5 %, k = 2";
  EXPECT_EQ(kept.uncertainty_k, 2.0);
  kept = in_dialog([&](QWidget* d) { quote(d, "3", 1.0); });
  EXPECT_NEAR(*kept.uncertainty_pct, 3, 1e-12);
  kept = in_dialog([&](QWidget* d) { quote(d, "4", ""); });
  EXPECT_NEAR(*kept.uncertainty_pct, 4, 1e-12);
  EXPECT_FALSE(kept.uncertainty_k.has_value());
}

TEST_F(FirstHourTest, RawAndCorrectedAreToldTogether) {
  begin_test();
  desk().edits().make("sensor", [&](book::Edit& e) {
    record::Meter m;
    m.factor = 1.02;
    record::Test test = desk().test()->test;
    test.sensor_id = e.add(m);
    e.save(test);
  });
  window_->show_stage(Stage::Walk);
  type("560.0");
  key(Qt::Key_Return);
  const QString note = find<QLabel>("walkNote")->text();
  EXPECT_TRUE(note.contains("560.0 kept as read; corrected it is 571")) << note.toStdString();
}

TEST_F(FirstHourTest, AMeterCanBeASpectrometerWithItsOwnUsualSizes) {
  begin_test();
  auto* picker = find<QComboBox>("sensorPicker");
  picker->setCurrentIndex(picker->findText("New spectrometer"));
  emit picker->activated(picker->currentIndex());
  ASSERT_EQ(desk().test()->meters.size(), 1u);
  EXPECT_EQ(desk().test()->meters[0].kind, "spectrometer");
  for (int i = 0; i < 36; ++i) ASSERT_TRUE(desk().edits().accept(i, 500 + i % 7, "typed"));
  window_->show_stage(Stage::Read);
  ASSERT_TRUE(QTest::qWaitFor([&] { return desk().worked_out().budget() != nullptr; }, 60000));
  for (const Contribution& c : desk().worked_out().budget()->contributions)
    if (c.id == "calibration" || c.id == "spectral" || c.id == "cosine") {
      EXPECT_EQ(c.term.origin, Origin::Assumed);
      EXPECT_TRUE(c.term.words.find("spectrometer") != std::string::npos) << c.term.words;
    }
}

TEST_F(FirstHourTest, OneSimulatedReadingMarksItsSweepAlone) {
  begin_test();
  fill("heights", "60, 45");
  window_->show_stage(Stage::Walk);
  auto* mark = find<QLabel>("walkSimulated");
  ASSERT_TRUE(desk().edits().accept(0, 500, "simulated"));
  QTest::qWait(20);
  EXPECT_TRUE(mark->isVisible() && mark->text().contains("computed by a simulated bench, not measured"));
  window_->show_stage(Stage::Read);
  const auto* read = find<QLabel>("readProvenance");
  EXPECT_TRUE(read->isVisible() && read->text() == mark->text()) << "Read says the same";
  window_->show_stage(Stage::Walk);
  desk().step_rung(-1);
  ASSERT_TRUE(desk().edits().accept(0, 600, "typed"));
  EXPECT_FALSE(mark->isVisible()) << "the other sweep was measured";
  window_->show_stage(Stage::Read);
  EXPECT_FALSE(read->isVisible());
  const report::HtmlReport report = report::html_report({desk().worked_out().evaluation()}, {});
  EXPECT_TRUE(report.html.find("simulated bench, not measured: 45 cm at 100 %") != std::string::npos);
}

TEST_F(FirstHourTest, TheChosenRatioLeads) {
  begin_test();
  for (int i = 0; i < 36; ++i) ASSERT_TRUE(desk().edits().accept(i, 500 + 10 * (i % 6), "typed"));
  window_->show_stage(Stage::Read);
  auto* lead = find<QComboBox>("evennessLead");
  lead->setCurrentIndex(lead->findData("cv"));
  emit lead->activated(lead->currentIndex());
  EXPECT_EQ(desk().test()->test.evenness_lead, "cv");
  EXPECT_TRUE(QTest::qWaitFor([&] { return find<QWidget>("cv")->y() < find<QWidget>("lowest_over_mean")->y(); }, 60000))
      << "on Read";
  const report::HtmlReport report = report::html_report({desk().worked_out().evaluation()}, {});
  EXPECT_TRUE(report.html.find("<th>Spread (CV)</th>") != std::string::npos) << "in the report";
  EXPECT_EQ(find<FigureRow>("center_minus_corners_ppfd")->value(), QString("0"))
      << "no column is brighter in the middle";
  begin_test();
  EXPECT_EQ(desk().test()->test.evenness_lead, "cv") << "and the next test begins with it";
}

TEST_F(FirstHourTest, OwnSizesStandAmongTheNominalFootprints) {
  begin_test();
  for (int i = 0; i < 36; ++i) ASSERT_TRUE(desk().edits().accept(i, 700, "typed"));
  window_->show_stage(Stage::Read);
  fill("ownSizes", "75 x 75, 50 × 100");
  ASSERT_EQ(desk().test()->own_sizes.size(), 2u);
  EXPECT_NEAR(desk().test()->own_sizes[1].depth_m, 1.0, 1e-12);
  int found = 0;
  for (const NominalFootprint& n : desk().figures()->nominal)
    found += std::abs(n.size.width_m - 0.75) < 1e-9 || std::abs(n.size.width_m - 0.5) < 1e-9;
  EXPECT_EQ(found, 2);
  fill("ownSizes", "75 by 75");
  EXPECT_EQ(desk().test()->own_sizes.size(), 2u) << "what is no size changes nothing";
}

TEST_F(FirstHourTest, ImperialIsEverywhere) {
  begin_test();
  desk().set_units(UnitSystem::Imperial);
  desk().edits().make("spacing", [&](book::Edit& e) {
    record::Fixture f = desk().test()->fixture;
    f.emitter_spacing_m = 0.5;
    e.save(f);
  });
  for (int i = 0; i < 36; ++i) ASSERT_TRUE(desk().edits().accept(i, 500 + i % 6 * 9, "typed"));
  std::string words;
  for (const auto& finding : desk().worked_out().all_findings())
    words += finding.check.saw + finding.check.remedy + "; ";
  const Evidence* evidence = desk().worked_out().evidence_of(desk().sweep()->id);
  ASSERT_TRUE(QTest::qWaitFor(
      [&] {
        evidence = desk().worked_out().evidence_of(desk().sweep()->id);
        return evidence != nullptr;
      },
      60000));
  for (const Condition& c : evidence->conditions) words += c.saw + "; ";
  EXPECT_TRUE(words.find("between emitters") != std::string::npos) << words;
  EXPECT_TRUE(words.find("per ft²") != std::string::npos) << words;
  EXPECT_EQ(words.find(" cm"), std::string::npos) << words;
  EXPECT_EQ(words.find("m²,"), std::string::npos) << words;
}

TEST_F(FirstHourTest, WattsTypedForOneSweepAreNeverAnothers) {
  begin_test();
  fill("heights", "60, 45");
  window_->show_stage(Stage::Walk);
  desk().step_rung(-1);
  const record::Id first = desk().rung()->id;
  key(Qt::Key_W);
  ASSERT_EQ(focused()->objectName(), "walkWatts");
  type("250");
  key(Qt::Key_PageDown);
  ASSERT_NE(desk().rung()->id, first);
  EXPECT_EQ(focused()->objectName(), "walkValue") << "keys go on to the walk";
  EXPECT_EQ(find<QLineEdit>("walkWatts")->text(), "");
  key(Qt::Key_W);
  key(Qt::Key_Return);
  EXPECT_FALSE(desk().sweep() && desk().sweep()->power_w) << "nothing was typed for this one";
  desk().step_rung(-1);
  ASSERT_NE(desk().sweep(), nullptr);
  EXPECT_EQ(desk().sweep()->power_w, 250) << "and nothing was lost";
}

TEST(Words, NeedNoDisplay) {
  for (const char* asked : {"--help", "--version"}) {
    QProcess sunbreak;
    QProcessEnvironment bare = QProcessEnvironment::systemEnvironment();
    for (const char* name : {"DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM"}) bare.remove(name);
    sunbreak.setProcessEnvironment(bare);
    sunbreak.start(SUNBREAK_APP, {asked});
    ASSERT_TRUE(sunbreak.waitForFinished(60000));
    EXPECT_EQ(sunbreak.exitCode(), 0) << sunbreak.readAllStandardError().toStdString();
    EXPECT_EQ(sunbreak.exitStatus(), QProcess::NormalExit);
    EXPECT_TRUE(sunbreak.readAllStandardOutput().contains("unbreak"));
  }
}

}  // namespace sunbreak::desktop
