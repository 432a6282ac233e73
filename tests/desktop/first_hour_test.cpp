#include <QComboBox>
#include <QLabel>
#include <QProcess>
#include <QProcessEnvironment>
#include <QPushButton>
#include <QTimer>
#include <QWheelEvent>

#include "desktop/home/home_view.h"
#include "desktop/home/test_cards.h"
#include "desktop/walk/walk_view.h"
#include "desktop/window_fixture.h"

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

TEST_F(FirstHourTest, TheWheelTurnsNoChoiceThatHasNoKeyboard) {
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
  EXPECT_NE(kind->currentIndex(), before);
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
