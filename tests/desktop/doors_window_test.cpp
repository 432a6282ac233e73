#include <QAbstractButton>
#include <QFile>
#include <QLabel>
#include <QPushButton>
#include <QTimer>

#include "desktop/desk/background.h"
#include "desktop/walk/walk_view.h"
#include "desktop/window_fixture.h"
#include "exchange/files/new_file.h"
#include "exchange/package/data_package.h"

namespace sunbreak::desktop {

namespace {

bool notice_tells(QWidget& window, const QString& words) {
  for (const QLabel* label : window.findChildren<QLabel*>())
    if (label->isVisible() && label->text().contains(words)) return true;
  return false;
}

}  // namespace

TEST_F(WindowTest, ASweepThatHoldsWhatCannotBeIsShownAsSetApartAndEntersNoFigure) {
  key(Qt::Key_N, Qt::ControlModifier);
  for (int i = 0; i < 36; ++i) ASSERT_TRUE(desk().edits().accept(i, 400 + i % 5, "typed"));
  const record::Id test = desk().test()->test.id;
  window_.reset();
  {
    SQLite::Database raw(book_file(), SQLite::OPEN_READWRITE);
    raw.exec("UPDATE reading SET raw = 1e9 WHERE station = 7");
  }
  open();
  open_test(test, Stage::Read);
  EXPECT_TRUE(notice_tells(*window_, "reading, row 8, column raw: '1000000000'"));
  EXPECT_TRUE(notice_tells(*window_, "set apart"));
  EXPECT_EQ(desk().figures(), nullptr);
  EXPECT_EQ(desk().view()->read(), 0);
  window_->show_stage(Stage::Walk);
  EXPECT_FALSE(desk().edits().accept(3, 410, "typed"));
  EXPECT_TRUE(find<QLabel>("message")->text().contains("set apart"));
  EXPECT_EQ(desk().book().all<record::Reading>().size(), 36u) << "nothing is lost, nothing is added";
}

TEST_F(WindowTest, WhatNobodyForesawEndsInASentence) {
  QTimer::singleShot(0, window_.get(), [] { throw std::runtime_error("a slot without a roof"); });
  QApplication::processEvents();
  EXPECT_TRUE(find<QLabel>("message")->text().contains("a slot without a roof"));
  EXPECT_TRUE(find<QLabel>("message")->text().contains("stays as it is"));
  Background background(window_.get());
  bool answered = false;
  int missed = 0;
  background.ask([](auto) -> int { throw std::bad_alloc(); }, [&](int) { answered = true; }, [&] { ++missed; });
  EXPECT_TRUE(QTest::qWaitFor([&] { return find<QLabel>("message")->text().contains("not enough memory"); }, 60000));
  EXPECT_FALSE(answered);
  EXPECT_EQ(missed, 1);
  background.ask([](auto) { return 7; }, [](int) { throw std::length_error("an answer too long"); }, [&] { ++missed; });
  EXPECT_TRUE(QTest::qWaitFor([&] { return find<QLabel>("message")->text().contains("an answer too long"); }, 60000));
  EXPECT_EQ(missed, 2);
  key(Qt::Key_N, Qt::ControlModifier);
  EXPECT_TRUE(desk().edits().accept(0, 400, "typed")) << "and work goes on";
}

TEST_F(WindowTest, ATypedValueThatCannotBeIsRefusedAndNothingChanges) {
  key(Qt::Key_N, Qt::ControlModifier);
  EXPECT_FALSE(desk().edits().accept(0, 1e9, "typed"));
  EXPECT_TRUE(find<QLabel>("message")->text().contains("cannot be in raw of a reading"));
  EXPECT_TRUE(desk().book().all<record::Reading>().empty());
}

TEST_F(WindowTest, AnAlteredPackageIsListedAndTakenOnlyWhenSaidSo) {
  key(Qt::Key_N, Qt::ControlModifier);
  for (int i = 0; i < 36; ++i) ASSERT_TRUE(desk().edits().accept(i, 400 + i % 5, "typed"));
  exchange::Archive archive = exchange::make_package(*desk().test());
  std::string& readings = archive.at("reading.csv");
  readings.replace(readings.find(",404,"), 5, ",440,");  // a value: a moment may end in 404 as well
  ASSERT_FALSE(exchange::write_new_file(path("altered.zip").toStdString(), exchange::zip_bytes(archive)));
  QString listed;
  const auto answer_with = [&](const char* button) {
    QTimer::singleShot(0, [&listed, button] {
      QWidget* question = QApplication::activeModalWidget();
      ASSERT_NE(question, nullptr);
      auto* details = question->findChild<QLabel*>("questionDetails");
      listed = details ? details->text() : QString();
      auto* pressed = question->findChild<QPushButton*>(button);
      ASSERT_NE(pressed, nullptr);
      pressed->click();
    });
    window_->bring_in_file(path("altered.zip"));
  };
  answer_with("leaveAltered");
  EXPECT_TRUE(listed.contains("reading.csv was changed after it was written")) << listed.toStdString();
  EXPECT_TRUE(listed.contains("figures.csv")) << "what does not come out of the readings is listed too";
  EXPECT_EQ(desk().book().all<record::Test>().size(), 1u);
  answer_with("takeAltered");
  EXPECT_EQ(desk().book().all<record::Test>().size(), 2u);
}

}  // namespace sunbreak::desktop
