#pragma once

#include <QObject>

namespace sunbreak::desktop {

/// Makes every label of the application, tool tips and messages among them, show its text as it stands: names, notes
/// and file names are what people and packages wrote, and none of them is markup.
class PlainLabels : public QObject {
 public:
  using QObject::QObject;
  bool eventFilter(QObject* watched, QEvent* event) override;
};

}  // namespace sunbreak::desktop
