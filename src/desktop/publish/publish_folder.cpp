#include "desktop/publish/publish_folder.h"

#include <QSettings>
#include <QStandardPaths>

namespace sunbreak::desktop {
namespace {
constexpr const char* folder_key = "publish/folder";
}

QString publish_folder() {
  return QSettings()
      .value(folder_key, QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation) + "/Sunbreak")
      .toString();
}

void keep_publish_folder(const QString& folder) { QSettings().setValue(folder_key, folder); }

}  // namespace sunbreak::desktop
