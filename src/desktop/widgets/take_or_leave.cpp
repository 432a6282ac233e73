#include "desktop/widgets/take_or_leave.h"

#include <QCoreApplication>
#include <QDialog>
#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>

#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {

QPushButton* take_or_leave(QDialog& preview, QVBoxLayout& layout, const QString& words, const char* object_name) {
  const auto tr = [](const char* text) { return QCoreApplication::translate("TakeOrLeave", text); };
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(
      quiet_label(tr("Nothing enters the lab book until you take it; taking it is one step of undo."), &preview));
  buttons->addStretch();
  auto* leave = new QPushButton(tr("Leave it"), &preview);
  leave->setAutoDefault(false);
  auto* take = primary_button(words, &preview);
  take->setObjectName(object_name);
  take->setDefault(true);
  buttons->addWidget(leave);
  buttons->addWidget(take);
  layout.addLayout(buttons);
  QObject::connect(leave, &QPushButton::clicked, &preview, &QDialog::reject);
  return take;
}

}  // namespace sunbreak::desktop
