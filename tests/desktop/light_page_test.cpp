#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QProcess>
#include <QPushButton>
#include <QTableWidget>

#include "core/quantity/display.h"
#include "desktop/read/read_view.h"
#include "desktop/shell/mast.h"
#include "desktop/widgets/text.h"
#include "desktop/window_fixture.h"
#include "evaluation/light_words.h"
#include "record/json.h"

namespace sunbreak::desktop {

using record::Json;

/// Whole light, light between the heights and light elsewhere in the real window, on the sample lab book.
class LightPageTest : public SampleWindowTest {
 protected:
  void SetUp() override {
    SampleWindowTest::SetUp();
    for (const record::Test& test : desk().book().all<record::Test>("ORDER BY id"))
      tests_[desk().book().find<record::Fixture>(test.fixture_id)->name] = test.id;
  }
  /// Opens a fixture's test on the page of whole light and waits until it is known.
  void look_at(const std::string& fixture) {
    open_test(tests_.at(fixture), Stage::Read);
    key(Qt::Key_5);
    // Known on the other thread is not shown yet.
    ASSERT_TRUE(QTest::qWaitFor(
        [&] {
          const QString said = words("lightWords");
          return desk().worked_out().light() != nullptr && !said.isEmpty() && !said.startsWith("Fitting");
        },
        60000));
  }
  Json command_line(QStringList arguments, const std::string& fixture) {
    arguments.insert(1, QString::fromStdString(book_file()));
    arguments << "--test" << QString::number(tests_.at(fixture)) << "--json";
    QProcess cli;
    cli.start(SUNBREAK_CLI, arguments);
    EXPECT_TRUE(cli.waitForFinished(60000));
    EXPECT_EQ(cli.exitCode(), 0) << cli.readAllStandardError().toStdString();
    return record::json_of(cli.readAllStandardOutput().toStdString());
  }
  QString words(const char* name) { return find<QLabel>(name)->text(); }
  QString cell(const char* table, const QString& name) {
    auto* of = find<QTableWidget>(table);
    for (int row = 0; row < of->rowCount(); ++row)
      if (of->item(row, 0)->text() == name) return of->item(row, 1)->text();
    ADD_FAILURE() << name.toStdString() << " is not in the table";
    return {};
  }
  static QString number(const Json& value, int decimals) {
    return text_of(evaluation::plain_number(value.number(), decimals));
  }

  std::map<std::string, record::Id> tests_;
};

TEST_F(LightPageTest, ALeanThatIsNotSureIsPerhapsOneAndTheFiguresAreTheCommandLines) {
  look_at("Marrow Row");
  const Json told = command_line({"whole-light"}, "Marrow Row");
  ASSERT_TRUE(told["fits"].truth()) << told["reason"].text();
  EXPECT_EQ(cell("lightTable", "Whole PPF"), number(told["ppf_umol_s"]["value"], 0) + " µmol/s");
  EXPECT_EQ(cell("lightTable", "Whole efficacy"), number(told["efficacy_umol_j"]["value"], 2) + " µmol/J");
  EXPECT_EQ(cell("lightTable", "Half angle of the beam"), number(told["half_angle_deg"]["value"], 0) + "°");
  const Json& left = told["tilt_deg"][0]["right_side_lower"];
  EXPECT_EQ(cell("lightTable", "Unit 1, right side low"), number(left["value"], 1) + "°");
  // Planted: 1,182 µmol/s at full; the left unit's right side 1.5° low, the others level.
  EXPECT_NEAR(told["ppf_umol_s"]["value"].number(), 1182, told["ppf_umol_s"]["expanded_k2"].number());
  EXPECT_NEAR(left["value"].number(), 1.5, left["expanded_k2"].number());
  EXPECT_TRUE(words("lightWords").contains("Perhaps unit")) << words("lightWords").toStdString();
  EXPECT_FALSE(words("lightWords").contains("raise that side")) << "of six leans none is sure for all together";
  for (const Json& height : told["left_out"]) EXPECT_LT(height["rms_pct"].number(), 2);
}

TEST_F(LightPageTest, AHeightThatNobodyWalkedIsPredictedAndNeverTakenForASweep) {
  look_at("Marrow Row");
  fill("betweenHeight", "38");
  ASSERT_TRUE(desk().between_m());
  const Json told = command_line(
      {"between", "--height", "38cm", "--dimmer", QString::number(*desk().between_percent())}, "Marrow Row");
  EXPECT_TRUE(told["predicted"].truth());
  const auto answered = [&] { return !words("betweenWords").contains("Predicting"); };
  EXPECT_TRUE(QTest::qWaitFor(answered, 60000));
  EXPECT_TRUE(words("betweenWords").contains("Predicted, not measured"));
  EXPECT_TRUE(words("betweenWords").contains("Mean PPFD " + text_of(ppfd_text(told["figures"]["mean_ppfd"].number()))))
      << words("betweenWords").toStdString();
  EXPECT_EQ(told["stations"].size(), 100u);
  EXPECT_TRUE(find<Mast>("mast")->accessibleDescription().contains("predicted"));
  EXPECT_EQ(std::count_if(desk().test()->rungs.begin(), desk().test()->rungs.end(),
                          [](const record::Rung& rung) { return std::abs(rung.height_m - 0.38) < 1e-6; }),
            0)
      << "nothing of it is kept";
  window_->show_stage(Stage::Walk);
  EXPECT_FALSE(desk().between_m()) << "a walk is of a sweep";
  desk().stand_between(0.38);
  EXPECT_FALSE(desk().between_m());
  window_->show_stage(Stage::Read);
  fill("betweenHeight", "38");
  ASSERT_TRUE(desk().between_m());
  key(Qt::Key_PageDown);
  EXPECT_FALSE(desk().between_m()) << "another sweep is chosen";
  fill("betweenHeight", "37");
  fill("betweenHeight", "300");
  EXPECT_TRUE(QTest::qWaitFor(answered, 60000));
  EXPECT_TRUE(words("betweenWords").contains("beyond what was measured")) << "the height asked for last";
  fill("betweenHeight", "high");
  EXPECT_TRUE(words("betweenWords").contains("numbers"));
}

TEST_F(LightPageTest, AnotherRoomIsRestatedAsItIsTyped) {
  look_at("Brindle Panel 135");
  key(Qt::Key_6);
  auto* table = find<QTableWidget>("otherTable");
  ASSERT_TRUE(QTest::qWaitFor([&] { return table->rowCount() > 0; }, 60000));
  const QString height = find<QLineEdit>("otherHeight")->text();
  const Json told = command_line({"elsewhere", "--room", "open-floor", "--height", height + "cm"}, "Brindle Panel 135");
  EXPECT_EQ(cell("otherTable", "Mean PPFD"), number(told["mean_ppfd"]["value"], 0) + " µmol/m²/s");
  EXPECT_EQ(cell("otherTable", "Efficacy on the floor"), number(told["efficacy_umol_j"]["value"], 2) + " µmol/J");
  const QString before = cell("otherTable", "Mean PPFD");
  auto* edit = find<QLineEdit>("otherHeight");
  edit->setFocus();
  edit->selectAll();
  QTest::keyClicks(edit, "80");
  EXPECT_TRUE(QTest::qWaitFor([&] { return cell("otherTable", "Mean PPFD") != before; }, 60000));
  fill("otherColumns", "9");
  EXPECT_TRUE(QTest::qWaitFor([&] { return words("otherState").contains("fixture take"); }, 60000))
      << words("otherState").toStdString();
  auto* room = find<QComboBox>("otherRoom");
  room->setCurrentIndex(2);
  emit room->activated(2);
  fill("otherWidth", "300");
  fill("otherDepth", "400");
  fill("otherWanted", "300");
  EXPECT_TRUE(QTest::qWaitFor([&] { return words("otherCountWords").contains("fixtures:"); }, 60000))
      << words("otherCountWords").toStdString();
  EXPECT_GT(find<QLineEdit>("otherColumns")->text().toInt() * find<QLineEdit>("otherRows")->text().toInt(), 1);
}

TEST_F(LightPageTest, WithoutReadingsNothingIsSaidToBeUnderWay) {
  key(Qt::Key_N, Qt::ControlModifier);
  window_->show_stage(Stage::Read);
  key(Qt::Key_5);
  EXPECT_TRUE(words("lightWords").contains("No sweep has a reading"));
  EXPECT_FALSE(find<QLineEdit>("betweenHeight")->isEnabled());
  key(Qt::Key_6);
  EXPECT_TRUE(words("otherState").contains("No sweep has a reading"));
  EXPECT_FALSE(find<QLineEdit>("otherHeight")->isEnabled());
}

TEST_F(LightPageTest, WhatDoesNotFitSaysWhyAndWhatWouldHelp) {
  look_at("Tansy Round 60");
  EXPECT_TRUE(words("lightWords").contains("No figure of the whole light.")) << words("lightWords").toStdString();
  EXPECT_FALSE(find<QTableWidget>("lightTable")->isVisible());
  key(Qt::Key_6);
  EXPECT_TRUE(words("otherState").contains("No figure"));
}

}  // namespace sunbreak::desktop
