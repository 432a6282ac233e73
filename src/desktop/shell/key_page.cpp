#include "desktop/shell/key_page.h"

#include <QDialog>
#include <QGridLayout>
#include <algorithm>

#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {

void show_keys(QWidget* parent, const QString& stage, const std::vector<KeyHint>& here) {
  QDialog dialog(parent);
  dialog.setObjectName("keyPage");
  dialog.setWindowTitle(QObject::tr("Keys"));
  auto* grid = new QGridLayout(&dialog);
  grid->setContentsMargins(24, 16, 24, 16);
  grid->setHorizontalSpacing(24);
  grid->setVerticalSpacing(6);
  int row = 0;
  const auto section = [&](const QString& title, const std::vector<KeyHint>& hints) {
    if (hints.empty()) return;
    grid->addWidget(heading_label(title, &dialog), row++, 0, 1, 2);
    for (const KeyHint& hint : hints) {
      grid->addWidget(quiet_label(hint.keys, &dialog), row, 0);
      grid->addWidget(new QLabel(hint.does, &dialog), row++, 1);
    }
    grid->setRowMinimumHeight(row++, 8);
  };
  section(stage, here);
  std::vector<KeyHint> everywhere = {
      {QObject::tr("Alt+Home"), QObject::tr("the lab book")},
      {QObject::tr("Alt+1 … Alt+8"), QObject::tr("the stages, from Rig to Publish")},
      {QObject::tr("Page Up, Page Down"), QObject::tr("height above, height below")},
      {QObject::tr("{ and }"), QObject::tr("the fixture's configuration before, after")},
      {QObject::tr("[ and ]"), QObject::tr("dimmer setting before, after")},
      {QObject::tr("Ctrl+Z, Ctrl+Shift+Z"), QObject::tr("undo, redo")},
      {QObject::tr("Ctrl+N"), QObject::tr("new test")},
      {QObject::tr("Ctrl+O"), QObject::tr("bring in a table or a data package")},
      {QObject::tr("Ctrl+I"), QObject::tr("instruments")},
      {QObject::tr("Ctrl+M"), QObject::tr("metric or imperial")},
      {QObject::tr("Ctrl+L"), QObject::tr("Paper or Loft")},
      {QObject::tr("F10"), QObject::tr("menu")},
      {QObject::tr("Esc"), QObject::tr("out of a field, so that letters are keys; closes this page")}};
  // What a key does here is said once.
  std::erase_if(everywhere, [&](const KeyHint& hint) {
    return std::any_of(here.begin(), here.end(), [&](const KeyHint& own) { return own.keys == hint.keys; });
  });
  section(QObject::tr("Everywhere"), everywhere);
  auto* close = primary_button(QObject::tr("Close"), &dialog);
  QObject::connect(close, &QPushButton::clicked, &dialog, &QDialog::accept);
  grid->addWidget(close, row, 1, Qt::AlignRight);
  close->setFocus();
  dialog.exec();
}

}  // namespace sunbreak::desktop
