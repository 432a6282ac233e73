#include <QComboBox>
#include <QPushButton>
#include <QRegularExpression>
#include <QSlider>
#include <QTableWidget>

#include "book/target_shelf.h"
#include "core/bench/walk_order.h"
#include "desktop/home/test_cards.h"
#include "desktop/read/target_sets_dialog.h"
#include "desktop/read_fixture.h"

namespace sunbreak::desktop {

TEST_F(ReadTest, ThePhotoperiodSliderMovesBandsOfDailyLight) {
  auto* table = targets_table();
  const auto shows = [&](const char* band) {
    return QTest::qWaitFor(
        [&] { return table->columnCount() > 2 && table->horizontalHeaderItem(2)->text().contains(band); }, 60000);
  };
  find<QComboBox>("targetSet")->setCurrentText("Daily light");
  EXPECT_TRUE(shows("247–401")) << "16 to 26 mol over 18 h";
  find<QSlider>("photoperiodSlider")->setValue(20);
  EXPECT_TRUE(shows("444–722")) << "the same over 10 h";
}

TEST_F(ReadTest, ATestsBandOfDailyLightMovesWithItsPhotoperiod) {
  record::Test test = desk().test()->test;
  for (const record::CropTarget& t : book::crop_targets(desk().book()))
    if (t.by_daily_light && t.name == "young plants") evaluation::set_target(test, t);
  desk().edits().make("target", [&](book::Edit& e) { e.save(test); });
  EXPECT_NEAR(desk().test()->test.target_low_ppfd, 16e6 / (3600 * 18), 1e-6);
  fill("photoperiod", "12");
  EXPECT_NEAR(desk().test()->test.target_low_ppfd, 16e6 / (3600 * 12), 1e-6);
  EXPECT_TRUE(evaluation::target_of(book::crop_targets(desk().book()), desk().test()->test));
}

TEST_F(ReadTest, TargetListsAreEditedRefusedAndRestored) {
  TargetSetsDialog dialog(desk(), "Gentle", window_.get());
  dialog.show();
  auto* list = dialog.findChild<QTableWidget*>("targetList");
  ASSERT_EQ(list->rowCount(), 4);
  list->item(0, 2)->setText("120");
  EXPECT_EQ(evaluation::targets_of_set(book::crop_targets(desk().book()), "Gentle")[0].low, 120);
  list->item(0, 3)->setText("90");
  EXPECT_EQ(evaluation::targets_of_set(book::crop_targets(desk().book()), "Gentle")[0].high, 140) << "refused";
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
  EXPECT_EQ(evaluation::targets_of_set(book::crop_targets(desk().book()), "Gentle, own").size(), 5u);
  QTest::mouseClick(dialog.findChild<QPushButton*>("restoreSets"), Qt::LeftButton);
  EXPECT_EQ(evaluation::targets_of_set(book::crop_targets(desk().book()), "Gentle")[0].low, 70);
  EXPECT_EQ(evaluation::targets_of_set(book::crop_targets(desk().book()), "Gentle, own").size(), 5u)
      << "own lists stay";
  desk().edits().undo();
  EXPECT_EQ(evaluation::targets_of_set(book::crop_targets(desk().book()), "Gentle")[0].low, 120) << "undone";
}

TEST_F(ReadTest, StatedUncertaintiesReplaceTheAssumedOnes) {
  const double before = desk().worked_out().budget()->expanded("mean_ppfd");
  key(Qt::Key_4);
  fill("spectralUncertainty", "4");
  settle();
  EXPECT_DOUBLE_EQ(*desk().test()->test.spectral_uncertainty_pct, 4);
  EXPECT_GT(desk().worked_out().budget()->expanded("mean_ppfd"), 1.2 * before);
}

TEST_F(ReadTest, TheBestSettingOfATargetIsBoldAndADotIsWhatServes) {
  auto* table = targets_table();
  for (int c = 0; c < table->columnCount(); ++c) {
    double most = 0;
    int best = 0;
    for (int r = 0; r < table->rowCount(); ++r) {
      const QString text = table->item(r, c)->text();
      most = std::max(most, QString(text).remove(QRegularExpression("[^0-9]")).toDouble());
      best += table->item(r, c)->font().bold();
      table->setCurrentCell(r, c);
      EXPECT_EQ(text.startsWith(QChar(0x25CF)), words("targetDetails").contains("Serves the whole footprint"))
          << text.toStdString() << " beside " << words("targetDetails").toStdString();
    }
    EXPECT_EQ(best, most > 0 ? 1 : 0) << c;
  }
}

TEST_F(ReadTest, DetailsOfACellNameSweepTargetAndVerdict) {
  targets_table();
  const QString details = words("targetDetails");
  EXPECT_TRUE(details.contains("flowering & fruiting at 40 cm")) << details.toStdString();
  EXPECT_TRUE(details.contains("edge mean"));
  EXPECT_TRUE(details.contains("whole footprint"));
}

TEST_F(ReadTest, TheWeakestSweepIsOneKeyAway) {
  // The reference read twice lifts this sweep to two missing conditions; the others miss three.
  const int reference = reference_station(desk().view()->layout);
  const double raw = desk().view()->states[reference].raw;
  for (int i = 0; i < 2; ++i) ASSERT_TRUE(desk().edits().accept_beside(reference, "reference", {raw, "typed"}));
  key(Qt::Key_4);
  ASSERT_TRUE(QTest::qWaitFor([&] { return desk().worked_out().weakest().has_value(); }, 60000));
  ASSERT_EQ(desk().worked_out().evidence_of(desk().sweep()->id)->grade, Grade::Working);
  ASSERT_EQ(desk().worked_out().weakest()->first, Grade::Spot);
  EXPECT_TRUE(words("evidenceGrade").contains("Working"));
  auto* way = find<QPushButton>("weakestSweep");
  ASSERT_TRUE(QTest::qWaitFor([&] { return way->isVisible(); }, 60000));
  way->setFocus();
  key(Qt::Key_Space);
  EXPECT_EQ(desk().sweep()->id, desk().worked_out().weakest()->second);
  QApplication::processEvents();
  EXPECT_TRUE(words("evidenceGrade").contains("Spot"));
  EXPECT_FALSE(way->isVisible()) << "this is the weakest";
}

TEST_F(ReadTest, TheCardOnHomeShowsTheGrade) {
  auto* cards = window_->findChild<TestCards*>();
  const auto spoken = [&] { return cards->item(0)->data(Qt::AccessibleTextRole).toString(); };
  window_->show_home();
  EXPECT_TRUE(QTest::qWaitFor([&] { return spoken().contains("evidence: Spot"); }, 60000)) << spoken().toStdString();
  // Without a reading there is nothing to grade.
  desk().edits().make("no readings", [&](book::Edit& e) {
    for (const record::Sweep& sweep : std::vector<record::Sweep>(desk().test()->sweeps))
      for (int i = 0; i < 144; ++i) e.clear_station(sweep.id, i);
  });
  EXPECT_TRUE(QTest::qWaitFor([&] { return !spoken().contains("evidence"); }, 60000)) << spoken().toStdString();
}

TEST_F(ReadTest, AnAnswerToAnOlderReadingIsDropped) {
  ASSERT_NE(desk().worked_out().budget(), nullptr);
  const double before = desk().worked_out().budget()->values[0];
  ASSERT_TRUE(desk().edits().accept(3, 900, "typed"));
  EXPECT_EQ(desk().worked_out().budget(), nullptr) << "what was worked out no longer holds";
  EXPECT_EQ(uncertainty("mean_ppfd"), "") << "and is not shown as if it did";
  settle();
  EXPECT_NE(desk().worked_out().budget()->values[0], before);
}

}  // namespace sunbreak::desktop
