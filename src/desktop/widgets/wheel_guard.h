#pragma once

class QEvent;
class QObject;

namespace sunbreak::desktop {

/// The wheel scrolls pages and zooms charts; it never changes what a field holds, nor brings the keyboard into one. To
/// be asked of every event of the application; true where the event is to go on to what lies beneath.
bool keep_wheel_off(QObject* watched, QEvent* event);

}  // namespace sunbreak::desktop
