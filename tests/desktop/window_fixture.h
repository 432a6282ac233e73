#pragma once

#include <gtest/gtest.h>
#include <QPushButton>

#include <QApplication>
#include <QLineEdit>
#include <QSettings>
#include <QTemporaryDir>
#include <QTest>

#include "book/sample_book.h"
#include "desktop/shell/main_window.h"

namespace sunbreak::desktop {

/// The real window on a lab book of its own, driven by keys as a tester would.
class WindowTest : public ::testing::Test {
 protected:
  void SetUp() override {
    forget_settings();
    open();
  }
  void TearDown() override { window_.reset(); }

  void forget_settings() {
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, folder_.path());
    QSettings().clear();
    QSettings().setValue("walk/silenced", true);
  }
  void open() {
    window_.reset();
    window_ = std::make_unique<MainWindow>(std::move(book::Book::open(book_file()).value()));
    window_->resize(1280, 800);
    window_->show();
    window_->activateWindow();
    QApplication::setActiveWindow(window_.get());
    EXPECT_TRUE(QTest::qWaitForWindowExposed(window_.get()));
  }
  void open_sample_book() {
    window_.reset();
    std::filesystem::copy_file(book::sample_book_file(), book_file(), std::filesystem::copy_options::overwrite_existing);
    open();
  }
  std::string book_file() const { return folder_.filePath("book.sunbreak").toStdString(); }
  QString path(const QString& name) const { return folder_.filePath(name); }

  /// Opens a test and waits until it is on the desk: a large one is read on another thread.
  void open_test(record::Id id, Stage stage) {
    bool there = false;
    window_->open_test(id, stage, [&] { there = true; });
    EXPECT_TRUE(QTest::qWaitFor([&] { return there; }, 60000));
  }

  Desk& desk() { return window_->desk(); }
  /// The widget that keys go to; where a closed dialog left none active, the window is.
  QWidget* focused() {
    if (!QApplication::activeModalWidget() && !QApplication::activeWindow())
      QApplication::setActiveWindow(window_.get());
    return QApplication::focusWidget() ? QApplication::focusWidget() : window_.get();
  }
  void key(Qt::Key k, Qt::KeyboardModifiers modifiers = Qt::NoModifier) { QTest::keyClick(focused(), k, modifiers); }
  void type(const QString& text) { QTest::keyClicks(focused(), text); }

  /// Puts the keyboard into a named field, replaces what stands there and accepts it.
  void fill(const QString& object_name, const QString& text) {
    auto* edit = window_->findChild<QLineEdit*>(object_name);
    ASSERT_NE(edit, nullptr) << object_name.toStdString();
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, text);
    QTest::keyClick(edit, Qt::Key_Return);
  }
  /// The same in a dialog, going on to the next field.
  static void put(QWidget* dialog, const char* field, const QString& text) {
    auto* edit = dialog->findChild<QLineEdit*>(field);
    ASSERT_NE(edit, nullptr) << field;
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, text);
    QTest::keyClick(edit, Qt::Key_Tab);
  }
  /// Opens every part of a form that is folded.
  void unfold_all() {
    for (auto* part : window_->findChildren<QPushButton*>())
      if (part->property("part").toBool() && part->text().startsWith('+')) part->click();
  }
  template <typename Widget>
  Widget* find(const char* object_name) {
    return window_->findChild<Widget*>(object_name);
  }

  QTemporaryDir folder_;
  std::unique_ptr<MainWindow> window_;
};

/// The real window on the sample lab book.
class SampleWindowTest : public WindowTest {
 protected:
  void SetUp() override {
    forget_settings();
    open_sample_book();
  }
};

}  // namespace sunbreak::desktop
