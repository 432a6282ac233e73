#pragma once

#include <QString>
#include <memory>

#include "desktop/shell/main_window.h"

namespace sunbreak::desktop {

/// The window on a lab book. Where that cannot be opened or read, says why and offers ways on: a copy of the newest
/// backup, another lab book, a new one. None where the user leaves it at that.
std::unique_ptr<MainWindow> open_window(QString path);

}  // namespace sunbreak::desktop
