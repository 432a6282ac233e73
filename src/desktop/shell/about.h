#pragma once

#include <QString>

class QWidget;

namespace sunbreak::desktop {

/// Says what this is, which version, and of which lab book the window is.
void show_about(QWidget* parent, const QString& lab_book);

}  // namespace sunbreak::desktop
