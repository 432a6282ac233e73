#include "desktop/home/duplicate_dialog.h"

#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {

DuplicateDialog::DuplicateDialog(const book::Book& book, const record::Test& test, QWidget* parent) : QDialog(parent) {
  setObjectName("duplicatePlan");
  setWindowTitle(tr("The same plan for the next fixture"));
  resize(480, 400);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 16, 20, 16);
  column->setSpacing(10);
  column->addWidget(wrapped_label(
      tr("Bench, meters, grid, heights and dimmer settings stay the same, so that results compare. Readings are not "
         "copied. Which fixture hangs there next?"),
      this));
  list_ = new QListWidget(this);
  list_->setObjectName("duplicateFixture");
  list_->setAccessibleName(tr("Fixtures"));
  for (const record::Fixture& f : book.all<record::Fixture>("WHERE removed = 0 ORDER BY id DESC")) {
    const QString name = QString::fromStdString(f.name);
    const bool same = f.id == test.fixture_id;
    list_->insertItem(same ? 0 : list_->count(), same ? tr("%1, once more").arg(name) : name);
    fixtures_.insert(same ? fixtures_.begin() : fixtures_.end(), f.id);
  }
  list_->addItem(tr("A fixture that is not on the shelf yet"));
  fixtures_.push_back(0);
  list_->setCurrentRow(0);
  column->addWidget(list_, 1);
  auto* take = primary_button(tr("Plan the test"), this);
  take->setDefault(true);
  connect(take, &QPushButton::clicked, this, &QDialog::accept);
  connect(list_, &QListWidget::itemActivated, this, &QDialog::accept);
  column->addWidget(take, 0, Qt::AlignRight);
  list_->setFocus();
}

record::Id DuplicateDialog::fixture_id() const { return fixtures_[static_cast<std::size_t>(list_->currentRow())]; }

}  // namespace sunbreak::desktop
