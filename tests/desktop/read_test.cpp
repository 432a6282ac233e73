#include <QComboBox>
#include <QPushButton>
#include <QTableWidget>

#include "book/plan.h"
#include "core/quantity/uncertain_text.h"
#include "desktop/read/cut_chart.h"
#include "desktop/read/field_map.h"
#include "desktop/read/outside_sweep.h"
#include "desktop/read/shown_values.h"
#include "desktop/read_fixture.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

using record::Json;

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

  // The target: on the page of targets, the cell of "young plants" at this sweep, taken with Enter.
  auto* table = targets_table();
  ASSERT_EQ(QApplication::focusWidget(), table);
  EXPECT_EQ(table->rowCount(), 4);
  EXPECT_EQ(table->columnCount(), 5);
  key(Qt::Key_Left);
  key(Qt::Key_Return);
  settle();
  EXPECT_EQ(desk().test()->test.target_name, "young plants");
  EXPECT_DOUBLE_EQ(desk().test()->test.target_high_ppfd, 400);
  EXPECT_DOUBLE_EQ(desk().rung()->height_m, 0.4);

  const Json told = from_the_command_line({"--cut", "0,60,120,60"});
  const Json& f = told["figures"];
  const auto fixed = [](const Json& number, int decimals) { return QString::number(number.number(), 'f', decimals); };
  EXPECT_EQ(value("mean_ppfd"), text_of(ppfd_text(f["mean_ppfd"].number())));
  EXPECT_EQ(value("canopy_efficacy_umol_j"), fixed(f["canopy_efficacy_umol_j"], 2));
  const Told even = sunbreak::told(f["lowest_over_mean"].number(),
                                   told["uncertainty"]["lowest_over_mean"]["expanded_k2"].number(), 2);
  EXPECT_EQ(value("lowest_over_mean"), text_of(even.value));
  EXPECT_EQ(value("coverage"), QString::number(100 * f["coverage"]["in_band_share"].number(), 'f', 0));
  EXPECT_EQ(uncertainty("mean_ppfd"), "± " + fixed(told["uncertainty"]["mean_ppfd"]["expanded_k2"], 0));
  EXPECT_EQ(uncertainty("lowest_over_mean"), text_of(even.sure()));
  EXPECT_TRUE(chart->words().contains("mean " + text_of(ppfd_text(told["cut"]["mean_ppfd"].number()))))
      << chart->words().toStdString();
  EXPECT_TRUE(chart->words().contains("lowest " + text_of(ppfd_text(told["cut"]["lowest_ppfd"].number()))));
  const QString grade = text_of(told["evidence"]["grade"].text());
  EXPECT_TRUE(words("gradeLine").contains(grade + " grade")) << words("gradeLine").toStdString();

  // The verdict of every target as the command line has it.
  key(Qt::Key_3);
  for (const Json& target : told["targets"]) {
    if (target["set"] != "Short days") continue;
    const QString name = text_of(target["name"].text());
    for (int c = 0; c < table->columnCount(); ++c) {
      if (!table->horizontalHeaderItem(c)->text().replace('\n', ' ').startsWith(name)) continue;
      EXPECT_TRUE(
          table->item(2, c)->text().endsWith(QString::number(100 * target["in_band_share"].number(), 'f', 0) + " %"))
          << name.toStdString();
    }
  }

  // How sure: the conditions that are missing, and the budget's largest part.
  key(Qt::Key_4);
  QApplication::processEvents();
  EXPECT_TRUE(words("evidenceGrade").contains(grade));
  for (const Json& condition : told["evidence"]["conditions"]) {
    const QString way = "way_" + text_of(condition["id"].text());
    const auto buttons = window_->findChildren<QPushButton*>(way);
    EXPECT_EQ(std::any_of(buttons.begin(), buttons.end(), [](auto* b) { return b->isVisible(); }),
              !condition["met"].truth())
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
  ASSERT_TRUE(QTest::qWaitFor([&] { return desk().worked_out().budget() != nullptr; }, 60000));
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
  const record::Id first = read().settings().other;
  EXPECT_NE(first, desk().sweep()->id);
  const ShownValues shown = shown_values(desk(), *desk().view(), read().settings());
  EXPECT_DOUBLE_EQ(shown.values[5], desk().view()->ppfd[5] - desk().view_of(first)->ppfd[5]);
  EXPECT_DOUBLE_EQ(shown.scale.range.low, -shown.scale.range.high);
  EXPECT_TRUE(shown.scale.diverging);
  EXPECT_EQ(shown.scale.range.low, -shown.scale.range.high);
  key(Qt::Key_D);
  EXPECT_NE(read().settings().other, first);
  EXPECT_EQ(find<QComboBox>("otherSweep")->currentData().toLongLong(), read().settings().other);
}

TEST_F(ReadTest, ThePageOfAllSweepsHasOneScaleForDifferencesToo) {
  for (int i = 0; i < 3; ++i) key(Qt::Key_Q);
  const auto range = shared_range(desk(), read().settings());
  EXPECT_DOUBLE_EQ(range.low, -range.high);
  for (const record::Sweep& sweep : desk().test()->sweeps) {
    const ShownValues own = shown_values(desk(), *desk().view_of(sweep.id), read().settings());
    EXPECT_LE(own.scale.range.high, range.high) << "it holds every sweep's differences";
    EXPECT_EQ(shown_values(desk(), *desk().view_of(sweep.id), read().settings(), range).scale.range, range);
  }
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

TEST_F(ReadTest, ADifferenceSaysHowTheMeansCompareWithoutWhatBothShare) {
  for (int i = 0; i < 3; ++i) key(Qt::Key_Q);
  ASSERT_TRUE(
      QTest::qWaitFor([&] { return desk().worked_out().budget_of(read().settings().other) != nullptr; }, 60000));
  QApplication::processEvents();
  const auto* other = desk().view_of(read().settings().other);
  const double ratio =
      desk().figures()->mean_ppfd / sweep_figures(other->layout, other->ppfd, {{}, 12, {}, {}})->mean_ppfd;
  const double sure = ratio_uncertainty(*desk().worked_out().budget(),
                                        *desk().worked_out().budget_of(read().settings().other), "mean_ppfd");
  EXPECT_LT(sure, desk().worked_out().budget()->relative("mean_ppfd") / 2) << "the sensor's calibration cancels";
  bool found = false;
  for (QLabel* label : read().findChildren<QLabel*>())
    found = found || label->toolTip().contains(QString::number(100 * ratio, 'f', 1) + " % of theirs") ||
            label->text().contains(QString::number(100 * ratio, 'f', 1) + " % of theirs");
  EXPECT_TRUE(found);
}

TEST_F(ReadTest, ADifferenceCanBeTakenFromAnotherTest) {
  const record::Id twin = book::duplicate_plan(desk().book(), test_id_, desk().test()->fixture.id);
  window_->open_test(twin, Stage::Read);
  for (int i = 0; i < 144; ++i) desk().edits().accept(i, 500, "typed");
  const auto outside = outside_sweeps(desk());
  ASSERT_EQ(outside.size(), 4u) << "the four sweeps of the other test";
  read().settings().outside = read_outside(desk(), outside[0]);
  ASSERT_TRUE(read().settings().outside);
  read().settings().quantity = Quantity::Difference;
  read().settings_changed();
  const ShownValues shown = shown_values(desk(), *desk().view(), read().settings());
  EXPECT_DOUBLE_EQ(shown.values[7], 500 - read().settings().outside->view.ppfd[7]);
  EXPECT_TRUE(shown.title.contains("60 cm"));
  key(Qt::Key_D);
  EXPECT_FALSE(read().settings().outside) << "back among the test's own sweeps";
}

}  // namespace sunbreak::desktop
