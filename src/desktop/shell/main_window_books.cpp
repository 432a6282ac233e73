#include <QApplication>
#include <QFileInfo>
#include <QProcess>
#include <QSettings>

#include "desktop/shell/main_window.h"
#include "desktop/shell/stages.h"
#include "desktop/widgets/file_dialogs.h"
#include "desktop/widgets/text.h"

/// Lab books: which were opened lately, and ways to others.
namespace sunbreak::desktop {
namespace {
constexpr qsizetype books_remembered = 8;
}

QStringList MainWindow::remembered_books() { return QSettings().value("books/recent").toStringList(); }

void MainWindow::remember_book() {
  QStringList books = remembered_books();
  const QString absolute = QFileInfo(text_of(desk_->book().file().string())).absoluteFilePath();
  books.removeAll(absolute);
  books.prepend(absolute);
  QSettings().setValue("books/recent", books.mid(0, books_remembered));
}

void MainWindow::remember_test() {
  QSettings settings;
  QVariantMap last = settings.value("books/last tests").toMap();
  const QString book = text_of(desk_->book().file().string());
  if (desk_->test() && stage_)
    last[book] = QStringList{QString::number(desk_->test()->test.id), QString::number(static_cast<int>(*stage_))};
  else
    last.remove(book);
  settings.setValue("books/last tests", last);
}

void MainWindow::reopen_last_test() {
  const QVariantMap last = QSettings().value("books/last tests").toMap();
  const QStringList test = last.value(text_of(desk_->book().file().string())).toStringList();
  if (test.size() != 2 || !desk_->book().find<record::Test>(test[0].toLongLong())) return;
  for (const StageKind& kind : stages())
    if (kind.make && static_cast<int>(kind.stage) == test[1].toInt()) open_test(test[0].toLongLong(), kind.stage);
}

/// Those of the lab books opened lately that are there and not this one.
QStringList MainWindow::recent_books() const {
  QStringList books = remembered_books();
  books.removeAll(QFileInfo(text_of(desk_->book().file().string())).absoluteFilePath());
  books.removeIf([](const QString& path) { return !QFileInfo::exists(path); });
  return books;
}

void MainWindow::choose_book() {
  const QString path = file_to_open(this, tr("Open a lab book"), text_of(desk_->book().file().parent_path().string()),
                                    tr("Lab books (*.sunbreak)"));
  if (!path.isEmpty()) open_book(path);
}

void MainWindow::new_book() {
  const QString path = new_file(this, tr("Name the new lab book"), text_of(desk_->book().file().parent_path().string()),
                                tr("Lab books (*.sunbreak)"), "sunbreak");
  if (path.isEmpty()) return;
  if (QFileInfo::exists(path))
    return desk_->warn(tr("%1 is there already: open it, or give the new lab book another name.").arg(path));
  open_book(path);
}

void MainWindow::open_book(const QString& path) {
  // A lab book is one window's; another one gets a process of its own, so that neither can hold the other up.
  if (!QProcess::startDetached(QApplication::applicationFilePath(), {"--book", path}))
    desk_->warn(tr("A second window could not be opened. Start Sunbreak again and name the lab book there."));
}

}  // namespace sunbreak::desktop
