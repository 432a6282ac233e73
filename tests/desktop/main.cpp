#include <gtest/gtest.h>

#include <QStandardPaths>

#include "desktop/theme/theme.h"
#include "desktop/watched_application.h"

namespace {

QtMessageHandler usual_handler = nullptr;

/// An object that one thread made and another one takes apart is a fault that Qt only warns of.
void fail_where_threads_mix(QtMsgType type, const QMessageLogContext& context, const QString& message) {
  if (message.contains("different thread") || message.contains("another thread"))
    ADD_FAILURE() << message.toStdString();
  usual_handler(type, context, message);
}

}  // namespace

int main(int argc, char** argv) {
  ::testing::InitGoogleTest(&argc, argv);
  if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  QStandardPaths::setTestModeEnabled(true);
  usual_handler = qInstallMessageHandler(fail_where_threads_mix);
  sunbreak::desktop::WatchedApplication app(argc, argv);
  QApplication::setOrganizationName("Sunbreak tests");
  QApplication::setApplicationName("Sunbreak tests");
  sunbreak::desktop::load_fonts();
  sunbreak::desktop::apply_look(app, sunbreak::desktop::LookChoice::Paper);
  return RUN_ALL_TESTS();
}
