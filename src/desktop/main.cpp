#include <QCommandLineParser>
#include <QIcon>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>
#include <QStandardPaths>

#include "book/trouble.h"
#include "desktop/application/application.h"
#include "desktop/shell/main_window.h"
#include "desktop/shell/shots.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

namespace {

LookChoice chosen_look(const QString& asked) {
  const QString look = asked.isEmpty() ? QSettings().value("look").toString() : asked;
  return look == "paper" ? LookChoice::Paper : look == "loft" ? LookChoice::Loft : LookChoice::FollowDesktop;
}

/// The window on the lab book; where that cannot be opened or read, says why and offers the newest backup.
std::unique_ptr<MainWindow> open_window(QString path) {
  for (;;) {
    auto opened = book::Book::open(text_of(path));
    QString trouble;
    try {
      if (opened) return std::make_unique<MainWindow>(std::move(opened.value()));
      trouble = text_of(opened.problem().sentence());
    } catch (const std::exception& e) {
      trouble = text_of(book::trouble_with(text_of(path), e).sentence());
    }
    QMessageBox box(QMessageBox::Warning, QObject::tr("Sunbreak"), trouble);
    const auto backup = book::Book::newest_backup(text_of(path));
    QPushButton* use = backup ? box.addButton(QObject::tr("Open the newest backup"), QMessageBox::AcceptRole) : nullptr;
    box.addButton(QObject::tr("Quit"), QMessageBox::RejectRole);
    box.exec();
    if (!use || box.clickedButton() != use) return nullptr;
    path = text_of(backup->string());
  }
}

int run(Application& app) {
  QApplication::setOrganizationName("Sunbreak");
  QApplication::setApplicationName("Sunbreak");
  QApplication::setDesktopFileName("sunbreak");
  QApplication::setWindowIcon(QIcon(":/icons/sunbreak.svg"));
  QCommandLineParser parser;
  parser.setApplicationDescription(QObject::tr("A bench partner for people who test grow lights"));
  parser.addHelpOption();
  const QCommandLineOption book_option("book", QObject::tr("Open the lab book FILE."), "FILE");
  const QCommandLineOption look_option("look", QObject::tr("Use the look paper or loft."), "LOOK");
  const QCommandLineOption shots_option("shots", QObject::tr("Write a picture of each main view to FOLDER and leave."),
                                        "FOLDER");
  parser.addOptions({book_option, look_option, shots_option});
  parser.process(app);

  load_fonts();
  apply_look(app, chosen_look(parser.value(look_option)));
  const QString own =
      QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + "/sunbreak/lab-book.sunbreak";
  const auto window = open_window(parser.isSet(book_option) ? parser.value(book_option) : own);
  if (!window) return 3;
  if (parser.isSet(shots_option)) return write_shots(*window, text_of(parser.value(shots_option))) ? 0 : 1;
  window->show();
  return QApplication::exec();
}

}  // namespace

int main(int argc, char** argv) {
  Application app(argc, argv);
  try {
    return run(app);
  } catch (...) {
    Application::tell_of(std::current_exception());
    return 4;
  }
}
