#pragma once

class QEvent;
class QObject;

namespace sunbreak::desktop {

/// The wheel scrolls pages and zooms charts; it never changes what a field holds. To be asked of every event by a
/// filter of the application; true where the event is to go on to what lies beneath.
bool keep_wheel_off(QObject* watched, QEvent* event);

/// Nor does it bring the keyboard into a field. To be told of every event before the application deals with it: that is
/// before any filter sees it.
void keep_keyboard_from_wheel(QObject* receiver, const QEvent* event);

}  // namespace sunbreak::desktop
