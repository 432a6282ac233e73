#include "desktop/shell/main_window.h"

#include <QAction>
#include <QApplication>
#include <QClipboard>
#include <QCloseEvent>
#include <QComboBox>
#include <QDragEnterEvent>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QMimeData>
#include <QPushButton>
#include <QScreen>
#include <QSettings>
#include <QShortcut>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

#include "book/plan.h"
#include "desktop/application/application.h"
#include "desktop/desk/test_log.h"
#include "desktop/home/home_view.h"
#include "desktop/instruments/instruments_panel.h"
#include "desktop/pictures/attach_dialog.h"
#include "desktop/shell/about.h"
#include "desktop/shell/key_page.h"
#include "desktop/shell/mast.h"
#include "desktop/shell/sensor_strip.h"
#include "desktop/shell/stages.h"
#include "desktop/shell/work_line.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "desktop/widgets/wheel_guard.h"

namespace sunbreak::desktop {
namespace {

/// The size of the first window: with its frame it fits a screen of 1280 × 800.
QSize first_size() {
  constexpr QSize wanted(1280, 800), frame(8, 40);
  const QScreen* screen = QGuiApplication::primaryScreen();
  return screen ? wanted.boundedTo(screen->availableSize() - frame) : wanted;
}

}  // namespace

MainWindow::MainWindow(std::unique_ptr<book::Book> book, QWidget* parent)
    : QMainWindow(parent),
      desk_(std::make_unique<Desk>(std::move(book))),
      hub_(std::make_unique<InstrumentHub>()),
      log_(std::make_unique<TestLog>(*desk_)) {
  setAcceptDrops(true);
  setMinimumSize(1000, 640);
  build_frame();
  build_stages();
  build_menu();
  connect(desk_.get(), &Desk::changed, this, &MainWindow::refresh);
  connect(hub_.get(), &InstrumentHub::changed, this, [this, was = 1.0]() mutable {
    if (const double speed = hub_->simulated_speed(); speed != was) desk_->clock().run_at(was = speed);
  });
  qApp->installEventFilter(this);
  if (auto* app = dynamic_cast<Application*>(qApp))
    app->tell_by([this](const QString& sentence) { desk_->warn(sentence); });
  if (!restoreGeometry(QSettings().value("window/geometry").toByteArray())) resize(first_size());
  remember_book();
  show_notices();
  show_home();
  check_file();
}

void MainWindow::check_file() {
  file_check_.ask([file = desk_->book().file()](
                      const std::stop_token& stop) { return book::Book::read_beside(file)->damage_words(stop); },
                  [this](const std::string& words) {
                    damage_ = words;
                    show_notices();
                  });
}

MainWindow::~MainWindow() {
  // The stages look at the desk to their last: a field that loses the keyboard keeps what was typed in it.
  qApp->removeEventFilter(this);
  if (auto* app = dynamic_cast<Application*>(qApp)) app->tell_by(nullptr);
  delete centralWidget();
}

void MainWindow::build_frame() {
  auto* center = new QWidget(this);
  auto* column = new QVBoxLayout(center);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  auto* top = top_ = new QWidget(center);
  top->setObjectName("workLine");
  top->setAttribute(Qt::WA_StyledBackground);
  auto* bar = new QHBoxLayout(top);
  bar->setContentsMargins(8, 0, 12, 0);
  auto* home = new QToolButton(top);
  home->setText(tr("Home"));
  home->setObjectName("homeButton");
  home->setProperty("plain", true);
  home->setStyleSheet("font-size: 16px; font-weight: bold;");
  home->setToolTip(tr("The tests of the lab book, and its shelf (Alt+Home)"));
  connect(home, &QToolButton::clicked, this, &MainWindow::show_home);
  book_name_ = quiet_label({}, top);
  auto* names = new QVBoxLayout;
  names->setSpacing(0);
  names->setContentsMargins(0, 2, 0, 4);
  names->addWidget(home, 0, Qt::AlignLeft);
  book_name_->setContentsMargins(8, 0, 0, 0);
  book_name_->setStyleSheet("font-size: 11px;");
  names->addWidget(book_name_);
  auto* name_box = new QWidget(top);
  name_box->setLayout(names);
  name_box->setFixedWidth(192);
  bar->addWidget(name_box);
  work_line_ = new WorkLine(*desk_, top);
  connect(work_line_, &WorkLine::chosen, this, &MainWindow::show_stage);
  bar->addWidget(work_line_, 1);
  units_ = new QToolButton(top);
  units_->setObjectName("units");
  units_->setProperty("plain", true);
  units_->setToolTip(tr("Metric or imperial (Ctrl+M)"));
  connect(units_, &QToolButton::clicked, this, [this] {
    desk_->set_units(desk_->units() == UnitSystem::Metric ? UnitSystem::Imperial : UnitSystem::Metric);
  });
  bar->addWidget(units_);
  menu_ = new QToolButton(top);
  menu_->setText(tr("Menu"));
  menu_->setProperty("plain", true);
  menu_->setPopupMode(QToolButton::InstantPopup);
  bar->addWidget(menu_);
  column->addWidget(top);
  notice_ = wrapped_label({}, center);
  notice_->setContentsMargins(16, 6, 16, 6);
  set_tone(notice_, "attention");
  column->addWidget(notice_);
  auto* middle = new QHBoxLayout;
  middle->setSpacing(0);
  mast_ = new Mast(*desk_, center);
  stack_ = new QStackedWidget(center);
  middle->addWidget(mast_);
  middle->addWidget(stack_, 1);
  column->addLayout(middle, 1);
  auto* strip = new SensorStrip(*desk_, *hub_, *log_, center);
  strip_ = strip;
  connect(strip, &SensorStrip::wants_instruments, this, &MainWindow::show_instruments);
  column->addWidget(strip);
  setCentralWidget(center);
}

void MainWindow::build_stages() {
  home_ = new HomeView(*desk_, *hub_, stack_);
  stack_->addWidget(home_);
  connect(home_, &HomeView::open, this, [this](record::Id id, std::optional<Stage> stage) { open_test(id, stage); });
  connect(home_, &HomeView::wants_package, this, &MainWindow::choose_file);
  for (const StageKind& kind : stages()) {
    StageView* view = kind.make({*desk_, *hub_, *log_}, stack_);
    stack_->addWidget(view);
    views_.push_back(view);
    connect(view, &StageView::go, this, [this](Stage stage, const QString& field) {
      show_stage(stage);
      if (!field.isEmpty()) front()->reveal(field);
    });
    connect(view, &StageView::wants_file, this, &MainWindow::choose_file);
    connect(view, &StageView::arms_length_wanted, this, &MainWindow::set_arms_length);
    connect(view, &StageView::pasted, this,
            [this](const QString& text) { bring_in_table(text_of(text), tr("the clipboard"), "pasted"); });
  }
}

void MainWindow::add_key(const QKeySequence& keys, const std::function<void()>& act) {
  auto* shortcut = new QShortcut(keys, this);
  connect(shortcut, &QShortcut::activated, this, act);
}

void MainWindow::build_menu() {
  auto* menu = new QMenu(menu_);
  const auto entry = [&](const QString& text, const QKeySequence& keys, const std::function<void()>& act) {
    QAction* action = menu->addAction(text);
    action->setShortcut(keys);
    connect(action, &QAction::triggered, this, act);
    addAction(action);
  };
  entry(tr("Home"), QKeySequence("Alt+Home"), [this] { show_home(); });
  entry(tr("New test"), QKeySequence::New, [this] { home_->start_test(); });
  entry(tr("New lab book…"), {}, [this] { new_book(); });
  entry(tr("Open a lab book…"), {}, [this] { choose_book(); });
  auto* recent = menu->addMenu(tr("Recent lab books"));
  connect(recent, &QMenu::aboutToShow, this, [this, recent] {
    recent->clear();
    for (const QString& path : recent_books())
      connect(recent->addAction(path), &QAction::triggered, this, [this, path] { open_book(path); });
    if (recent->isEmpty()) recent->addAction(tr("none but this one"))->setEnabled(false);
  });
  entry(tr("Bring in a table, data package or picture…"), QKeySequence::Open, [this] { choose_file(); });
  menu->addSeparator();
  entry(tr("Undo"), QKeySequence::Undo, [this] { desk_->edits().undo(); });
  entry(tr("Redo"), QKeySequence("Ctrl+Shift+Z"), [this] { desk_->edits().redo(); });
  entry(tr("Copy the sweep as a table"), QKeySequence::Copy, [this] { copy(); });
  entry(tr("Paste readings or a picture"), QKeySequence::Paste, [this] { paste(); });
  entry(tr("Plan the other sweeps like this one"), QKeySequence("Ctrl+G"), [this] { plan_like_this_sweep(); });
  menu->addSeparator();
  entry(tr("Metric or imperial"), QKeySequence("Ctrl+M"), [this] { units_->click(); });
  entry(tr("Paper or Loft"), QKeySequence("Ctrl+L"), [this] { toggle_look(); });
  entry(tr("Instruments…"), QKeySequence("Ctrl+I"), [this] { show_instruments(); });
  entry(tr("Full screen"), QKeySequence::FullScreen, [this] { isFullScreen() ? showNormal() : showFullScreen(); });
  entry(tr("Keys"), QKeySequence(Qt::Key_F1),
        [this] { show_keys(this, stage_ ? stage_kind(*stage_).name : tr("Home"), front()->keys()); });
  entry(tr("About Sunbreak"), {}, [this] { show_about(this, text_of(desk_->book().file().string())); });
  menu->addSeparator();
  entry(tr("Quit"), QKeySequence::Quit, [this] { close(); });
  menu_->setMenu(menu);
  add_key(Qt::Key_F10, [this] { menu_->showMenu(); });
  for (int i = 0; i < static_cast<int>(stages().size()); ++i)
    add_key(QKeySequence(Qt::ALT | static_cast<Qt::Key>(Qt::Key_1 + i)), [this, i] { show_stage(stages()[i].stage); });
  const auto page = [this](int by) {
    if (!front()->page(by)) desk_->step_rung(by);
  };
  add_key(Qt::Key_PageUp, [page] { page(-1); });
  add_key(Qt::Key_PageDown, [page] { page(1); });
  add_key(Qt::Key_BracketLeft, [this] { desk_->step_stop(-1); });
  add_key(Qt::Key_BracketRight, [this] { desk_->step_stop(1); });
  add_key(Qt::Key_BraceLeft, [this] { desk_->step_configuration(-1); });
  add_key(Qt::Key_BraceRight, [this] { desk_->step_configuration(1); });
}

StageView* MainWindow::front() const { return static_cast<StageView*>(stack_->currentWidget()); }

void MainWindow::show_home() {
  stage_.reset();
  work_line_->set_stage(stage_);
  mast_->hide();
  stack_->setCurrentWidget(home_);
  refresh();
  home_->arrive();
}

void MainWindow::show_stage(Stage stage) {
  if (!desk_->test()) {
    desk_->say(tr("No test is open: choose one here, or start a new one."));
    return show_home();
  }
  // What is being typed is kept before its field goes out of sight.
  if (QWidget* typing = QApplication::focusWidget()) typing->clearFocus();
  stage_ = stage;
  work_line_->set_stage(stage_);
  show_notices();
  mast_->show();
  StageView* view = views_[stage_place(stage)];
  stack_->setCurrentWidget(view);
  view->arrive();
}

void MainWindow::open_test(record::Id id, std::optional<Stage> stage, const std::function<void()>& then) {
  desk_->open_test(id, [this, stage, then] {
    if (!desk_->test()) return;
    const Stage at = stage.value_or(desk_->test()->readings.empty() ? Stage::Rig : Stage::Read);
    if (views_[stage_place(at)]->begins_with_fullest_sweep()) desk_->choose_fullest();
    show_stage(at);
    if (then) then();
  });
}

/// What has to be known of the lab book and of the test at hand, above everything else.
void MainWindow::show_notices() {
  QStringList notices;
  if (desk_->read_only()) notices << tr("Read-only: %1.").arg(text_of(desk_->book().why_read_only()));
  if (!desk_->book().notice().empty()) notices << text_of(desk_->book().notice());
  if (!damage_.empty()) notices << text_of(damage_);
  if (stage_ && desk_->test() && !desk_->test()->faults.empty()) {
    const auto& faults = desk_->test()->faults;
    notices << tr("This test holds what cannot be: %1%2. What this would enter is set apart and in no figure.")
                   .arg(text_of(faults.front().words()),
                        faults.size() > 1 ? tr(", and %1 more").arg(faults.size() - 1) : QString());
  }
  notice_->setText(marked_attention(notices.join(' ')));
  notice_->setVisible(!notices.isEmpty());
}

void MainWindow::refresh() {
  show_notices();
  if (const auto revision = desk_->book().revision(); !damage_.empty() && revision != checked_at_) {
    checked_at_ = revision;
    check_file();  // what was damaged may have been written anew
  }
  if (stage_ && !desk_->test()) return show_home();
  const QString stem = QFileInfo(text_of(desk_->book().file().string())).completeBaseName();
  book_name_->setText(QFontMetrics(book_name_->font()).elidedText(stem, Qt::ElideMiddle, 180));
  book_name_->setToolTip(text_of(desk_->book().file().string()));
  setWindowTitle(desk_->test() && stage_ ? tr("%1 – Sunbreak").arg(text_of(record::title_of(*desk_->test())))
                                         : tr("%1 – Sunbreak").arg(stem));
  units_->setText(desk_->units() == UnitSystem::Metric ? tr("cm") : tr("in"));
}

void MainWindow::show_instruments() {
  InstrumentsPanel panel(*hub_, this);
  panel.exec();
}

void MainWindow::toggle_look() {
  apply_look(*qApp, theme().look == Look::Paper ? LookChoice::Loft : LookChoice::Paper);
  QSettings().setValue("look", theme().look == Look::Paper ? "paper" : "loft");
  emit desk_->changed();
}

void MainWindow::set_arms_length(bool on) {
  top_->setVisible(!on);
  mast_->setVisible(!on && stage_);
  strip_->setVisible(!on);
  if (on)
    setWindowState(windowState() | Qt::WindowFullScreen);
  else
    setWindowState(windowState() & ~Qt::WindowFullScreen);
}

void MainWindow::plan_like_this_sweep() {
  if (!desk_->test() || !stage_) return desk_->say(tr("Open a test first: its other sweeps take a sweep's grid."));
  if (!desk_->sweep()) return desk_->say(tr("This sweep follows the plan already: it has no grid of its own yet."));
  const QString problem = desk_->edits().plan(
      [&] { return book::plan_grid(desk_->book(), *desk_->test(), record::grid_of(*desk_->sweep())); });
  if (!problem.isEmpty()) return desk_->warn(problem);
  desk_->say(tr("The plan and every sweep not begun yet have this sweep's grid now. Ctrl+Z takes that back."));
}

void MainWindow::copy() {
  if (const QString said = front()->copy(); !said.isEmpty()) desk_->say(said);
}

void MainWindow::paste() {
  if (stage_ && desk_->test() && clipboard_holds_only_picture()) {
    attach_from_clipboard(*desk_, PictureOf::test(), this);
    return;
  }
  const QString text = QApplication::clipboard()->text();
  if (text.trimmed().isEmpty()) return desk_->say(tr("The clipboard holds no text to bring in."));
  bring_in_table(text_of(text), tr("the clipboard"), "pasted");
}

void MainWindow::closeEvent(QCloseEvent* event) {
  if (QWidget* typing = QApplication::focusWidget()) typing->clearFocus();
  QSettings().setValue("window/geometry", saveGeometry());
  remember_test();
  QMainWindow::closeEvent(event);
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
  const QList<QUrl> urls = event->mimeData()->urls();
  if (urls.isEmpty() || !urls.first().isLocalFile()) return;
  event->acceptProposedAction();
  QStringList paths;
  for (const QUrl& url : urls)
    if (url.isLocalFile()) paths << url.toLocalFile();
  bring_in_files(paths);
}

bool MainWindow::eventFilter(QObject* watched, QEvent* event) {
  if (keep_wheel_off(watched, event)) return true;
  // A key that empties a whole field at once, past what its undo brings back, is too near to others.
  if (event->type() == QEvent::KeyPress && qobject_cast<QLineEdit*>(watched) &&
      static_cast<QKeyEvent*>(event)->matches(QKeySequence::DeleteCompleteLine))
    return true;
  // Enter presses the button that the keyboard is on.
  if (event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    auto* button = qobject_cast<QAbstractButton*>(watched);
    if (button && button->hasFocus() && button->window() == this && (key == Qt::Key_Return || key == Qt::Key_Enter)) {
      button->click();
      return true;
    }
  }
  // A field with nothing typed in it leaves undo and redo to the lab book.
  if (event->type() == QEvent::ShortcutOverride) {
    auto* edit = qobject_cast<QLineEdit*>(watched);
    auto* key = static_cast<QKeyEvent*>(event);
    const bool undo = key->matches(QKeySequence::Undo), redo = key->matches(QKeySequence::Redo);
    if (edit && ((undo && !edit->isUndoAvailable()) || (redo && !edit->isRedoAvailable()))) {
      event->ignore();
      return true;
    }
  }
  return QMainWindow::eventFilter(watched, event);
}

}  // namespace sunbreak::desktop
