#include <QComboBox>
#include <QLabel>

#include "core/walk/walk_course.h"
#include "evaluation/test_checks.h"
#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

/// A hand that slips changes nothing that it was not meant to change.
class WalkHands : public WindowTest {
 protected:
  void SetUp() override {
    WindowTest::SetUp();
    key(Qt::Key_N, Qt::ControlModifier);
    window_->show_stage(Stage::Walk);
  }
  void enter(double value) {
    type(QString::number(value));
    key(Qt::Key_Return);
  }
  /// Plans two heights and goes to the upper one.
  void walk_two_heights() {
    fill("heights", "60, 45");
    ASSERT_EQ(desk().test()->planned_rungs().size(), 2u);
    desk().choose(desk().test()->planned_rungs().front().id, desk().stop()->id);
    find<QLineEdit>("walkValue")->setFocus();
  }
  const record::Sweep& sweep_at(record::Id rung) { return *desk().test()->sweep(rung, desk().stop()->id); }
  void undo() { key(Qt::Key_Z, Qt::ControlModifier); }
  void redo() { key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier); }
  QString place() { return find<QLabel>("walkPlace")->text(); }
  QString note() { return find<QLabel>("walkNote")->text(); }
  double raw(int station) { return desk().view()->states[static_cast<std::size_t>(station)].raw; }
  bool is_read(int station) {
    return desk().view()->states[static_cast<std::size_t>(station)].kind == evaluation::StationState::Read;
  }
  void walk_all(int count = 36) {
    for (int i = 0; i < count; ++i) enter(400 + i % 3);
  }
};

TEST_F(WalkHands, AFilledSheetIsTypedInItsOwnOrder) {
  const record::Test& test = desk().test()->test;
  const Layout layout = desk().view()->layout;
  std::vector<double> sheet(layout.stations.size());
  int number = 0, references = 0;
  for (const WalkStep& step : undisturbed_walk(layout, evaluation::walk_of(test, layout), test.reference_every)) {
    if (step.turn == Turn::Reference) {
      EXPECT_TRUE(place().startsWith("Reference")) << "after " << number;
      ++references;
      enter(450);
      continue;
    }
    EXPECT_TRUE(find<QLabel>("walkTurn")->text().contains(QString("number %1 ").arg(++number)));
    sheet[static_cast<std::size_t>(step.station)] = 440 + number % 7;
    enter(440 + number % 7);
  }
  EXPECT_GT(references, 0) << "a new test follows the drift";
  ASSERT_TRUE(desk().view()->complete());
  for (std::size_t i = 0; i < sheet.size(); ++i) EXPECT_EQ(raw(static_cast<int>(i)), sheet[i]);
}

TEST_F(WalkHands, UndoGoesBackToItsStation) {
  const std::vector<int> walk = desk().walk();
  for (const double value : {475, 480, 476, 4780}) enter(value);
  undo();
  EXPECT_FALSE(is_read(walk[3]));
  EXPECT_TRUE(note().isEmpty()) << "what was said of 4780 is gone: " << note().toStdString();
  enter(478);
  EXPECT_EQ(raw(walk[3]), 478) << "the value is of the station that was undone";
  EXPECT_FALSE(is_read(walk[4]));
  // Back over several, and forth again.
  undo(), undo();
  enter(477);
  EXPECT_EQ(raw(walk[2]), 477);
  undo(), redo();
  EXPECT_EQ(raw(walk[2]), 477);
  EXPECT_FALSE(is_read(walk[3]));
}

TEST_F(WalkHands, UndoOfAMissingStationLeadsBackToItsReading) {
  const std::vector<int> walk = desk().walk();
  walk_all(35 + 1);  // the reference among them
  key(Qt::Key_M);
  EXPECT_EQ(desk().view()->missing(), 1);
  EXPECT_EQ(focused()->objectName(), "walkWatts");
  EXPECT_TRUE(note().contains("1 missing")) << note().toStdString();
  undo();
  EXPECT_EQ(focused()->objectName(), "walkValue");
  enter(433);
  EXPECT_EQ(raw(walk.back()), 433) << "light is no watts";
  EXPECT_FALSE(desk().sweep()->power_w);
}

TEST_F(WalkHands, UndoGoesToTheSweepAndFieldThatItTouches) {
  walk_two_heights();
  const auto upper = desk().rung()->id;
  enter(475);
  fill("walkWatts", "240");
  desk().choose(desk().test()->planned_rungs().back().id, desk().stop()->id);
  ASSERT_NE(desk().rung()->id, upper);
  undo();
  EXPECT_EQ(desk().rung()->id, upper);
  EXPECT_EQ(focused()->objectName(), "walkWatts");
  EXPECT_FALSE(desk().sweep()->power_w);
}

TEST_F(WalkHands, AStationThatWasReadIsNotReplacedByWattsTypedIntoTheWrongField) {
  walk_all(36 + 1);
  ASSERT_TRUE(desk().view()->complete());
  const std::vector<int> walk = desk().walk();
  const double last = raw(walk.back());
  EXPECT_EQ(focused()->objectName(), "walkWatts") << "the keyboard is where the words say";
  find<QLineEdit>("walkValue")->setFocus();
  enter(322);
  EXPECT_EQ(raw(walk.back()), last);
  EXPECT_TRUE(note().contains("not kept")) << note().toStdString();
  // Who goes there may.
  find<QLineEdit>("walkValue")->clear();
  key(Qt::Key_Left);
  key(Qt::Key_Right);
  enter(322);
  EXPECT_EQ(raw(walk.back()), 322);
}

TEST_F(WalkHands, WattsOfTheSettingAreOfferedAtTheNextHeightAndMarkedAsCarried) {
  walk_two_heights();
  const auto upper = desk().rung()->id;
  walk_all(36 + 1);
  type("240");
  key(Qt::Key_Return);
  const auto lower = desk().rung()->id;
  ASSERT_NE(lower, upper) << "it goes on by itself";
  EXPECT_EQ(sweep_at(upper).power_w, 240);
  EXPECT_TRUE(sweep_at(upper).power_carried_from.empty());
  walk_all(36 + 1);
  ASSERT_TRUE(desk().view()->complete());
  ASSERT_EQ(desk().rung()->id, lower);
  EXPECT_EQ(find<QLineEdit>("walkWatts")->text(), "240");
  EXPECT_FALSE(sweep_at(lower).power_w) << "offered, not taken";
  EXPECT_TRUE(note().contains("marked as carried")) << note().toStdString();
  // Going elsewhere keeps nothing.
  find<QLineEdit>("walkValue")->setFocus();
  EXPECT_FALSE(sweep_at(lower).power_w);
  key(Qt::Key_Left);
  key(Qt::Key_Right);
  enter(402);
  EXPECT_EQ(find<QLineEdit>("walkWatts")->text(), "240");
  key(Qt::Key_Return);
  EXPECT_EQ(sweep_at(lower).power_w, 240);
  EXPECT_FALSE(sweep_at(lower).power_carried_from.empty());
  // Read anew they are the sweep's own.
  fill("walkWatts", "239");
  EXPECT_TRUE(sweep_at(lower).power_carried_from.empty());
}

TEST_F(WalkHands, TheFilmShowsAValueWithThePlaceItWasReadAt) {
  key(Qt::Key_P);
  const QString first = find<QLabel>("filmPlace")->text().replace('\n', ' ');
  enter(475);
  EXPECT_EQ(find<QLabel>("filmValue")->text(), "475");
  EXPECT_EQ(find<QLabel>("filmPlace")->text().replace('\n', ' '), first);
}

TEST_F(WalkHands, AWarningStandsOnceInTheColumn) {
  fill("heights", "60");
  find<QLineEdit>("walkValue")->setFocus();
  for (const double value : {475, 480, 476, 478, 700}) enter(value);
  for (int i = 0; i < 12; ++i) enter(500 + i);
  enter(5);
  const QString said = note(), listed = find<QLabel>("walkChecks")->text();
  for (const QString& line : listed.split('\n', Qt::SkipEmptyParts))
    if (line.size() > 20) {
      EXPECT_FALSE(said.contains(line.mid(4))) << line.toStdString();
    }
}

TEST_F(WalkHands, ACommaThatMayMeanTwoThingsIsAsked) {
  window_->show_stage(Stage::Rig);
  fill("heights", "60, 45");
  const auto before = desk().test()->planned_rungs().size();
  for (const char* unclear : {"45,5", "60, 45,5", "17,72"}) {
    fill("heights", unclear);
    EXPECT_EQ(desk().test()->planned_rungs().size(), before) << unclear;
  }
  fill("heights", "60; 45,5");
  ASSERT_EQ(desk().test()->planned_rungs().size(), 2u);
  EXPECT_NEAR(desk().test()->planned_rungs().back().height_m, 0.455, 1e-9);
  fill("heights", "60,45,30");
  EXPECT_EQ(desk().test()->planned_rungs().size(), 3u);
}

TEST_F(WalkHands, HangingByTheCenterTakesATypedValue) {
  record::Test test = desk().test()->test;
  test.height_rule_ppfd = 500;
  desk().edits().make("rule", [&](book::Edit& e) { e.save(test); });
  auto* reads = find<QLineEdit>("walkHangReads");
  ASSERT_TRUE(reads);
  ASSERT_TRUE(reads->isVisibleTo(window_.get()));
  reads->setFocus();
  type("400");
  EXPECT_TRUE(
      QTest::qWaitFor([&] { return find<QLabel>("walkHangWords")->text().contains("The center reads 400"); }, 60000));
}

TEST_F(WalkHands, NeighborsThatReadNearlyTheSameLookNearlyTheSame) {
  enter(475), enter(480);
  EXPECT_GE(desk().scale().high - desk().scale().low, 47);
}
