#include <QApplication>
#include <QCheckBox>
#include <QClipboard>
#include <QDir>
#include <QDirIterator>
#include <QLabel>
#include <QLineEdit>
#include <QProcess>
#include <QPushButton>
#include <QRegularExpression>
#include <QSettings>
#include <QTimer>
#include <fstream>

#include "desktop/publish/report_preview.h"
#include "desktop/widgets/text.h"
#include "exchange/files/digest.h"
#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

namespace {

/// A test of the sample lab book published by keys in the real window.
class PublishTest : public SampleWindowTest {
 protected:
  void SetUp() override {
    SampleWindowTest::SetUp();
    open_test(3, Stage::Publish);
    find<QLineEdit>("publishFolder")->setText(path("out"));
    window_->setFocus();
  }
  QString words(const char* form) { return find<QLabel>(("standing-" + std::string(form)).c_str())->text(); }
  bool all_written() {
    return QTest::qWaitFor([&] { return find<QLabel>("written")->text().startsWith("Written:"); }, 90000);
  }
  QStringList files() { return QDir(path("out")).entryList(QDir::Files, QDir::Name); }
  void press(Qt::Key k) { QTest::keyClick(find<QLabel>("written")->parentWidget()->parentWidget(), k); }
};

}  // namespace

TEST_F(PublishTest, APreviewOfALostLabBookSaysSoAndComesOnceItIsBack) {
  const auto* preview = window_->findChild<ReportPreview*>();
  ASSERT_TRUE(QTest::qWaitFor([&] { return preview->words().isEmpty(); }, 60000));
  const std::filesystem::path file = desk().book().file(), away = file.parent_path() / "away.sunbreak";
  std::filesystem::rename(file, away);
  window_->show_stage(Stage::Rig);
  window_->show_stage(Stage::Publish);
  EXPECT_TRUE(QTest::qWaitFor([&] { return preview->words().startsWith("There is no preview"); }, 60000))
      << preview->words().toStdString();
  EXPECT_TRUE(find<QLabel>("message")->text().contains("there is no such file"));
  std::filesystem::rename(away, file);
  window_->show_stage(Stage::Rig);
  window_->show_stage(Stage::Publish);
  EXPECT_TRUE(QTest::qWaitFor([&] { return preview->words().isEmpty(); }, 60000)) << preview->words().toStdString();
}

TEST_F(PublishTest, AllByOneKeyAndAgainWhereTheBookHasMoved) {
  EXPECT_EQ(words("page"), "for readers: one file, no script");
  press(Qt::Key_W);
  ASSERT_TRUE(all_written()) << find<QLabel>("written")->text().toStdString();
  const QStringList first = files();
  ASSERT_GE(first.size(), 6);
  int in_folders = 0;
  for (QDirIterator all(path("out"), QDir::Files, QDirIterator::Subdirectories); all.hasNext(); all.next())
    ++in_folders;
  EXPECT_TRUE(find<QLabel>("written")->text().startsWith(QString("Written: %1 files in ").arg(in_folders)))
      << find<QLabel>("written")->text().toStdString() << " of " << in_folders;
  EXPECT_TRUE(words("page").contains("up to date")) << words("page").toStdString();
  press(Qt::Key_P);
  EXPECT_TRUE(QFile::exists(QGuiApplication::clipboard()->text()));

  // The command line writes the same package.
  QProcess cli;
  cli.start(SUNBREAK_CLI, {"publish", text_of(book_file()), "--test", "3", "--form", "package", "-o", path("there")});
  ASSERT_TRUE(cli.waitForFinished(60000));
  EXPECT_EQ(cli.exitCode(), 0) << cli.readAllStandardError().toStdString();
  const QString package = first.filter(".zip").front();
  EXPECT_EQ(exchange::digest_of_file(text_of(path("out/") + package)),
            exchange::digest_of_file(text_of(path("there/") + package)));

  // Two edits later the files are old; they are written over, since nobody else touched them.
  for (const char* note : {"seen once", "seen twice"})
    desk().edits().make("note", [&](book::Edit& e) {
      record::Test t = *desk().book().find<record::Test>(3);
      t.notes = note;
      e.save(t);
    });
  ASSERT_TRUE(QTest::qWaitFor([&] { return words("page") == "2 edits old: write again"; }, 10000))
      << words("page").toStdString();
  // One that was changed by hand stays as it is, beside the new one.
  const QString table = first.filter(".csv").front();
  std::ofstream(text_of(path("out/") + table), std::ios::app) << "mine\n";
  find<QLabel>("written")->clear();
  press(Qt::Key_W);
  ASSERT_TRUE(all_written());
  EXPECT_TRUE(words("page").contains("up to date"));
  EXPECT_EQ(files().size(), first.size() + 1);
  EXPECT_TRUE(files().contains(QString(table).replace(".csv", "-2.csv")));
}

TEST_F(PublishTest, PartsAreChosenByTheirTicksAndKept) {
  QTimer::singleShot(50, [&] {
    QWidget* dialog = QApplication::activeModalWidget();
    ASSERT_NE(dialog, nullptr);
    ASSERT_EQ(dialog->objectName(), "partsDialog");
    for (const char* part : {"part_readings", "part_sweeps"}) {
      auto* box = dialog->findChild<QCheckBox*>(part);
      ASSERT_NE(box, nullptr) << part;
      QTest::keyClick(box, Qt::Key_Space);
      EXPECT_FALSE(box->isChecked());
    }
    dialog->close();
  });
  press(Qt::Key_T);
  EXPECT_TRUE(find<QPushButton>("pageParts")->text().contains("2 left out"));
  QTest::mouseClick(find<QPushButton>("writePage"), Qt::LeftButton);
  ASSERT_TRUE(all_written()) << find<QLabel>("written")->text().toStdString();
  QFile page(path("out/") + files().filter(".html").front());
  ASSERT_TRUE(page.open(QIODevice::ReadOnly));
  const QByteArray html = page.readAll();
  EXPECT_FALSE(html.contains("Corrected PPFD in"));
  EXPECT_FALSE(html.contains("<h2 id=\"sweep-"));
  EXPECT_TRUE(html.contains("What each setting serves"));
  QSettings().remove("publish/leftOut");
}

TEST_F(PublishTest, OnlyWhatIsTickedAndStoppedByAKey) {
  for (auto* tick : window_->findChildren<QCheckBox*>(QRegularExpression("^form-"))) tick->setChecked(false);
  find<QCheckBox>("form-stations")->setChecked(true);
  press(Qt::Key_W);
  ASSERT_TRUE(all_written());
  ASSERT_EQ(files().size(), 1);
  EXPECT_TRUE(files().front().endsWith("-stations.pdf"));
  for (auto* tick : window_->findChildren<QCheckBox*>(QRegularExpression("^form-"))) tick->setChecked(true);
  press(Qt::Key_W);
  press(Qt::Key_Escape);
  EXPECT_TRUE(find<QLabel>("written")->text().startsWith("Stopped:"));
  QTest::qWait(300);
  for (const QString& file : files()) EXPECT_FALSE(file.startsWith('.')) << "nothing half: " << file.toStdString();
}
