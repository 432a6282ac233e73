#include "desktop/read/target_sets_dialog.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include "core/quantity/number.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {
enum Column { Name, Unit, Low, High, Hours, Columns };
}

TargetSetsDialog::TargetSetsDialog(Desk& desk, const QString& set, QWidget* parent) : QDialog(parent), desk_(desk) {
  setObjectName("targetSets");
  setWindowTitle(tr("Lists of crop targets"));
  resize(720, 460);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(24, 20, 24, 20);
  column->setSpacing(10);
  auto* head = new QHBoxLayout;
  set_ = new QComboBox(this);
  set_->setObjectName("setName");
  set_->setAccessibleName(tr("List"));
  head->addWidget(quiet_label(tr("List"), this));
  head->addWidget(set_, 1);
  const auto button = [&](QHBoxLayout* row, const QString& text, const char* name, auto act) {
    auto* b = new QPushButton(text, this);
    b->setObjectName(name);
    b->setAutoDefault(false);
    connect(b, &QPushButton::clicked, this, act);
    row->addWidget(b);
  };
  button(head, tr("New list from this one"), "copySet", [this] { copy_set(); });
  button(head, tr("Restore the shipped lists"), "restoreSets", [this] {
    change(tr("restore the shipped target lists"),
           [this](book::Edit& e) { book::restore_shipped_targets(e, desk_.book()); });
    show_sets(set_->currentText());
  });
  column->addLayout(head);
  reason_ = new QLineEdit(this);
  reason_->setObjectName("setReason");
  reason_->setAccessibleName(tr("Why its bands are drawn so"));
  reason_->setPlaceholderText(tr("why its bands are drawn so"));
  column->addWidget(reason_);
  table_ = new QTableWidget(0, Columns, this);
  table_->setObjectName("targetList");
  table_->setAccessibleName(tr("Targets of the list"));
  table_->setHorizontalHeaderLabels({tr("crop or stage"), tr("band of"), tr("from"), tr("to"), tr("hours a day")});
  table_->horizontalHeader()->setSectionResizeMode(Name, QHeaderView::Stretch);
  table_->verticalHeader()->hide();
  table_->setTabKeyNavigation(false);
  column->addWidget(table_, 1);
  problem_ = wrapped_label({}, this);
  set_tone(problem_, "bad");
  column->addWidget(problem_);
  auto* foot = new QHBoxLayout;
  button(foot, tr("Add a target"), "addTarget", [this] { add_target(); });
  button(foot, tr("Remove this target"), "removeTarget", [this] { remove_target(); });
  foot->addStretch();
  auto* close = primary_button(tr("Close"), this);
  close->setAutoDefault(false);
  connect(close, &QPushButton::clicked, this, &QDialog::accept);
  foot->addWidget(close);
  column->addLayout(foot);
  connect(set_, &QComboBox::currentTextChanged, this, [this] { fill(); });
  connect(table_, &QTableWidget::cellChanged, this, &TargetSetsDialog::take_cell);
  connect(reason_, &QLineEdit::editingFinished, this, [this] {
    if (targets_.empty() || text_of(reason_->text()) == targets_.front().reason) return;
    change(tr("reason of a target list"), [this](book::Edit& e) {
      for (record::CropTarget t : targets_) {
        t.reason = text_of(reason_->text());
        e.save(t);
      }
    });
    fill();
  });
  show_sets(set);
}

bool TargetSetsDialog::change(const QString& label, const std::function<void(book::Edit&)>& edit) {
  problem_->clear();
  return desk_.edits().make(label, edit);
}

void TargetSetsDialog::show_sets(const QString& wanted) {
  const QSignalBlocker quiet(set_);
  set_->clear();
  for (const std::string& name : evaluation::set_names(book::crop_targets(desk_.book()))) set_->addItem(text_of(name));
  set_->setCurrentIndex(std::max(0, set_->findText(wanted)));
  fill();
}

void TargetSetsDialog::fill() {
  filling_ = true;
  targets_ = evaluation::targets_of_set(book::crop_targets(desk_.book()), text_of(set_->currentText()));
  reason_->setText(targets_.empty() ? QString() : text_of(targets_.front().reason));
  table_->setRowCount(static_cast<int>(targets_.size()));
  for (int row = 0; row < table_->rowCount(); ++row) {
    const record::CropTarget& t = targets_[row];
    const QString cells[] = {text_of(t.name), t.by_daily_light ? tr("DLI, mol/m²/d") : tr("PPFD, µmol/m²/s"),
                             show_number(t.low, 1), show_number(t.high, 1), show_number(t.photoperiod_h, 1)};
    for (int c = 0; c < Columns; ++c) {
      auto* item = new QTableWidgetItem(cells[c]);
      item->setTextAlignment((c >= Low ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter);
      table_->setItem(row, c, item);
    }
  }
  table_->resizeColumnToContents(Unit);
  filling_ = false;
}

void TargetSetsDialog::take_cell(int row, int column) {
  if (filling_ || row >= std::ssize(targets_)) return;
  record::CropTarget t = targets_[row];
  const std::string text = text_of(table_->item(row, column)->text().trimmed());
  auto number = parse_number(text);
  if (!number) number = parse_number(text, ',');
  if (column == Name) t.name = text;
  if (column == Unit)
    t.by_daily_light = QString::fromStdString(text).contains("dli", Qt::CaseInsensitive) ||
                       QString::fromStdString(text).startsWith("mol", Qt::CaseInsensitive);
  if (column >= Low && !number) {
    problem_->setText(tr("'%1' is no number; the target is as it was.").arg(text_of(text)));
    return fill();
  }
  if (column == Low) t.low = *number;
  if (column == High) t.high = *number;
  if (column == Hours) t.photoperiod_h = *number;
  if (const auto problem = evaluation::problem_of(t)) {
    fill();
    return problem_->setText(text_of(problem->sentence()));
  }
  change(tr("crop target"), [&](book::Edit& e) { e.save(t); });
  fill();
}

void TargetSetsDialog::add_target() {
  record::CropTarget t;
  t.set_name = text_of(set_->currentText());
  t.reason = text_of(reason_->text());
  t.name = text_of(tr("new target"));
  t.low = 200;
  t.high = 400;
  if (change(tr("new crop target"), [&](book::Edit& e) { e.add(t); })) {
    fill();
    table_->setCurrentCell(table_->rowCount() - 1, Name);
    table_->editItem(table_->currentItem());
  }
}

void TargetSetsDialog::remove_target() {
  const int row = table_->currentRow();
  if (row < 0 || row >= std::ssize(targets_)) return;
  record::CropTarget t = targets_[row];
  t.removed = true;
  change(tr("remove a crop target"), [&](book::Edit& e) { e.save(t); });
  show_sets(set_->currentText());
}

void TargetSetsDialog::copy_set() {
  const auto names = evaluation::set_names(book::crop_targets(desk_.book()));
  QString name = tr("%1, own").arg(set_->currentText());
  for (int n = 2; std::find(names.begin(), names.end(), text_of(name)) != names.end(); ++n)
    name = tr("%1, own %2").arg(set_->currentText()).arg(n);
  change(tr("new target list"), [&](book::Edit& e) {
    for (record::CropTarget t : targets_) {
      t.id = 0;
      t.set_name = text_of(name);
      e.add(t);
    }
  });
  show_sets(name);
}

}  // namespace sunbreak::desktop
