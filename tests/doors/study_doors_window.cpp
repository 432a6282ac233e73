#include <fmt/format.h>
#include <stdlib.h>
#include <unistd.h>

#include <QDialog>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>
#include <QTest>
#include <QTimer>
#include <filesystem>
#include <fstream>

#include "desktop/application/application.h"
#include "desktop/shell/main_window.h"
#include "desktop/shell/stages.h"
#include "desktop/theme/theme.h"
#include "doors/doors.h"

using namespace sunbreak;
using namespace sunbreak::doors;
using namespace sunbreak::desktop;
namespace fs = std::filesystem;

namespace {

fs::path folder() {
  static const fs::path made = [] {
    std::string name = (fs::temp_directory_path() / "sunbreak-doors-window-XXXXXX").string();
    return std::string(mkdtemp(name.data()));
  }();
  return made;
}

/// The application of a process that cases run in, made once the process is there.
void need_application() {
  static int argc = 1;
  static char name[] = "doors";
  static char* argv[] = {name, nullptr};
  static Application* const app = [] {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    auto* made = new Application(argc, argv);
    QApplication::setOrganizationName("Sunbreak trial");
    QApplication::setApplicationName("Sunbreak trial");
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, QString::fromStdString(folder().string()));
    QSettings().setValue("walk/silenced", true);
    load_fonts();
    apply_look(*made, LookChoice::Paper);
    return made;
  }();
  static_cast<void>(app);
}

/// Says yes to every question that comes up: what is to be tried is what follows.
void answer_dialogs() {
  QWidget* modal = QApplication::activeModalWidget();
  if (!modal) return;
  for (const char* yes : {"takeAltered", "takeReadings", "takeTables", "takeLog"})
    if (auto* button = modal->findChild<QPushButton*>(yes); button && button->isEnabled()) return button->click();
  if (auto* dialog = qobject_cast<QDialog*>(modal)) dialog->reject();
}

/// Looks at every stage of every test of the lab book, painted.
void look_at_all(MainWindow& window) {
  std::vector<record::Test> tests;
  try {
    tests = window.desk().book().all<record::Test>();
  } catch (const SQLite::Exception&) {
    return;
  }
  for (const record::Test& test : tests) {
    for (const StageKind& kind : stages()) {
      if (!kind.make) continue;
      bool there = false;
      window.open_test(test.id, kind.stage, [&] { there = true; });
      static_cast<void>(QTest::qWaitFor([&] { return there; }, 300));  // a stage that does not come is painted as it is
      window.grab();
    }
    QApplication::processEvents();
  }
}

/// The input of a case, as a file in the real window; `make` is the case in process.
Case in_the_window(Case (*make)(Random&), Random& random) {
  Input input;
  also_try = [&](const Input& tried) { input = tried; };
  Case c = make(random);
  also_try = nullptr;
  need_application();
  fs::path book = folder() / "book.sunbreak", brought = folder() / ("brought" + input.ending);
  for (const char* tail : {"", "-wal", "-shm", ".lock"}) fs::remove(book.string() + tail);
  fs::remove_all(folder() / "book-backups");
  const bool is_book = input.ending == ".sunbreak";
  std::ofstream(is_book ? book : brought, std::ios::binary) << input.bytes;
  auto opened = book::Book::open(book);
  c.family = "in the window: " + c.family;
  if (!opened) return c;
  std::unique_ptr<MainWindow> kept;
  try {
    kept = std::make_unique<MainWindow>(std::move(opened.value()));
  } catch (const SQLite::Exception&) {
    return c;  // damage met while reading: the application tells it before there is a window
  }
  MainWindow& window = *kept;
  window.resize(1280, 800);
  window.show();
  QApplication::processEvents();
  QTimer answers;
  QObject::connect(&answers, &QTimer::timeout, answer_dialogs);
  answers.start(5);
  if (!is_book) {
    if (input.ending != ".zip") QTest::keyClick(&window, Qt::Key_N, Qt::ControlModifier);
    if (input.ending == ".log.csv") window.show_stage(Stage::WarmUp);
    window.bring_in_file(QString::fromStdString(brought.string()));
  }
  look_at_all(window);
  return c;
}

Case package_in_the_window(Random& random) { return in_the_window(package_case, random); }
Case text_in_the_window(Random& random) { return in_the_window(text_case, random); }
Case book_in_the_window(Random& random) { return in_the_window(book_case, random); }

}  // namespace

/// One in fifty of `./sunbreak study doors`, through the real window: brought in as a file, whatever it asks answered
/// with yes, and every stage of what is then in the lab book painted.
int main(int argc, char** argv) {
  const Part parts[] = {{"packages", 400, 40'000'000, package_in_the_window},
                        {"texts", 100, 50'000'000, text_in_the_window},
                        {"books", 40, 60'000'000, book_in_the_window}};
  const int status = run_trial(parts, argc, argv);
  fs::remove_all(folder());
  return status;
}
