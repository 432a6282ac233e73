#include <QApplication>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTimer>

#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

namespace {

/// Chooses an entry of a picker the way a user does, by its data.
void choose(QComboBox* box, const QVariant& value) {
  const int index = box->findData(value);
  ASSERT_GE(index, 0);
  box->setCurrentIndex(index);
  emit box->activated(index);
}

}  // namespace

class RigTest : public WindowTest {
 protected:
  void SetUp() override {
    WindowTest::SetUp();
    key(Qt::Key_N, Qt::ControlModifier);
    unfold_all();
  }
  QComboBox* picker(const QString& accessible_name) {
    for (QComboBox* box : window_->findChildren<QComboBox*>())
      if (box->isVisible() && box->accessibleName() == accessible_name) return box;
    return nullptr;
  }
  QLineEdit* line(const QString& accessible_name) {
    for (QLineEdit* edit : window_->findChildren<QLineEdit*>())
      if (edit->isVisible() && edit->accessibleName() == accessible_name) return edit;
    return nullptr;
  }
  void enter(const QString& accessible_name, const QString& text) {
    QLineEdit* edit = line(accessible_name);
    ASSERT_NE(edit, nullptr) << accessible_name.toStdString();
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, text);
    QTest::keyClick(edit, Qt::Key_Tab);
  }
};

TEST_F(RigTest, DescribesTheFixtureAndItsClaims) {
  enter("Maker", "Tarn");
  enter("Width of one unit", "0.9 m");
  enter("Depth of one unit", "35,5");
  enter("Price", "199");
  enter("Efficacy", "2.8");
  enter("Coverage", "flowers 90 × 90 cm");
  enter("Efficacy", "2.7");
  const record::TestRecord& b = *desk().test();
  EXPECT_EQ(b.fixture.maker, "Tarn");
  EXPECT_NEAR(*b.fixture.width_m, 0.9, 1e-12);
  EXPECT_NEAR(*b.fixture.depth_m, 0.355, 1e-12);
  EXPECT_EQ(b.fixture.price, 199);
  ASSERT_EQ(b.claims.size(), 2u);
  EXPECT_EQ(b.claims[0].value, 2.7);
  enter("Efficacy", " ");
  EXPECT_EQ(desk().test()->claims.size(), 1u) << "an emptied claim is gone";
}

TEST_F(RigTest, GridKindsComeWithWhatTheyNeed) {
  auto* kind = find<QComboBox>("gridKind");
  choose(kind, "inset");
  EXPECT_EQ(record::grid_of(desk().test()->test).kind, GridKind::Inset);
  EXPECT_NEAR(desk().view()->layout.measured.width_m, 1.1, 1e-12);
  choose(kind, "spots");
  EXPECT_EQ(desk().view()->layout.stations.size(), 9u);
  choose(kind, "nodes");
  EXPECT_EQ(desk().view()->layout.stations.size(), 36u);
}

TEST_F(RigTest, SaysHowManyReadingsThePlanTakes) {
  fill("gridColumns", "12");
  fill("gridRows", "12");
  fill("heights", "60, 45");
  fill("stops", "100, 75, 50");
  EXPECT_TRUE(find<QLabel>("effort")->text().contains("864 readings"));
}

TEST_F(RigTest, ABenchWithOtherTestsReadingsKeepsItsSize) {
  desk().edits().accept(0, 400, "typed");
  key(Qt::Key_Home, Qt::AltModifier);
  key(Qt::Key_N, Qt::ControlModifier);
  fill("benchWidth", "100");
  EXPECT_EQ(desk().test()->bench.width_m, 1.2);
  EXPECT_EQ(find<QLineEdit>("benchWidth")->text(), "100") << "what was typed stays";
  choose(find<QComboBox>("benchPicker"), QVariant::fromValue<qlonglong>(0));
  EXPECT_EQ(desk().book().all<record::Bench>().size(), 2u);
  fill("benchWidth", "90");
  EXPECT_NEAR(desk().test()->bench.width_m, 0.9, 1e-12);
  EXPECT_NEAR(desk().book().find<record::Bench>(1)->width_m, 1.2, 1e-12);
}

TEST_F(RigTest, ATestWithReadingsStaysOnItsBench) {
  desk().edits().accept(0, 400, "typed");
  const record::Id before = desk().test()->bench.id;
  choose(find<QComboBox>("benchPicker"), QVariant::fromValue<qlonglong>(0));
  EXPECT_EQ(desk().test()->bench.id, before);
}

TEST_F(RigTest, ANewSensorsFactorCorrectsTheSweepsToCome) {
  choose(picker("Light meter"), QVariant::fromValue<qlonglong>(0));
  ASSERT_TRUE(desk().test()->test.sensor_id.has_value());
  record::Meter meter = desk().test()->meters[0];
  meter.factor = 1.1;
  desk().edits().make("factor", [&](book::Edit& e) { e.save(meter); });
  desk().edits().accept(0, 400, "typed");
  EXPECT_NEAR(desk().view()->ppfd[0], 440, 1e-9);
  meter.factor = 1.2;
  desk().edits().make("factor", [&](book::Edit& e) { e.save(meter); });
  EXPECT_NEAR(desk().view()->ppfd[0], 440, 1e-9) << "what was measured keeps the correction it was measured with";
}

TEST_F(RigTest, NumbersOutOfRangeAreRefusedInWords) {
  for (const auto& [field, text] : {std::pair{"gridColumns", "0"},
                                    {"gridColumns", "many"},
                                    {"benchWidth", "3 km"},
                                    {"heights", "5000"},
                                    {"stops", "-5"},
                                    {"watts", "-1"}}) {
    const auto edits = desk().book().undo_label();
    fill(field, text);
    EXPECT_EQ(desk().book().undo_label(), edits) << field << " " << text;
    bool said = false;
    for (const QLabel* label : window_->findChildren<QLabel*>())
      said = said || (label->isVisible() && label->property("tone") == "bad" && !label->text().isEmpty());
    EXPECT_TRUE(said) << field << " " << text;
    find<QLineEdit>(field)->setText({});
    fill(field, field == std::string("gridColumns")  ? "6"
                : field == std::string("benchWidth") ? "120"
                : field == std::string("heights")    ? "45"
                : field == std::string("stops")      ? "100"
                                                     : "");
  }
}

TEST_F(RigTest, TheNextStepIsOneKeyAway) {
  QTest::mouseClick(find<QPushButton>("rigNext"), Qt::LeftButton);
  EXPECT_EQ(QApplication::focusWidget()->objectName(), "walkValue");
}

TEST_F(RigTest, EveryFieldHasAnAccessibleName) {
  int fields = 0;
  for (const QWidget* widget : window_->findChildren<QWidget*>()) {
    if (!widget->isVisible() || (!qobject_cast<const QLineEdit*>(widget) && !qobject_cast<const QComboBox*>(widget)))
      continue;
    if (widget->parent() && widget->parent()->inherits("QComboBox")) continue;
    ++fields;
    EXPECT_FALSE(widget->accessibleName().isEmpty());
  }
  EXPECT_GT(fields, 30);
}

TEST_F(RigTest, AShelfEntryOpensItsFieldsAndComesOffUndoably) {
  key(Qt::Key_Home, Qt::AltModifier);
  auto* list = window_->findChild<QWidget*>("shelf")->findChild<QListWidget*>();
  ASSERT_GT(list->count(), 3);
  list->setFocus();
  list->setCurrentRow(1);
  bool opened = false;
  QTimer::singleShot(200, [&] {
    QWidget* dialog = QApplication::activeModalWidget();
    opened = dialog && dialog->objectName() == "recordDialog";
    if (auto* name = dialog ? dialog->findChild<QLineEdit*>("fixtureName") : nullptr) {
      name->selectAll();
      QTest::keyClicks(name, "Renamed");
      QTest::keyClick(name, Qt::Key_Return);
    }
    if (dialog) dialog->close();
  });
  QTest::keyClick(list, Qt::Key_Return);
  EXPECT_TRUE(opened);
  EXPECT_EQ(desk().book().all<record::Fixture>()[0].name, "Renamed");
  QApplication::setActiveWindow(window_.get());
  list->setFocus();
  list->setCurrentRow(1);
  QTest::keyClick(list, Qt::Key_Delete);
  EXPECT_TRUE(desk().book().all<record::Fixture>()[0].removed);
  desk().edits().undo();
  EXPECT_FALSE(desk().book().all<record::Fixture>()[0].removed);
}

TEST_F(RigTest, TheSamePlanForTheNextFixture) {
  desk().edits().make("another fixture", [](book::Edit& e) {
    record::Fixture other;
    other.name = "Next Lamp";
    e.add(other);
  });
  enter("Heights", "60, 40");
  enter("Stations left to right", "9");
  const record::TestRecord first = *desk().test();
  const auto duplicate = [&](int row) {
    window_->show_home();
    QTimer::singleShot(200, [row] {
      auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
      ASSERT_NE(dialog, nullptr);
      auto* list = dialog->findChild<QListWidget*>("duplicateFixture");
      ASSERT_EQ(list->count(), 3) << "this one, the other, a new one";
      EXPECT_TRUE(list->item(0)->text().contains("once more"));
      for (int i = 0; i < row; ++i) QTest::keyClick(list, Qt::Key_Down);
      QTest::keyClick(list, Qt::Key_Return);
    });
    key(Qt::Key_D, Qt::ControlModifier);
    return *desk().test();
  };
  const record::TestRecord next = duplicate(1);
  EXPECT_NE(next.test.id, first.test.id);
  EXPECT_EQ(next.fixture.name, "Next Lamp");
  EXPECT_TRUE(next.test.name.empty()) << "named after its own fixture";
  EXPECT_EQ(next.bench, first.bench);
  EXPECT_EQ(record::grid_of(next.test), record::grid_of(first.test));
  ASSERT_EQ(next.rungs.size(), 2u);
  EXPECT_DOUBLE_EQ(next.rungs[1].height_m, 0.4);
  desk().edits().undo();
  EXPECT_EQ(desk().book().all<record::Test>("WHERE removed = 0").size(), 1u) << "one step takes it back";
}
