#include <gtest/gtest.h>

#include <QProcess>
#include <QTemporaryDir>

#include "book/sample_book.h"

/// Wheel, focus and keys by events of an X server, in the real window on a display of its own.
TEST(RealEvents, TheWheelTurnsNoFieldAndKeysGoWhereTheyBelong) {
  constexpr int patience_ms = 300000;
  QProcess server;
  server.start("Xvfb", {"-displayfd", "1", "-screen", "0", "1280x800x24", "-nolisten", "tcp"});
  ASSERT_TRUE(server.waitForStarted());
  ASSERT_TRUE(server.waitForReadyRead(patience_ms)) << server.readAllStandardError().toStdString();
  const QByteArray display = server.readLine().trimmed();
  QTemporaryDir folder;
  const std::filesystem::path book = folder.filePath("book.sunbreak").toStdString();
  std::filesystem::copy_file(sunbreak::book::sample_book_file(), book);
  QProcessEnvironment there = QProcessEnvironment::systemEnvironment();
  there.insert("DISPLAY", ":" + display);
  there.insert("QT_QPA_PLATFORM", "xcb");
  QProcess hands;
  hands.setProcessEnvironment(there);
  hands.start(REAL_EVENTS, {QString::fromStdString(book.string())});
  EXPECT_TRUE(hands.waitForFinished(patience_ms));
  const QByteArray told = hands.readAllStandardOutput() + hands.readAllStandardError();
  EXPECT_EQ(hands.exitStatus(), QProcess::NormalExit) << told.constData();
  EXPECT_EQ(hands.exitCode(), 0) << told.constData();
  EXPECT_TRUE(told.contains(" fields turned over, 0 faults")) << told.constData();
  server.terminate();
  server.waitForFinished();
}
