#pragma once

class QDialog;
class QPushButton;
class QString;
class QVBoxLayout;

namespace sunbreak::desktop {

/// The last row of a preview: that nothing is in the lab book yet, the way out, and the button that takes it, which is
/// returned with no slot of its own.
QPushButton* take_or_leave(QDialog& preview, QVBoxLayout& layout, const QString& take, const char* object_name);

}  // namespace sunbreak::desktop
