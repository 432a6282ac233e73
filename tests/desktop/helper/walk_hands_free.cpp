#include <QApplication>
#include <QSettings>
#include <QTest>

#include "../quick_bench.h"
#include "desktop/shell/main_window.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

/// The application walking a sweep hands-free until someone kills it:
/// walk_hands_free SETTINGS-FOLDER BOOK SENSOR-PORT CARRIAGE-PORT.
int main(int argc, char** argv) {
  if (argc != 5) return 2;
  if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, argv[1]);
  QApplication app(argc, argv);
  QCoreApplication::setOrganizationName("Sunbreak tests");
  QCoreApplication::setApplicationName("Sunbreak tests");
  be_quick();
  MainWindow window(std::move(book::Book::open(argv[2]).value()));
  window.show();
  window.open_test(1, Stage::Walk);
  connect_quickly(window.instruments(), QString(argv[3]).toUShort(), QString(argv[4]).toUShort());
  if (!both_live(window.instruments())) return 3;
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_H);
  return QApplication::exec();
}
