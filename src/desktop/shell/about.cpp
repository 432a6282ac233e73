#include "desktop/shell/about.h"

#include <QApplication>
#include <QDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {

void show_about(QWidget* parent, const QString& lab_book) {
  QDialog about(parent);
  about.setObjectName("about");
  about.setWindowTitle(QObject::tr("About Sunbreak"));
  auto* column = new QVBoxLayout(&about);
  column->setContentsMargins(24, 16, 24, 16);
  column->setSpacing(8);
  auto* name = figure_label(20, &about);
  name->setText(QObject::tr("Sunbreak %1").arg(QApplication::applicationVersion()));
  column->addWidget(name);
  column->addWidget(wrapped_label(
      QObject::tr(
          "A bench partner for people who test grow lights. It measures, works out and keeps; what it shows is no "
          "substitute for local electrical codes or a licensed electrician."),
      &about));
  column->addWidget(quiet_label(QObject::tr("Lab book: %1").arg(lab_book), &about));
  auto* close = primary_button(QObject::tr("Close"), &about);
  QObject::connect(close, &QPushButton::clicked, &about, &QDialog::accept);
  auto* row = new QHBoxLayout;
  row->addStretch();
  row->addWidget(close);
  column->addLayout(row);
  about.exec();
}

}  // namespace sunbreak::desktop
