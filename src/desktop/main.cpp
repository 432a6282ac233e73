#include <QCommandLineParser>
#include <QFileInfo>
#include <QIcon>
#include <QSettings>
#include <QStandardPaths>
#include <algorithm>
#include <string_view>

#include "desktop/application/application.h"
#include "desktop/shell/open_window.h"
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

/// What may be asked for on the command line.
struct Options {
  QCommandLineParser parser;
  QCommandLineOption book{"book", QObject::tr("Open the lab book FILE."), "FILE"};
  QCommandLineOption look{"look", QObject::tr("Use the look paper or loft."), "LOOK"};
  QCommandLineOption shots{"shots", QObject::tr("Write a picture of each main view to FOLDER and leave."), "FOLDER"};

  Options() {
    parser.setApplicationDescription(QObject::tr("A bench partner for people who test grow lights"));
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addOptions({book, look, shots});
  }
};

/// The lab book to open where none is named: the latest that is still there, or else one's own.
QString usual_book() {
  for (const QString& path : MainWindow::remembered_books())
    if (QFileInfo::exists(path)) return path;
  return QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + "/sunbreak/lab-book.sunbreak";
}

void name_application() {
  QCoreApplication::setOrganizationName("Sunbreak");
  QCoreApplication::setApplicationName("Sunbreak");
  QCoreApplication::setApplicationVersion(SUNBREAK_VERSION);
}

int run(Application& app) {
  QApplication::setDesktopFileName("sunbreak");
  QApplication::setWindowIcon(QIcon(":/icons/sunbreak.svg"));
  Options options;
  options.parser.process(app);
  load_fonts();
  apply_look(app, chosen_look(options.parser.value(options.look)));
  const auto window =
      open_window(options.parser.isSet(options.book) ? options.parser.value(options.book) : usual_book());
  if (!window) return 3;
  if (options.parser.isSet(options.shots))
    return write_shots(*window, text_of(options.parser.value(options.shots))) ? 0 : 1;
  window->show();
  try {
    window->reopen_last_test();
  } catch (...) {
    Application::tell_of(std::current_exception());
  }
  return QApplication::exec();
}

/// Whether only words are asked for, which need no display.
bool asks_for_words(int argc, char** argv) {
  return std::any_of(argv + 1, argv + argc, [](std::string_view argument) {
    return argument == "--help" || argument == "-h" || argument == "--version" || argument == "-v" ||
           argument == "--help-all";
  });
}

}  // namespace

int main(int argc, char** argv) {
  name_application();
  if (asks_for_words(argc, argv)) {
    const QCoreApplication words(argc, argv);
    Options().parser.process(words);
    return 0;
  }
  Application app(argc, argv);
  try {
    return run(app);
  } catch (...) {
    Application::tell_of(std::current_exception());
    return 4;
  }
}
