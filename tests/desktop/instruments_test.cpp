#include "desktop/instruments/instruments_panel.h"

#include <QApplication>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

#include <algorithm>

#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;
using instruments::LinkState;
using instruments::Measures;

class InstrumentsTest : public WindowTest {
 protected:
  InstrumentHub& hub() { return window_->instruments(); }
  QString strip() {
    QString all;
    for (const QLabel* label : find<QWidget>("sensorStrip")->findChildren<QLabel*>()) all += label->text() + "\n";
    return all;
  }
  /// A device that streams lines from a file, which a test can write and leave alone.
  void stream_from(QFile& file) {
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    instruments::InstrumentSettings settings;
    settings.speaks = instruments::Speaks::Stream;
    settings.address = {instruments::TransportKind::File, {}, 0, file.fileName(), 0};
    settings.answer_ms = 500;
    settings.lost_ms = 1500;
    hub().connect_to(settings);
    ASSERT_TRUE(QTest::qWaitFor(
        [&] {
          file.write("424.5\n");
          file.flush();
          return hub().channel(Measures::Light).state == LinkState::Live;
        },
        5000));
  }
};

TEST_F(InstrumentsTest, OneClickStartsTheSimulatedBenchAndConnects) {
  InstrumentsPanel panel(hub(), window_.get());
  panel.show();
  QTest::mouseClick(panel.findChild<QPushButton*>("simulate"), Qt::LeftButton);
  ASSERT_TRUE(QTest::qWaitFor(
      [&] { return hub().channel(Measures::Light).live() && hub().channel(Measures::Power).live(); }, 60000));
  EXPECT_TRUE(strip().contains("Sensor now"));
  EXPECT_TRUE(strip().contains("At the wall now"));
  EXPECT_TRUE(find<QPushButton>("instrumentsButton")->text().contains("simulated"));
  QTest::mouseClick(panel.findChild<QPushButton*>("simulate"), Qt::LeftButton);
  EXPECT_TRUE(QTest::qWaitFor([&] { return !hub().simulated(); }, 60000));
  EXPECT_FALSE(strip().contains("Sensor now"));
}

TEST_F(InstrumentsTest, SpaceTakesTheLiveValueAndTheBookSaysItIsSimulated) {
  key(Qt::Key_N, Qt::ControlModifier);
  window_->show_stage(Stage::Walk);
  key(Qt::Key_Space);
  EXPECT_TRUE(desk().test()->readings.empty()) << "no sensor, no reading";
  hub().start_simulated_bench();
  ASSERT_TRUE(QTest::qWaitFor([&] { return hub().channel(Measures::Light).live().has_value(); }, 60000));
  key(Qt::Key_Space);
  ASSERT_TRUE(QTest::qWaitFor([&] { return desk().test()->readings.size() == 1; }, 60000));
  EXPECT_EQ(desk().test()->readings[0].source, "simulated");
  EXPECT_TRUE(desk().test()->test.simulated);
  EXPECT_GT(desk().test()->readings[0].raw, 300);
}

TEST_F(InstrumentsTest, SettingsOfADeviceAreRemembered) {
  instruments::InstrumentSettings settings;
  settings.name = "bench sensor";
  settings.speaks = instruments::Speaks::Stream;
  settings.address = {instruments::TransportKind::Serial, {}, 0, "/dev/none", 19200};
  settings.format = {';', 3, 0.5, '.'};
  hub().connect_to(settings);
  open();
  const auto& kept = hub().channel(Measures::Light).settings;
  EXPECT_EQ(kept.name, "bench sensor");
  EXPECT_EQ(kept.address.path, "/dev/none");
  EXPECT_EQ(kept.address.baud, 19200);
  EXPECT_EQ(kept.format.column, 3);
  EXPECT_EQ(hub().channel(Measures::Light).state, LinkState::Off) << "remembered, not connected";
}

TEST_F(InstrumentsTest, AnOldValueIsNeverShownAsThePresentOne) {
  QFile file(path("log.txt"));
  ASSERT_NO_FATAL_FAILURE(stream_from(file));
  EXPECT_TRUE(strip().contains("Sensor now"));
  EXPECT_TRUE(strip().contains("424.5"));
  ASSERT_TRUE(QTest::qWaitFor([&] { return hub().channel(Measures::Light).state == LinkState::Stale; }, 60000));
  EXPECT_FALSE(strip().contains("Sensor now"));
  EXPECT_TRUE(strip().contains("old, now silent"));
  EXPECT_FALSE(hub().channel(Measures::Light).live().has_value());
  ASSERT_TRUE(QTest::qWaitFor([&] { return hub().channel(Measures::Light).state == LinkState::Lost; }, 60000));
  EXPECT_TRUE(strip().contains("lost"));
  EXPECT_FALSE(strip().contains("424.5"));
}

TEST_F(InstrumentsTest, WhatCanBeNoLightIsNotShownAsLiveAndNotTaken) {
  key(Qt::Key_N, Qt::ControlModifier);
  window_->show_stage(Stage::Walk);
  QFile file(path("log.txt"));
  ASSERT_NO_FATAL_FAILURE(stream_from(file));
  for (const char* line : {"-500\n", "20001\n"}) {
    ASSERT_TRUE(QTest::qWaitFor(
        [&] {
          file.write(line);
          file.flush();
          return hub().channel(Measures::Light).impossible();
        },
        60000));
    EXPECT_FALSE(hub().channel(Measures::Light).live());
    EXPECT_TRUE(strip().contains("cannot be")) << line;
    EXPECT_FALSE(strip().contains("Sensor now")) << line;
    key(Qt::Key_Space);
    EXPECT_TRUE(desk().test()->readings.empty()) << line;
    InstrumentsPanel panel(hub(), window_.get());
    QString told;
    for (const QLabel* label : panel.findChildren<QLabel*>()) told += label->text();
    EXPECT_TRUE(told.contains("cannot be, and is not taken")) << line;
    ASSERT_TRUE(QTest::qWaitFor(
        [&] {
          file.write("424.5\n");
          file.flush();
          return hub().channel(Measures::Light).live().has_value();
        },
        60000));
  }
}

TEST_F(InstrumentsTest, ALongLineOfADeviceLeavesThePanelAsItIs) {
  QFile file(path("log.txt"));
  ASSERT_NO_FATAL_FAILURE(stream_from(file));
  const auto long_lines = [&] { return hub().channel(Measures::Light).heard.filter("WWWW"); };
  ASSERT_TRUE(QTest::qWaitFor(
      [&] {
        file.write(QByteArray(900, 'W') + "\x1b[2J\x07\n");
        file.flush();
        return !long_lines().isEmpty();
      },
      60000));
  EXPECT_LE(long_lines().first().size(), 45);
  InstrumentsPanel panel(hub(), window_.get());
  panel.show();
  EXPECT_TRUE(QTest::qWaitForWindowExposed(&panel));
  const auto buttons = panel.findChildren<QPushButton*>();
  const auto done = std::ranges::find(buttons, QString("Done"), [](const QPushButton* b) { return b->text(); });
  ASSERT_NE(done, buttons.end());
  EXPECT_LE((*done)->mapTo(&panel, (*done)->rect().bottomRight()).y(), panel.height());
  EXPECT_LE(panel.height(), 700);
  EXPECT_LE(panel.width(), 1000);
}

TEST_F(InstrumentsTest, ThePanelRefusesWhatCannotBe) {
  InstrumentsPanel panel(hub(), window_.get());
  panel.show();
  auto* side = panel.findChild<QWidget*>("lightSide");
  panel.findChild<QLineEdit*>("lightAddress")->setText("99999");
  for (QPushButton* button : side->findChildren<QPushButton*>())
    if (button->text() == "Connect") QTest::mouseClick(button, Qt::LeftButton);
  EXPECT_EQ(hub().channel(Measures::Light).state, LinkState::Off);
  bool said = false;
  for (const QLabel* label : side->findChildren<QLabel*>()) said = said || label->text().contains("99999");
  EXPECT_TRUE(said);
}

TEST_F(InstrumentsTest, ThePanelOpensByKeyAndItsFieldsHaveNames) {
  QTimer::singleShot(300, [&] {
    QWidget* dialog = QApplication::activeModalWidget();
    ASSERT_NE(dialog, nullptr);
    EXPECT_EQ(dialog->objectName(), "instrumentsPanel");
    for (const QLineEdit* edit : dialog->findChildren<QLineEdit*>()) EXPECT_FALSE(edit->accessibleName().isEmpty());
    dialog->close();
  });
  key(Qt::Key_I, Qt::ControlModifier);
}
