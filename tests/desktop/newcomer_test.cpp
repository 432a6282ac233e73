#include <QDir>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRegularExpression>
#include <cmath>

#include "desktop/window_fixture.h"

namespace sunbreak::desktop {

/// Someone who has never seen the window: from an empty lab book to a written page, with the keyboard.
class NewcomerTest : public WindowTest {
 protected:
  /// A key or a click that counts.
  void press(Qt::Key k, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
    ++acts_;
    key(k, modifiers);
  }
  void click(const char* button) {
    ++acts_;
    QTest::mouseClick(find<QPushButton>(button), Qt::LeftButton);
  }
  /// A text typed where the keyboard is: one act, however long.
  void write(const QString& text) {
    ++acts_;
    type(text);
  }
  /// A reading: its digits and its Enter do not count.
  void read(double ppfd) {
    ASSERT_EQ(focused()->objectName(), "walkValue") << "a dead end";
    type(QString::number(ppfd));
    key(Qt::Key_Return);
  }
  int acts_ = 0;
};

TEST_F(NewcomerTest, ReachesAWrittenPageInThirtyKeysAndClicks) {
  press(Qt::Key_N, Qt::ControlModifier);
  EXPECT_EQ(focused()->objectName(), "fixtureName");
  const std::pair<const char*, const char*> plan[] = {
      {"Hazel Board", "benchWidth"}, {"100", "benchDepth"}, {"60", "gridColumns"}, {"3", "gridRows"}, {"2", "heights"},
      {"60, 45, 30", "stops"}};
  for (const auto& [text, next] : plan) {
    write(text);
    press(Qt::Key_Tab);
    ASSERT_EQ(focused()->objectName(), next);
  }
  write("100, 50");
  press(Qt::Key_3, Qt::AltModifier);
  ASSERT_EQ(desk().test()->rungs.size(), 3u);
  ASSERT_EQ(desk().test()->stops.size(), 2u);

  for (int sweep = 0; sweep < 6; ++sweep) {
    const double height_m = desk().rung()->height_m, share = desk().stop()->percent / 100;
    const double light = std::round(180 * share / height_m);
    ASSERT_EQ(desk().view()->states.size(), 6u);
    for (int reading = 0; reading < 6; ++reading) {
      if (sweep == 2 && reading == 4) {
        read(10 * light);
        EXPECT_TRUE(find<QLabel>("walkNote")->text().contains("Type it again"));
      }
      read(light + reading % 2);
    }
    ASSERT_TRUE(desk().view()->complete());
    ASSERT_EQ(focused()->objectName(), "walkWatts") << "what is still missing is asked for";
    write(QString::number(100 * share));
    press(Qt::Key_Return);
  }
  EXPECT_EQ(desk().test()->sweeps.size(), 6u);
  for (const record::Sweep& sweep : desk().test()->sweeps) EXPECT_TRUE(sweep.power_w.has_value());
  EXPECT_EQ(desk().test()->readings.size(), 37u) << "the slip stays on record";
  EXPECT_EQ(desk().worked_out().all_findings().size(), 0u);

  find<QLineEdit>("publishFolder")->setText(path("out"));  // in a test no one's documents are written to
  press(Qt::Key_8, Qt::AltModifier);
  click("writePage");
  ASSERT_TRUE(QTest::qWaitFor([&] { return find<QLabel>("written")->text().startsWith("Written:"); }, 60000))
      << find<QLabel>("written")->text().toStdString();
  EXPECT_EQ(QDir(path("out")).entryList({"*.html"}).size(), 1);
  EXPECT_LE(acts_, 30);
}

}  // namespace sunbreak::desktop
