#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QDir>
#include <QFile>
#include <QLabel>
#include <QPushButton>
#include <QRegularExpression>
#include <QTimer>

#include "desktop/import/import_dialog.h"
#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

class WalkTest : public WindowTest {
 protected:
  void SetUp() override {
    WindowTest::SetUp();
    key(Qt::Key_N, Qt::ControlModifier);
  }
  void enter(double value) {
    type(QString::number(value));
    key(Qt::Key_Return);
  }
  QString place() { return find<QLabel>("walkPlace")->text(); }
};

TEST_F(WalkTest, SpotsAreWalkedByName) {
  auto* kind = find<QComboBox>("gridKind");
  kind->setCurrentIndex(kind->findData("spots"));
  emit kind->activated(kind->currentIndex());
  window_->show_stage(Stage::Walk);
  const QString first = place();
  EXPECT_FALSE(first.contains("Row"));
  enter(400);
  EXPECT_NE(place(), first);
  for (int i = 1; i < 9; ++i) enter(400);
  EXPECT_EQ(desk().view()->read(), 9);
  EXPECT_NEAR(desk().figures()->mean_ppfd, 400, 1e-9);
}

TEST_F(WalkTest, ArrowsStayOnTheGrid) {
  window_->show_stage(Stage::Walk);
  for (int i = 0; i < 10; ++i) key(Qt::Key_Up);
  for (int i = 0; i < 10; ++i) key(Qt::Key_Left);
  EXPECT_TRUE(place().startsWith("Row 1 from the far wall,\n1st from the left"));
  for (int i = 0; i < 10; ++i) key(Qt::Key_Down);
  for (int i = 0; i < 10; ++i) key(Qt::Key_Right);
  EXPECT_TRUE(place().startsWith("Row 6 from the far wall,\n6th from the left"));
}

TEST_F(WalkTest, GoesOnWhereItWasLeftDaysBefore) {
  window_->show_stage(Stage::Walk);
  for (int i = 0; i < 8; ++i) enter(400 + i);
  const QString next = place();
  open();
  window_->open_test(1, Stage::Walk);
  EXPECT_EQ(place(), next);
  EXPECT_EQ(desk().view()->read(), 8);
}

TEST_F(WalkTest, ACleanSweepTakesTheDigitsAndOneKeyEach) {
  window_->show_stage(Stage::Walk);
  for (int i = 0; i < 36 + 1; ++i) enter(400 + i % 3);
  EXPECT_EQ(desk().view()->read(), 36);
  EXPECT_EQ(desk().test()->side_readings.size(), 1u) << "and one of the reference, which was due once";
  EXPECT_TRUE(find<QLabel>("walkNote")->text().contains("watts"));
}

TEST_F(WalkTest, ImperialPlacesAreInInches) {
  key(Qt::Key_M, Qt::ControlModifier);
  window_->show_stage(Stage::Walk);
  EXPECT_TRUE(find<QLabel>("walkWhere")->text().contains(" in"));
}

TEST_F(WalkTest, AnUnderstandingCanBeOverruledInThePreview) {
  window_->show_stage(Stage::Walk);
  ImportDialog dialog(desk(), "700,800,900\n400,500,600\n100,200,300\n", "table", "pasted", window_.get());
  dialog.show();
  auto* first_row = dialog.findChild<QComboBox*>("firstRow");
  first_row->setCurrentIndex(first_row->findData(0));
  emit first_row->activated(first_row->currentIndex());
  QTest::mouseClick(dialog.findChild<QPushButton*>("takeReadings"), Qt::LeftButton);
  EXPECT_EQ(desk().view()->ppfd[0], 700) << "the first row is the one at the door";
  EXPECT_EQ(desk().view()->layout.columns, 3) << "the sweep takes the table's grid";
  desk().edits().undo();
  EXPECT_EQ(desk().view()->layout.columns, 6) << "and undo brings the plan's back";
}

TEST_F(WalkTest, PublishWritesTheChosenSweepAloneAndInTheChosenUnits) {
  fill("heights", "60, 45");
  for (int i = 0; i < 36; ++i) desk().edits().accept(i, 400, "typed");
  desk().step_rung(-1);
  for (int i = 0; i < 36; ++i) desk().edits().accept(i, 300, "typed");
  key(Qt::Key_M, Qt::ControlModifier);
  window_->show_stage(Stage::Publish);
  find<QLineEdit>("publishFolder")->setText(path("out"));
  find<QCheckBox>("allSweeps")->setChecked(false);
  QTest::mouseClick(find<QPushButton>("writePage"), Qt::LeftButton);
  QTest::mouseClick(find<QPushButton>("writeTable"), Qt::LeftButton);
  EXPECT_TRUE(QTest::qWaitFor(
      [&] { return find<QLabel>("written")->text().contains(QRegularExpression("Written: .*csv")); }, 60000));
  const QStringList pages = QDir(path("out")).entryList({"*.html"});
  ASSERT_EQ(pages.size(), 1);
  QFile page(path("out") + "/" + pages.first());
  ASSERT_TRUE(page.open(QIODevice::ReadOnly));
  const QString html = QString::fromUtf8(page.readAll());
  EXPECT_TRUE(html.contains("23.6 in"));
  EXPECT_FALSE(html.contains("17.7 in")) << "the other height was left out";
  EXPECT_EQ(QDir(path("out")).entryList({"*.csv"}).size(), 1);
}

TEST_F(WalkTest, AFolderThatCannotBeWrittenIsSaid) {
  QFile in_the_way(path("file"));
  ASSERT_TRUE(in_the_way.open(QIODevice::WriteOnly));
  in_the_way.close();
  window_->show_stage(Stage::Publish);
  find<QLineEdit>("publishFolder")->setText(path("file") + "/below");
  QTest::mouseClick(find<QPushButton>("writePackage"), Qt::LeftButton);
  EXPECT_TRUE(QTest::qWaitFor([&] { return find<QLabel>("written")->text().contains("cannot be written"); }, 60000));
}
