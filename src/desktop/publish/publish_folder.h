#pragma once

#include <QString>

namespace sunbreak::desktop {

/// The folder that was written to last; one of the user's documents before.
QString publish_folder();
void keep_publish_folder(const QString& folder);

}  // namespace sunbreak::desktop
