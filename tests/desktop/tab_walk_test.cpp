#include <QAbstractButton>
#include <QComboBox>
#include <QDialog>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTimer>
#include <set>

#include "desktop/desk/stage_view.h"
#include "desktop/lineup/lineup_work.h"
#include "desktop/read/read_view.h"
#include "desktop/window_fixture.h"
#include "pictures/made_pictures.h"

namespace sunbreak::desktop {

/// Every stage and dialog walked by Tab alone: each control is reached, has a name, and shows that it has the keyboard.
class TabWalkTest : public WindowTest {
 protected:
  static bool is_control(const QWidget* w) {
    return qobject_cast<const QAbstractButton*>(w) || qobject_cast<const QLineEdit*>(w) ||
           qobject_cast<const QComboBox*>(w) || qobject_cast<const QPlainTextEdit*>(w) ||
           qobject_cast<const QAbstractItemView*>(w);
  }
  static std::string words(const QWidget* w) {
    const auto* button = qobject_cast<const QAbstractButton*>(w);
    return std::string(w->metaObject()->className()) + " '" + w->objectName().toStdString() + "' " +
           w->accessibleName().toStdString() + (button ? " " + button->text().toStdString() : "");
  }
  static QString name_of(const QWidget* w) {
    const auto* button = qobject_cast<const QAbstractButton*>(w);
    return !w->accessibleName().isEmpty() ? w->accessibleName() : button ? button->text() : QString();
  }

  /// Walks once around `of` and judges what was met.
  void walk(QWidget* of, const std::string& where) {
    QWidget* first = QApplication::focusWidget();
    ASSERT_NE(first, nullptr) << where << ": the keyboard is nowhere";
    std::set<const QWidget*> met;
    for (int step = 0; step < 400; ++step) {
      QWidget* at = QApplication::focusWidget();
      ASSERT_NE(at, nullptr) << where;
      if (!met.insert(at).second) break;
      EXPECT_TRUE(at->isVisible()) << where << ": " << words(at);
      EXPECT_FALSE(name_of(at).isEmpty()) << where << ": " << words(at) << " has no name";
      expect_shown(at, where);
      QTest::keyClick(at, Qt::Key_Tab);
    }
    for (const QWidget* control : of->findChildren<QWidget*>()) {
      if (!is_control(control) || !control->isVisibleTo(of) || !control->isEnabled()) continue;
      if (!(control->focusPolicy() & Qt::TabFocus)) continue;
      if (control->parentWidget() && qobject_cast<const QAbstractItemView*>(control->parentWidget())) continue;
      EXPECT_TRUE(met.contains(control)) << where << ": Tab does not reach " << words(control);
    }
  }

  /// The widget looks other with the keyboard than without.
  void expect_shown(QWidget* at, const std::string& where) {
    QWidget* window = at->window();
    const QRect around = QRect(at->mapTo(window, QPoint()), at->size()).adjusted(-4, -4, 4, 4) & window->rect();
    const auto picture = [&] { return window->grab(around).toImage(); };
    const QImage with = picture();
    at->clearFocus();
    const QImage without = picture();
    at->setFocus(Qt::TabFocusReason);
    EXPECT_NE(with, without) << where << ": " << words(at) << " does not show that it has the keyboard";
  }

  void walk_stages(const std::string& of) {
    for (const auto& [stage, name] : {std::pair{Stage::Rig, "Rig"},
                                      {Stage::WarmUp, "Warm-up"},
                                      {Stage::Walk, "Walk"},
                                      {Stage::Publish, "Publish"}}) {
      window_->show_stage(stage);
      if (stage == Stage::Rig) unfold_all();
      QTest::qWait(30);
      walk(window_.get(), of + name);
    }
    window_->show_stage(Stage::Read);
    for (int page = 1; page <= 8; ++page) {
      find<QPushButton>(("readPage" + std::to_string(page)).c_str())->click();
      QTest::qWait(30);
      if (!QApplication::focusWidget()) QTest::keyClick(window_.get(), Qt::Key_Tab);
      walk(window_.get(), of + "Read " + std::to_string(page));
    }
    window_->show_home();
    QTest::qWait(30);
    walk(window_.get(), of + "Home");
  }

  /// Opens a dialog by `open` and walks it.
  void walk_dialog(const std::string& name, const std::function<void()>& open) {
    bool met = false;
    QTimer::singleShot(100, [&] {
      QWidget* dialog = QApplication::activeModalWidget();
      ASSERT_NE(dialog, nullptr) << name;
      met = true;
      QApplication::setActiveWindow(dialog);  // where there is no window manager, a closed dialog leaves none active
      if (!QApplication::focusWidget()) QTest::keyClick(dialog, Qt::Key_Tab);
      walk(dialog, name);
      dialog->close();
    });
    open();
    EXPECT_TRUE(met) << name;
  }
};

TEST_F(TabWalkTest, StagesOfANewTest) {
  key(Qt::Key_N, Qt::ControlModifier);
  walk_stages("new test, ");
}

TEST_F(TabWalkTest, StagesOfAWalkedTest) {
  open_sample_book();
  const auto tests = desk().book().all<record::Test>("ORDER BY id LIMIT 1");
  open_test(tests.front().id, Stage::Rig);
  walk_stages("walked test, ");
}

TEST_F(TabWalkTest, EscapeLeavesAFieldWhereLettersAreKeys) {
  const auto takes_letters = [](const QLineEdit* field) {
    return field->isVisible() && field->isEnabled() && !qobject_cast<QComboBox*>(field->parentWidget());
  };
  open_sample_book();
  open_test(1, Stage::Audit);
  for (const Stage stage : {Stage::Read, Stage::Settle, Stage::Audit, Stage::LineUp, Stage::Publish}) {
    window_->show_stage(stage);
    if (stage == Stage::Read) {  // the fields come with the whole light
      auto* read = window_->findChild<ReadView*>();
      read->show_page(ReadView::LightsPage);
      const auto has_a_field = [&] { return std::ranges::any_of(read->findChildren<QLineEdit*>(), takes_letters); };
      ASSERT_TRUE(QTest::qWaitFor(has_a_field, 90000));
    }
    const auto stages_of_window = window_->findChildren<StageView*>();
    StageView* front =
        *std::find_if(stages_of_window.begin(), stages_of_window.end(), [](auto* s) { return s->isVisible(); });
    if (stage == Stage::LineUp) {  // Escape ends its work first
      const auto* work = window_->findChild<LineUpWork*>();
      ASSERT_TRUE(QTest::qWaitFor([&] { return work->shown() && !work->working(); }, 90000));
    }
    int tried = 0;
    for (QLineEdit* field : front->findChildren<QLineEdit*>()) {
      if (!takes_letters(field)) continue;
      field->setFocus();
      ASSERT_EQ(QApplication::focusWidget(), field);
      QTest::keyClick(field, Qt::Key_Escape);
      EXPECT_NE(QApplication::focusWidget(), field) << words(field);
      EXPECT_FALSE(qobject_cast<QLineEdit*>(QApplication::focusWidget())) << words(field);
      EXPECT_TRUE(front->isAncestorOf(QApplication::focusWidget()) || front == QApplication::focusWidget());
      ++tried;
    }
    EXPECT_GT(tried, 0) << front->metaObject()->className();
  }
  window_->show_home();
  auto* search = find<QLineEdit>("search");
  search->setFocus();
  QTest::keyClick(search, Qt::Key_Escape);
  EXPECT_FALSE(search->hasFocus());
  EXPECT_EQ(QApplication::focusWidget(), find<QWidget>("cards"));
}

TEST_F(TabWalkTest, Dialogs) {
  key(Qt::Key_N, Qt::ControlModifier);
  walk_dialog("Keys", [&] { key(Qt::Key_F1); });
  walk_dialog("Instruments", [&] { key(Qt::Key_I, Qt::ControlModifier); });
  walk_dialog("Import", [&] {
    QFile table(path("table.csv"));
    ASSERT_TRUE(table.open(QIODevice::WriteOnly));
    table.write("400,410,420\n430,440,450\n460,470,480\n");
    table.close();
    window_->bring_in_file(path("table.csv"));
  });
  window_->show_stage(Stage::WarmUp);
  walk_dialog("Temperature", [&] { find<QPushButton>("addTemperature")->click(); });
  window_->show_stage(Stage::Rig);
  unfold_all();
  walk_dialog("Sheet", [&] {
    for (auto* button : window_->findChildren<QPushButton*>())
      if (button->text().startsWith("The sheet and pictures")) return button->click();
  });
  const QString photo = path("photo.jpg");
  QFile file(photo);
  ASSERT_TRUE(file.open(QIODevice::WriteOnly));
  file.write(QByteArray::fromStdString(pictures::small_jpeg()));
  file.close();
  walk_dialog("Attach", [&] { window_->bring_in_files({photo}); });
  window_->show_stage(Stage::Walk);
  for (int i = 0; i < 8; ++i) desk().edits().accept(i, i == 3 ? 4000 : 400 + i, "typed");
  walk_dialog("Checks", [&] { key(Qt::Key_L); });
  window_->show_home();
  for (const char* kind : {"fixture", "bench", "quantum", "wall"}) {
    auto* list = find<QListWidget>("shelfList");
    for (int row = 0; row < list->count(); ++row)
      if (list->item(row)->data(Qt::UserRole).toString() == kind) {
        list->setCurrentRow(row);
        walk_dialog(kind, [&] { emit list->itemActivated(list->currentItem()); });
        break;
      }
  }
}

}  // namespace sunbreak::desktop
