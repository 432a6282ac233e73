#include "desktop/lineup/way_field.h"

#include <QKeyEvent>
#include <QLineEdit>
#include <QSignalBlocker>

#include "core/lineup/way.h"
#include "desktop/lineup/lineup_scene.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

WayField::WayField(QWidget* parent) : QComboBox(parent) {
  setObjectName("lineupWay");
  setAccessibleName(tr("Way"));
  setEditable(true);
  setInsertPolicy(QComboBox::NoInsert);
  setMinimumWidth(110);
  setToolTip(tr("W  what is made alike; several are joined by +"));
  connect(this, &QComboBox::activated, this, [this] {
    if (currentText() != asked_text_) take(currentText());
  });
  lineEdit()->installEventFilter(this);
}

void WayField::show_ways(const std::string& asked, const std::vector<std::string>& offered, UnitSystem units) {
  const QSignalBlocker quiet(this);
  clear();
  for (const std::string& way : offered) addItem(way_told(way, units), text_of(way));
  asked_ = asked, asked_text_ = way_told(asked, units);
  setCurrentIndex(findText(asked_text_));
  setEditText(asked_text_);
}

bool WayField::is_typed_in() const { return lineEdit()->hasFocus(); }

void WayField::begin() {
  setFocus(Qt::ShortcutFocusReason);
  lineEdit()->selectAll();
}

bool WayField::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() != QEvent::KeyPress) return QComboBox::eventFilter(watched, event);
  const int key = static_cast<QKeyEvent*>(event)->key();
  if (key != Qt::Key_Return && key != Qt::Key_Enter) return QComboBox::eventFilter(watched, event);
  take(currentText().trimmed());  // once: left to itself, Enter comes by twice, and once more where an item fits
  return true;
}

void WayField::take(const QString& typed) {
  const int item = findText(typed, Qt::MatchFixedString);
  const auto way = parse_way(typed == asked_text_ ? asked_
                             : item >= 0          ? text_of(itemData(item).toString())
                                                  : text_of(typed));
  way ? emit chosen(way_id(way.value())) : emit refused(way.problem());
}

}  // namespace sunbreak::desktop
