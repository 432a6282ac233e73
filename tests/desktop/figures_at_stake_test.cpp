#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>

#include "book/plan.h"
#include "desktop/window_fixture.h"
#include "report/html_report.h"

namespace sunbreak::desktop {

/// A walked sweep of 36 readings at 100 W, and what it rests on.
class StakeTest : public WindowTest {
 protected:
  void SetUp() override {
    WindowTest::SetUp();
    key(Qt::Key_N, Qt::ControlModifier);
    desk().edits().make("meter", [&](book::Edit& e) {
      record::Meter sensor;
      sensor.name = "QS-9";
      sensor.factor = 1.1;
      sensor.dark_offset = 2;
      sensor_ = e.add(sensor);
    });
    for (int i = 0; i < 36; ++i) ASSERT_TRUE(desk().edits().accept(i, 500 + i % 7, "typed"));
    ASSERT_TRUE(desk().edits().set_watts(300));
    window_->show_stage(Stage::Rig);
  }
  QComboBox* picker(const QString& name) {
    for (QComboBox* box : window_->findChildren<QComboBox*>())
      if (box->accessibleName() == name) return box;
    return nullptr;
  }
  void choose(QComboBox* box, qlonglong value) {
    box->setCurrentIndex(box->findData(QVariant::fromValue<qlonglong>(value)));
    emit box->activated(box->currentIndex());
  }
  /// Answers the question that is to come; what it showed is kept.
  void answer(const char* button) {
    QTimer::singleShot(60, [this, button] {
      QWidget* dialog = QApplication::activeModalWidget();
      ASSERT_NE(dialog, nullptr);
      ASSERT_EQ(dialog->objectName(), "figuresAtStake");
      auto* table = dialog->findChild<QTableWidget*>();
      rows_ = table->rowCount();
      mean_words_ = table->item(0, 1)->text();
      efficacy_words_ = table->item(0, 2)->text();
      QTest::mouseClick(dialog->findChild<QPushButton*>(button), Qt::LeftButton);
    });
  }
  double mean() { return desk().figures()->mean_ppfd; }
  double efficacy() { return desk().figures()->efficacy->canopy_efficacy_umol_j; }

  record::Id sensor_ = 0;
  int rows_ = 0;
  QString mean_words_, efficacy_words_;
};

TEST_F(StakeTest, AnotherSensorCorrectsWhatIsReadOnlyWhenSaidSo) {
  const double before = mean();
  answer("leaveFigures");
  choose(picker("Light meter"), sensor_);
  EXPECT_EQ(rows_, 1);
  EXPECT_FALSE(desk().test()->test.sensor_id.has_value());
  EXPECT_EQ(mean(), before);
  answer("changeFigures");
  choose(picker("Light meter"), sensor_);
  EXPECT_EQ(desk().test()->test.sensor_id, sensor_);
  EXPECT_NEAR(mean(), (before - 2) * 1.1, 1e-9);
  EXPECT_TRUE(mean_words_.contains("503 → 551")) << mean_words_.toStdString();
  const auto html = report::html_report({desk().worked_out().evaluation()}, {}).html;
  EXPECT_NE(html.find("factor 1.1;"), std::string::npos);
  desk().edits().undo();
  EXPECT_EQ(mean(), before) << "one step of undo";
}

TEST_F(StakeTest, AWalkedBenchIsResizedOnlyWhenSaidSo) {
  const double before = efficacy();
  const double width = desk().test()->bench.width_m;
  answer("leaveFigures");
  fill("benchWidth", QString::number(100 * width + 10));
  EXPECT_EQ(desk().test()->bench.width_m, width);
  EXPECT_EQ(find<QLineEdit>("benchWidth")->text(), QString::number(100 * width)) << "the field says what holds";
  answer("changeFigures");
  fill("benchWidth", QString::number(100 * width + 10));
  EXPECT_NEAR(desk().test()->bench.width_m, width + 0.1, 1e-9);
  EXPECT_NEAR(efficacy() / before, (width + 0.1) / width, 1e-9);
}

TEST_F(StakeTest, AWalkedTestStaysWithItsFixture) {
  const record::Id fixture = desk().test()->fixture.id;
  choose(picker("Fixture"), 0);
  EXPECT_EQ(desk().test()->fixture.id, fixture);
}

TEST_F(StakeTest, WhatChangesNoFigureAsksNothing) {
  desk().edits().make("card", [&](book::Edit& e) {
    auto sensor = *desk().book().find<record::Meter>(sensor_);
    sensor.factor = 1, sensor.dark_offset = 0;
    e.save(sensor);
  });
  choose(picker("Light meter"), sensor_);
  EXPECT_EQ(desk().test()->test.sensor_id, sensor_);
}

TEST_F(StakeTest, ASensorsCardChangesNoSweepThatWasTaken) {
  desk().edits().make("sensor", [&](book::Edit& e) {
    book::choose_sensor(e, *desk().test(), desk().book().find<record::Meter>(sensor_));
  });
  const double before = mean();
  desk().edits().make("card", [&](book::Edit& e) {
    auto sensor = *desk().book().find<record::Meter>(sensor_);
    sensor.factor = 1.2;
    e.save(sensor);
  });
  EXPECT_EQ(mean(), before);
  const auto html = report::html_report({desk().worked_out().evaluation()}, {}).html;
  EXPECT_NE(html.find("factor 1.1 (its card says 1.2 by now)"), std::string::npos);
}

TEST_F(StakeTest, WattsStayWithTheirMeterUnlessSaidSo) {
  record::Id first = 0, second = 0;
  desk().edits().make("meters", [&](book::Edit& e) {
    record::Meter meter;
    meter.kind = "wall";
    meter.name = "W-8";
    first = e.add(meter);
    meter.name = "W-9";
    second = e.add(meter);
    record::Test test = desk().test()->test;
    test.wall_meter_id = first;
    e.save(test);
  });
  const auto choose_with = [&](const char* button) {
    bool asked = false;
    QTimer::singleShot(60, [&] {
      QWidget* dialog = QApplication::activeModalWidget();
      ASSERT_NE(dialog, nullptr);
      asked = dialog->objectName() == "wattsAtStake";
      QTest::mouseClick(dialog->findChild<QPushButton*>(button), Qt::LeftButton);
    });
    choose(picker("Wall meter"), second);
    EXPECT_TRUE(asked);
  };
  choose_with("leaveMeter");
  EXPECT_EQ(desk().test()->test.wall_meter_id, first);
  choose_with("nameMeter");
  EXPECT_EQ(desk().test()->test.wall_meter_id, second);
  desk().edits().undo();
  EXPECT_EQ(desk().test()->test.wall_meter_id, first);
}

}  // namespace sunbreak::desktop
