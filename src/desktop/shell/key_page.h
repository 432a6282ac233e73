#pragma once

#include <QString>
#include <vector>

#include "desktop/desk/stage_view.h"

namespace sunbreak::desktop {

/// Shows the keys of the stage at hand and those that hold everywhere.
void show_keys(QWidget* parent, const QString& stage, const std::vector<KeyHint>& here);

}  // namespace sunbreak::desktop
