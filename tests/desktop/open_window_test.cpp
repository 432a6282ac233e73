#include "desktop/shell/open_window.h"

#include <QDir>
#include <QFile>
#include <QFileDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTimer>
#include <fstream>

#include "book/connection.h"
#include "desktop/shell/shots.h"
#include "desktop/window_fixture.h"

namespace sunbreak::desktop {

/// A lab book that cannot be opened always leaves a way on.
class OpenWindowTest : public WindowTest {
 protected:
  void SetUp() override {
    WindowTest::SetUp();
    key(Qt::Key_N, Qt::ControlModifier);
    ASSERT_TRUE(desk().edits().accept(0, 500, "typed"));
    window_.reset();
  }
  /// Leaves a backup of today and spoils the lab book's middle.
  void spoil() {
    { auto again = book::Book::open(book_file()); }
    ASSERT_TRUE(book::Book::newest_backup(book_file()).has_value());
    std::fstream file(book_file(), std::ios::in | std::ios::out | std::ios::binary);
    file.seekp(0, std::ios::end);
    const auto size = static_cast<long>(file.tellp());
    for (long at = 100; at < size; at += 64) {
      file.seekp(at);
      file.write("XXXXXXXXXXXXXXXX", 16);
    }
  }
  QByteArray content(const std::string& name) {
    QFile file(QString::fromStdString(name));
    EXPECT_TRUE(file.open(QIODevice::ReadOnly));
    return file.readAll();
  }
  void answer(const char* button) {
    QTimer::singleShot(50, [this, button] {
      QWidget* question = QApplication::activeModalWidget();
      ASSERT_NE(question, nullptr);
      words_ = question->findChild<QLabel*>("questionText")->text();
      auto* pressed = question->findChild<QPushButton*>(button);
      ASSERT_NE(pressed, nullptr) << button;
      pressed->click();
    });
  }
  QString words_;
};

TEST_F(OpenWindowTest, TheNewestBackupIsWorkedOnAsACopyBesideTheDamagedFile) {
  spoil();
  const std::string backup = book::Book::newest_backup(book_file())->string();
  const QByteArray damaged = content(book_file()), kept = content(backup);
  answer("openBackup");
  auto window = open_window(QString::fromStdString(book_file()));
  ASSERT_NE(window, nullptr);
  EXPECT_TRUE(words_.contains("is damaged")) << words_.toStdString();
  EXPECT_EQ(window->desk().book().file().filename(), "book-from-backup.sunbreak");
  EXPECT_EQ(window->desk().book().file().parent_path(), std::filesystem::canonical(folder_.path().toStdString()));
  window->desk().edits().make("work", [](book::Edit& e) { e.add(record::Bench{}); });
  window.reset();
  EXPECT_EQ(content(backup), kept) << "no work is done inside a backup";
  EXPECT_EQ(content(book_file()), damaged);
}

TEST_F(OpenWindowTest, AnotherLabBookCanAlwaysBeOpened) {
  spoil();
  const QString other = path("other.sunbreak");
  { auto made = book::Book::open(other.toStdString()); }
  answer("openAnother");
  QTimer::singleShot(400, [&] {
    auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
    ASSERT_NE(dialog, nullptr);
    EXPECT_EQ(dialog->labelText(QFileDialog::Accept), "Open");
    dialog->findChild<QLineEdit*>("fileNameEdit")->setText(other);
    QMetaObject::invokeMethod(dialog, "accept");
  });
  auto window = open_window(QString::fromStdString(book_file()));
  ASSERT_NE(window, nullptr);
  EXPECT_EQ(window->desk().book().file().filename(), "other.sunbreak");
}

TEST_F(OpenWindowTest, QuitLeavesEverythingAsItIs) {
  spoil();
  answer("leaveBook");
  EXPECT_EQ(open_window(QString::fromStdString(book_file())), nullptr);
}

TEST_F(OpenWindowTest, WhatChangedInTheFileIsToldOverAllThatIsShown) {
  { auto again = book::Book::open(book_file()); }  // leaves a backup of today
  book::connect(book_file(), SQLite::OPEN_READWRITE)->exec("UPDATE reading SET raw = 501");
  open();
  const auto notice = [&] {
    for (const QLabel* label : window_->findChildren<QLabel*>())
      if (label->isVisible() && label->text().contains("Not as it was written: test 1")) return label->text();
    return QString();
  };
  EXPECT_TRUE(QTest::qWaitFor([&] { return !notice().isEmpty(); }, 60000));
  EXPECT_TRUE(notice().contains("newest backup of before is")) << notice().toStdString();
  open_test(1, Stage::Read);
  ASSERT_FALSE(desk().test()->faults.empty());
  EXPECT_FALSE(desk().edits().accept(0, 510, "typed")) << "what is set apart is not written on";
}

/// Pictures of whatever lab book there is: of none of the sample's tests, of one with nothing read, of one half read.
TEST_F(OpenWindowTest, PicturesOfAnyLabBookEnd) {
  const QTemporaryDir folder;
  const auto pictures_of = [&](const char* name) {
    const std::filesystem::path into = folder.filePath(name).toStdString();
    EXPECT_TRUE(write_shots(*window_, into));
    return std::distance(std::filesystem::directory_iterator(into), {});
  };
  open();
  EXPECT_EQ(desk().book().all<record::Test>().size(), 1u);
  EXPECT_GT(pictures_of("one"), 12) << "one test, of which one station was read";
  const record::Test test = desk().book().all<record::Test>().front();
  desk().edits().make("away", [&](book::Edit& e) {
    record::Test gone = test;
    gone.removed = true;
    e.save(gone);
  });
  EXPECT_EQ(pictures_of("none"), 1) << "of Home alone";
  window_->show_home();
  key(Qt::Key_N, Qt::ControlModifier);
  EXPECT_GE(pictures_of("unread"), 5);
}

}  // namespace sunbreak::desktop
