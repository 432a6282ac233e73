#include "desktop/import/tables_dialog.h"

#include <QElapsedTimer>
#include <QFile>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>
#include <cmath>

#include "book/plan.h"
#include "evaluation/evaluation.h"
#include "exchange/package/data_package.h"
#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

namespace {

/// A matrix of side × side readings, brighter toward the middle.
std::string matrix(int side, double level) {
  std::string text;
  for (int r = 0; r < side; ++r)
    for (int c = 0; c < side; ++c) {
      const double x = (c + 0.5) / side - 0.5, y = (r + 0.5) / side - 0.5;
      text += QString::number(level * (1 - x * x - y * y), 'f', 1).toStdString() + (c + 1 < side ? "," : "\n");
    }
  return text;
}

}  // namespace

class TablesTest : public WindowTest {
 protected:
  void SetUp() override {
    WindowTest::SetUp();
    key(Qt::Key_N, Qt::ControlModifier);
    fill("heights", "45");
  }
  QTableWidget* list(TablesDialog& dialog) { return dialog.findChild<QTableWidget*>("tablesList"); }
};

TEST_F(TablesTest, TablesFindTheirCellsAndTakingThemIsOneStep) {
  TablesDialog dialog(desk(), {{"bars_45cm.csv", matrix(6, 500)}, {"bars_30cm.csv", matrix(6, 700)}}, window_.get());
  dialog.show();
  EXPECT_EQ(list(dialog)->item(0, 4)->text(), "a new sweep");
  EXPECT_EQ(list(dialog)->item(1, 4)->text(), "a new height");
  QTest::mouseClick(dialog.findChild<QPushButton*>("takeTables"), Qt::LeftButton);
  ASSERT_EQ(desk().test()->rungs.size(), 2u);
  EXPECT_EQ(desk().test()->sweeps.size(), 2u);
  EXPECT_EQ(desk().test()->readings.size(), 72u);
  desk().edits().undo();
  EXPECT_EQ(desk().test()->rungs.size(), 1u);
  EXPECT_TRUE(desk().test()->sweeps.empty());
}

TEST_F(TablesTest, WhatIsNotKnownIsAskedForAndNothingIsTakenBefore) {
  TablesDialog dialog(desk(), {{"a.csv", matrix(6, 500)}, {"b_45cm.csv", matrix(6, 700)}}, window_.get());
  dialog.show();
  auto* take = dialog.findChild<QPushButton*>("takeTables");
  EXPECT_FALSE(take->isEnabled());
  EXPECT_TRUE(list(dialog)->item(0, 4)->text().contains("which height"));
  list(dialog)->item(0, 2)->setText("45");
  EXPECT_FALSE(take->isEnabled()) << "two tables cannot be the same sweep";
  EXPECT_TRUE(list(dialog)->item(0, 4)->text().contains("the same sweep as b_45cm.csv"));
  list(dialog)->item(0, 2)->setText("1200");
  EXPECT_FALSE(take->isEnabled()) << "no bench is that high";
  list(dialog)->item(0, 2)->setText("12 in");
  EXPECT_TRUE(take->isEnabled());
  list(dialog)->item(0, 0)->setCheckState(Qt::Unchecked);
  EXPECT_EQ(take->text(), "Take 1 tables");
}

TEST_F(TablesTest, AnAssumedUnitIsSaidUntilTheHeightIsTyped) {
  TablesDialog dialog(desk(), {{"h30.csv", matrix(6, 500)}}, window_.get());
  dialog.show();
  EXPECT_EQ(list(dialog)->item(0, 4)->text(), "a new height, its height taken as cm");
  list(dialog)->item(0, 2)->setText("31");
  EXPECT_EQ(list(dialog)->item(0, 4)->text(), "a new height");
}

TEST_F(TablesTest, AFileThatIsNoTableIsNamedAndTheOthersAreTaken) {
  TablesDialog dialog(desk(), {{"notes_30cm.txt", "hello there"}, {"b_45cm.csv", matrix(6, 700)}}, window_.get());
  dialog.show();
  EXPECT_TRUE(list(dialog)->item(0, 1)->text().startsWith("◣"));
  QTest::mouseClick(dialog.findChild<QPushButton*>("takeTables"), Qt::LeftButton);
  EXPECT_EQ(desk().test()->sweeps.size(), 1u);
}

TEST_F(TablesTest, TenDenseScansComeInAndAreShown) {
  std::vector<TableFile> files;
  for (int i = 0; i < 10; ++i) files.push_back({QString("scan_%1cm.csv").arg(20 + 7 * i), matrix(48, 1200 - 80 * i)});
  TablesDialog dialog(desk(), files, window_.get());
  dialog.show();
  QTest::mouseClick(dialog.findChild<QPushButton*>("takeTables"), Qt::LeftButton);
  EXPECT_EQ(desk().test()->readings.size(), 23040u);
  window_->show_stage(Stage::Read);
  EXPECT_EQ(desk().view()->states.size(), 2304u);
  QApplication::processEvents();
  EXPECT_FALSE(window_->grab().isNull());
}

TEST_F(TablesTest, ASweepsGridCanBecomeThePlans) {
  TablesDialog dialog(desk(), {{"bars_45cm.csv", matrix(8, 500)}}, window_.get());
  dialog.show();
  QTest::mouseClick(dialog.findChild<QPushButton*>("takeTables"), Qt::LeftButton);
  ASSERT_EQ(desk().view()->layout.columns, 8);
  ASSERT_EQ(desk().test()->test.columns, 6);
  window_->show_stage(Stage::Walk);
  key(Qt::Key_G, Qt::ControlModifier);
  EXPECT_EQ(desk().test()->test.columns, 8);
  desk().edits().undo();
  EXPECT_EQ(desk().test()->test.columns, 6);
}

namespace {

/// Takes everything in the list of tables that comes up.
void take_tables(int* rows = nullptr) {
  auto* timer = new QTimer(qApp);
  QObject::connect(timer, &QTimer::timeout, timer, [=] {
    QWidget* dialog = QApplication::activeModalWidget();
    if (!dialog) return;
    timer->stop();
    timer->deleteLater();
    ASSERT_EQ(dialog->objectName(), "tablesDialog");
    if (rows) *rows = dialog->findChild<QTableWidget*>("tablesList")->rowCount();
    QTest::mouseClick(dialog->findChild<QPushButton*>("takeTables"), Qt::LeftButton);
  });
  timer->start(10);
}

}  // namespace

TEST_F(TablesTest, AFileThatSaysAnotherHeightGoesThere) {
  QFile file(path("bars.csv"));
  ASSERT_TRUE(file.open(QIODevice::WriteOnly));
  file.write("Height: 60 cm, dimmer 100 %,,,,,\n" + QByteArray::fromStdString(matrix(6, 500)));
  file.close();
  const record::Id open_rung = desk().rung()->id;
  take_tables();
  window_->bring_in_file(path("bars.csv"));
  const record::TestRecord& t = *desk().test();
  ASSERT_EQ(t.sweeps.size(), 1u);
  EXPECT_NE(t.sweeps[0].rung_id, open_rung) << "never into the sweep that happened to be open";
  EXPECT_NEAR(t.rung(t.sweeps[0].rung_id)->height_m, 0.6, 1e-9);
  EXPECT_EQ(t.readings.size(), 36u);
}

TEST_F(TablesTest, TheTableForASpreadsheetReadsBack) {
  open_sample_book();
  open_test(desk().book().all<record::Test>().back().id - 6, Stage::Read);  // one of several heights
  const record::TestRecord before = *desk().test();
  ASSERT_GT(before.sweeps.size(), 1u);
  QFile file(path("all.csv"));
  ASSERT_TRUE(file.open(QIODevice::WriteOnly));
  file.write(QByteArray::fromStdString(exchange::spreadsheet_csv({desk().worked_out().evaluation()})));
  file.close();
  record::Id copy = 0;
  desk().edits().plan([&]() -> std::optional<Problem> {
    copy = book::duplicate_plan(desk().book(), before.test.id, before.test.fixture_id);
    return {};
  });
  open_test(copy, Stage::Walk);
  int rows = 0;
  take_tables(&rows);
  window_->bring_in_file(path("all.csv"));
  EXPECT_EQ(rows, static_cast<int>(before.sweeps.size()));
  const record::TestRecord& after = *desk().test();
  ASSERT_EQ(after.sweeps.size(), before.sweeps.size());
  const auto again = evaluation::evaluate(after), once = evaluation::evaluate(before);
  for (const record::Sweep& sweep : before.sweeps)
    for (const record::Sweep& other : after.sweeps)
      if (std::abs(after.rung(other.rung_id)->height_m - before.rung(sweep.rung_id)->height_m) < 1e-6 &&
          after.stop(other.stop_id)->percent == before.stop(sweep.stop_id)->percent) {
        const auto& a = again->view(other.id)->states;
        const auto& b = once->view(sweep.id)->states;
        ASSERT_EQ(a.size(), b.size());
        for (std::size_t i = 0; i < a.size(); ++i) EXPECT_EQ(a[i].raw, b[i].raw);
      }
}
