#include <QApplication>
#include <QClipboard>
#include <QDialog>
#include <QFile>
#include <QLabel>
#include <QPushButton>
#include <QTimer>

#include "exchange/files/new_file.h"
#include "exchange/package/data_package.h"
#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

namespace {

/// Waits for the import preview, hands it to `look`, and closes it the way `look` left to do.
void when_preview_opens(const std::function<void(QDialog*)>& look) {
  auto* timer = new QTimer(qApp);
  QObject::connect(timer, &QTimer::timeout, timer, [=] {
    auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
    if (!dialog) return;
    timer->stop();
    timer->deleteLater();
    look(dialog);
  });
  timer->start(10);
}

QString table(int side, double first = 400) {
  QString text;
  for (int row = 0; row < side; ++row) {
    QStringList cells;
    for (int column = 0; column < side; ++column) cells << QString::number(first + row * side + column);
    text += cells.join('\t') + '\n';
  }
  return text;
}

}  // namespace

TEST_F(WindowTest, APastedBlockShowsAPreviewAndEntersWhenTaken) {
  key(Qt::Key_N, Qt::ControlModifier);
  window_->show_stage(Stage::Walk);
  QApplication::clipboard()->setText(table(6));
  int while_open = -1;
  when_preview_opens([&](QDialog* dialog) {
    while_open = static_cast<int>(desk().test()->readings.size());
    EXPECT_TRUE(dialog->findChild<QLabel*>("understood")->text().contains("36 readings"));
    QTest::mouseClick(dialog->findChild<QPushButton*>("takeReadings"), Qt::LeftButton);
  });
  key(Qt::Key_V, Qt::ControlModifier);
  EXPECT_EQ(while_open, 0) << "nothing enters until it is taken";
  EXPECT_EQ(desk().view()->read(), 36);
  EXPECT_EQ(desk().view()->ppfd[30], 400) << "the first line is the far row";
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(desk().view()->read(), 0) << "one step of undo";
}

TEST_F(WindowTest, APreviewLeftAloneChangesNothing) {
  key(Qt::Key_N, Qt::ControlModifier);
  window_->show_stage(Stage::Read);
  QApplication::clipboard()->setText(table(6));
  when_preview_opens([](QDialog* dialog) { dialog->reject(); });
  key(Qt::Key_V, Qt::ControlModifier);
  EXPECT_TRUE(desk().test()->readings.empty());
}

TEST_F(WindowTest, AFileSaysCellByCellWhatItWillNotTake) {
  key(Qt::Key_N, Qt::ControlModifier);
  window_->show_stage(Stage::Walk);
  QFile file(path("sweep.csv"));
  ASSERT_TRUE(file.open(QIODevice::WriteOnly));
  file.write(table(6).replace('\t', ';').replace("407", "n/a").toUtf8());
  file.close();
  when_preview_opens([&](QDialog* dialog) {
    EXPECT_TRUE(dialog->findChild<QLabel*>("findings")
                    ->text()
                    .contains("row 2, column 2: 'n/a' is not a number; kept as a missing station"));
    QTest::mouseClick(dialog->findChild<QPushButton*>("takeReadings"), Qt::LeftButton);
  });
  window_->bring_in_file(path("sweep.csv"));
  EXPECT_EQ(desk().view()->read(), 35);
  EXPECT_EQ(desk().view()->missing(), 1);
}

TEST_F(WindowTest, AnUnreadableTableCannotBeTaken) {
  key(Qt::Key_N, Qt::ControlModifier);
  window_->show_stage(Stage::Walk);
  QApplication::clipboard()->setText("only words\nand more\n");
  when_preview_opens([](QDialog* dialog) {
    EXPECT_FALSE(dialog->findChild<QPushButton*>("takeReadings")->isEnabled());
    dialog->reject();
  });
  key(Qt::Key_V, Qt::ControlModifier);
}

TEST_F(WindowTest, ADataPackageBecomesATestOfTheBook) {
  key(Qt::Key_N, Qt::ControlModifier);
  fill("fixtureName", "Packed Lamp");
  ASSERT_TRUE(desk().edits().accept(0, 424, "typed"));
  exchange::write_new_file(path("p.zip").toStdString(), exchange::zip_bytes(exchange::make_package(*desk().test())));
  window_->bring_in_file(path("p.zip"));
  EXPECT_EQ(desk().book().all<record::Test>().size(), 2u);
  EXPECT_EQ(desk().test()->fixture.name, "Packed Lamp");
  QFile torn(path("p.zip"));
  ASSERT_TRUE(torn.resize(torn.size() / 2));
  window_->bring_in_file(path("p.zip"));
  EXPECT_EQ(desk().book().all<record::Test>().size(), 2u);
  EXPECT_TRUE(find<QLabel>("message")->text().startsWith("◣"));
}

TEST_F(WindowTest, ASweepIsCopiedAsATable) {
  key(Qt::Key_N, Qt::ControlModifier);
  ASSERT_TRUE(desk().edits().accept(30, 424.5, "typed"));
  window_->show_stage(Stage::Read);
  key(Qt::Key_C, Qt::ControlModifier);
  EXPECT_TRUE(QApplication::clipboard()->text().startsWith("424.5\t"));
}
