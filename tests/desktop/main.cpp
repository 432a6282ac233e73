#include <gtest/gtest.h>

#include <QStandardPaths>
#include "desktop/watched_application.h"

#include "desktop/theme/theme.h"

int main(int argc, char** argv) {
  ::testing::InitGoogleTest(&argc, argv);
  if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  QStandardPaths::setTestModeEnabled(true);
  sunbreak::desktop::WatchedApplication app(argc, argv);
  QApplication::setOrganizationName("Sunbreak tests");
  QApplication::setApplicationName("Sunbreak tests");
  sunbreak::desktop::load_fonts();
  sunbreak::desktop::apply_look(app, sunbreak::desktop::LookChoice::Paper);
  return RUN_ALL_TESTS();
}
