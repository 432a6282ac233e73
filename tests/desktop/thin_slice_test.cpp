#include <QApplication>
#include <QComboBox>
#include <QDir>
#include <QFile>
#include <QLabel>
#include <QPushButton>
#include <QRegularExpression>

#include "desktop/read/figure_row.h"
#include "desktop/shell/stages.h"
#include "desktop/widgets/text.h"
#include "exchange/package/data_package.h"
#include "record/renumber.h"
#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

namespace {

/// 6 × 6 readings, 300 in the corners' ring falling from 600 in the middle: by ring 20 × 300, 12 × 450, 4 × 600.
double reading_at(int column, int row) {
  const int ring = std::min({column, row, 5 - column, 5 - row});
  return ring == 0 ? 300 : ring == 1 ? 450 : 600;
}
const double mean_by_hand = (20 * 300 + 12 * 450 + 4 * 600) / 36.0;  // 383.33

}  // namespace

TEST_F(WindowTest, FromANewFixtureToAPublishedPage) {
  key(Qt::Key_N, Qt::ControlModifier);
  ASSERT_NE(desk().test(), nullptr);
  EXPECT_EQ(QApplication::focusWidget()->objectName(), "fixtureName")
      << "the first thing to type is the fixture's name";
  fill("fixtureName", "Test Lamp");
  fill("benchName", "Test Bench");
  fill("benchWidth", "100");
  fill("benchDepth", "100 cm");
  fill("gridColumns", "6");
  fill("gridRows", "6");
  fill("heights", "45");
  fill("stops", "100");
  ASSERT_EQ(desk().test()->fixture.name, "Test Lamp");
  ASSERT_EQ(desk().test()->bench.width_m, 1.0);

  key(Qt::Key_3, Qt::AltModifier);
  ASSERT_EQ(QApplication::focusWidget()->objectName(), "walkValue");
  int typed = 0;
  // The walk opens with the corners and the middle, then snakes from the far row; the middle is read again at 24.
  const std::vector<int> probe{30, 35, 5, 0, 14};
  std::vector<int> walk = probe;
  for (int row = 5; row >= 0; --row)
    for (int i = 0; i < 6; ++i)
      if (const int s = row * 6 + ((5 - row) % 2 == 0 ? i : 5 - i);
          std::find(probe.begin(), probe.end(), s) == probe.end())
        walk.push_back(s);
  for (const int station : walk) {
    type(QString::number(reading_at(station % 6, station / 6)));
    key(Qt::Key_Return);
    ++typed;
    ASSERT_EQ(static_cast<int>(desk().test()->readings.size()), typed) << "each reading is in the book before the next";
    if (!reference_due(desk().sweep_on_walk())) continue;
    EXPECT_EQ(typed, 5 + 24) << "counted from the middle, the last of the probe";
    type(QString::number(reading_at(14 % 6, 14 / 6)));
    key(Qt::Key_Return);
    ASSERT_EQ(desk().test()->side_readings.size(), 1u);
  }
  fill("walkWatts", "250");

  key(Qt::Key_4, Qt::AltModifier);
  const auto shown = [&](const char* figure) { return find<FigureRow>(figure)->value().toStdString(); };
  EXPECT_EQ(shown("mean_ppfd"), "383");
  EXPECT_EQ(shown("lowest_over_mean"), "0.78");  // 300 / 383.33
  EXPECT_EQ(shown("lowest_over_highest"), "0.50");
  EXPECT_EQ(shown("highest_over_lowest"), "2.00");
  EXPECT_EQ(shown("canopy_efficacy_umol_j"), "1.53");  // 383.33 · 1 m² / 250 W
  EXPECT_EQ(shown("ppfd_per_watt"), "1.53");
  EXPECT_NEAR(desk().figures()->mean_ppfd, mean_by_hand, 1e-9);
  for (int row = 0; row < 6; ++row)
    for (int column = 0; column < 6; ++column)
      EXPECT_EQ(desk().view()->ppfd[row * 6 + column], reading_at(column, row));

  key(Qt::Key_8, Qt::AltModifier);
  const QString out = path("published");
  find<QLineEdit>("publishFolder")->setText(out);
  QTest::mouseClick(find<QPushButton>("writePage"), Qt::LeftButton);
  QTest::mouseClick(find<QPushButton>("writePackage"), Qt::LeftButton);
  const auto written = [&](const char* what) {
    return QTest::qWaitFor(
        [&] { return find<QLabel>("written")->text().contains(QRegularExpression(QString("Written: .*") + what)); },
        60000);
  };
  ASSERT_TRUE(written("zip"));
  const QStringList pages = QDir(out).entryList({"*.html"}), packages = QDir(out).entryList({"*.zip"});
  ASSERT_EQ(pages.size(), 1);
  ASSERT_EQ(packages.size(), 1);
  QFile page(out + "/" + pages.first());
  ASSERT_TRUE(page.open(QIODevice::ReadOnly));
  const QString html = QString::fromUtf8(page.readAll());
  EXPECT_TRUE(html.contains("Test Lamp"));
  EXPECT_TRUE(html.contains("1.53 µmol/J"));
  const auto back = exchange::read_package_file((out + "/" + packages.first()).toStdString());
  ASSERT_TRUE(back.ok()) << back.problem().sentence();
  EXPECT_EQ(back.value(), record::with_plain_ids(*desk().test()));

  page.close();
  ASSERT_TRUE(page.open(QIODevice::Append));
  page.write("<!-- a word of one's own -->");
  page.close();
  find<QLabel>("written")->clear();
  QTest::mouseClick(find<QPushButton>("writePage"), Qt::LeftButton);
  EXPECT_TRUE(written("html"));
  EXPECT_EQ(QDir(out).entryList({"*.html"}).size(), 2) << "a page that somebody changed is never written over";

  open();  // and all of it is there the next day
  window_->open_test(1);
  EXPECT_NEAR(desk().figures()->mean_ppfd, mean_by_hand, 1e-9);
}

TEST_F(WindowTest, UndoAndRedoReachEverything) {
  key(Qt::Key_N, Qt::ControlModifier);
  fill("fixtureName", "First");
  fill("fixtureName", "Second");
  window_->show_stage(Stage::Walk);
  type("424");
  key(Qt::Key_Return);
  EXPECT_EQ(desk().view()->read(), 1);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(desk().view()->read(), 0);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(desk().test()->fixture.name, "First");
  key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(desk().test()->fixture.name, "Second");
  EXPECT_EQ(desk().view()->read(), 1);
}

TEST_F(WindowTest, UndoingTheTestItselfLeadsHome) {
  key(Qt::Key_N, Qt::ControlModifier);
  window_->show_stage(Stage::Walk);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(desk().test(), nullptr);
  key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(desk().book().all<record::Test>().size(), 1u);
}

TEST_F(WindowTest, WalkTakesMissingStationsCorrectionsAndSlips) {
  key(Qt::Key_N, Qt::ControlModifier);
  window_->show_stage(Stage::Walk);
  type("4o0");
  key(Qt::Key_Return);
  EXPECT_EQ(desk().view()->read(), 0) << "what is no number is not kept";
  EXPECT_TRUE(find<QLabel>("walkNote")->text().contains("4o0"));
  EXPECT_EQ(find<QLineEdit>("walkValue")->text(), "4o0") << "and stays to be mended";
  key(Qt::Key_Escape);
  type("400,5");
  key(Qt::Key_Return);
  EXPECT_EQ(desk().view()->states[30].raw, 400.5) << "far left station, decimal comma";
  key(Qt::Key_M);
  EXPECT_EQ(desk().view()->states[35].kind, evaluation::StationState::Missing)
      << "the far right one, next of the probe";
  key(Qt::Key_Up);
  for (int i = 0; i < 5; ++i) key(Qt::Key_Up);
  type("380");
  key(Qt::Key_Return);
  EXPECT_EQ(desk().view()->states[35].raw, 380) << "the arrows went back to the missing one";
  for (int i = 0; i < 5; ++i) key(Qt::Key_Up);
  key(Qt::Key_Delete);
  EXPECT_EQ(desk().view()->states[35].kind, evaluation::StationState::Untouched);
  EXPECT_EQ(desk().test()->readings.size(), 2u) << "raw values stay";
}

TEST_F(WindowTest, ASlippedDigitIsSaidBeforeTheNextStationAndMendedThere) {
  key(Qt::Key_N, Qt::ControlModifier);
  window_->show_stage(Stage::Walk);
  const auto keep = [&](const char* value) {
    type(value);
    key(Qt::Key_Return);
  };
  const auto at = [&] { return find<QLabel>("walkPlace")->text(); };
  for (int i = 0; i < 16; ++i) keep(i % 3 == 0 ? "400" : "402");
  const auto range = [&] { return desk().scale(); };
  const QString slipped_at = at();
  keep("40");
  EXPECT_EQ(at(), slipped_at) << "the next station waits";
  EXPECT_TRUE(find<QLabel>("walkNote")->text().contains("Type it again"))
      << find<QLabel>("walkNote")->text().toStdString();
  EXPECT_TRUE(find<QLabel>("walkNote")->text().contains("40 ")) << "what is wrong, too, and there alone";
  EXPECT_FALSE(find<QLabel>("walkChecks")->text().contains("40 "));
  keep("401");
  EXPECT_NE(at(), slipped_at);
  EXPECT_TRUE(find<QLabel>("walkChecks")->text().isEmpty());
  EXPECT_EQ(desk().test()->readings.size(), 18u) << "the slip stays on record";
  const auto before = range();
  const QString left_at = at();
  keep("4020");
  EXPECT_EQ(at(), left_at);
  EXPECT_EQ(range().high, before.high) << "a slip flattens no colors";
  key(Qt::Key_Return);
  EXPECT_NE(at(), left_at) << "Enter leaves it as it is";
  key(Qt::Key_C);
  EXPECT_EQ(at(), left_at) << "and one key leads back";
}

TEST_F(WindowTest, ARefusedFieldSaysWhyAndKeepsWhatWasTyped) {
  key(Qt::Key_N, Qt::ControlModifier);
  fill("heights", "45, tall");
  EXPECT_EQ(find<QLineEdit>("heights")->text(), "45, tall");
  EXPECT_EQ(desk().test()->rungs.size(), 1u);
  bool said = false;
  for (const QLabel* label : window_->findChildren<QLabel*>())
    said = said || (label->isVisible() && label->text().contains("'tall'"));
  EXPECT_TRUE(said);
  fill("heights", "75, 60, 18 in");
  ASSERT_EQ(desk().test()->rungs.size(), 3u);
  EXPECT_NEAR(desk().test()->rungs[2].height_m, 0.4572, 1e-12);
}

TEST_F(WindowTest, KeysLeadThroughStagesRungsAndStops) {
  key(Qt::Key_N, Qt::ControlModifier);
  fill("heights", "60, 45");
  fill("stops", "100, 50");
  window_->show_stage(Stage::Walk);
  EXPECT_EQ(desk().rung()->height_m, 0.45) << "the height chosen before";
  key(Qt::Key_PageUp);
  EXPECT_EQ(desk().rung()->height_m, 0.6);
  key(Qt::Key_BracketRight);
  EXPECT_EQ(desk().stop()->percent, 50);
  EXPECT_TRUE(find<QLineEdit>("walkValue")->text().isEmpty());
  for (int i = 1; i <= 8; ++i) key(static_cast<Qt::Key>(Qt::Key_0 + i), Qt::AltModifier);
  key(Qt::Key_M, Qt::ControlModifier);
  EXPECT_EQ(desk().units(), UnitSystem::Imperial);
  key(Qt::Key_Home, Qt::AltModifier);
  EXPECT_TRUE(find<QWidget>("cards")->isVisible());
}

TEST_F(WindowTest, UnitsAndWindowStateOutliveAClosing) {
  key(Qt::Key_M, Qt::ControlModifier);
  window_->resize(1100, 720);
  window_->close();
  open();
  EXPECT_EQ(desk().units(), UnitSystem::Imperial);
}

TEST_F(WindowTest, ASecondWindowOnTheBookIsReadOnlyAndSaysSo) {
  key(Qt::Key_N, Qt::ControlModifier);
  auto second = std::make_unique<MainWindow>(std::move(book::Book::open(book_file()).value()));
  second->show();
  EXPECT_TRUE(second->desk().read_only());
  bool said = false;
  for (const QLabel* label : second->findChildren<QLabel*>())
    said = said || (label->isVisible() && label->text().contains("Read-only"));
  EXPECT_TRUE(said);
  second->open_test(1, Stage::Walk);
  EXPECT_FALSE(second->desk().edits().accept(0, 400, "typed"));
  EXPECT_TRUE(second->desk().book().all<record::Reading>().empty());
}
