#pragma once

class QVBoxLayout;
class QWidget;

namespace sunbreak::desktop {

/// Makes a page one that scrolls up and down where it is too tall; what stands in it goes into the layout returned.
QVBoxLayout* scrolled_column(QWidget* page);

}  // namespace sunbreak::desktop
