#include "desktop/lineup/own_index_dialog.h"

#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/lineup/own_index.h"

namespace sunbreak::desktop {

using evaluation::OwnIndex;

OwnIndexDialog::OwnIndexDialog(const std::string& figure, QWidget* parent) : QDialog(parent) {
  setObjectName("ownIndex");
  setWindowTitle(tr("An index of your own"));
  resize(520, 560);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 16, 20, 16);
  column->setSpacing(10);
  column->addWidget(wrapped_label(
      tr("Give weights to the figures that count for you; type a number beside each. One percent of a figure with "
         "weight 2 counts as much as two percent of one with weight 1, and where less is better it counts the other "
         "way. The weights are printed with the line-up."),
      this));
  table_ = new QTableWidget(static_cast<int>(evaluation::lineup_figures().size()), 2, this);
  table_->setObjectName("indexWeights");
  table_->setAccessibleName(tr("Weights"));
  table_->setHorizontalHeaderLabels({tr("Figure"), tr("Weight")});
  table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  table_->verticalHeader()->hide();
  table_->setTabKeyNavigation(false);
  table_->setEditTriggers(QAbstractItemView::AllEditTriggers);
  const auto given = OwnIndex::is(figure) ? OwnIndex::parse(figure) : Result<OwnIndex>(OwnIndex{});
  int row = 0;
  for (const auto& f : evaluation::lineup_figures()) {
    auto* name = new QTableWidgetItem(f.better == Better::Less ? tr("%1 (less is better)").arg(text_of(f.label))
                                                               : text_of(f.label));
    name->setFlags(Qt::ItemIsEnabled);
    name->setToolTip(text_of(f.meaning));
    table_->setItem(row, 0, name);
    QString weight;
    if (given)
      for (const OwnIndex::Part& p : given.value().parts)
        if (p.figure == &f) weight = QString::number(p.weight);
    auto* cell = new QTableWidgetItem(weight);
    cell->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
    table_->setItem(row++, 1, cell);
  }
  column->addWidget(table_, 1);
  problem_ = wrapped_label({}, this);
  problem_->setObjectName("indexProblem");
  set_tone(problem_, "bad");
  column->addWidget(problem_);
  auto* take = primary_button(tr("Line up by it"), this);
  take->setObjectName("takeIndex");
  take->setAutoDefault(false);
  connect(take, &QPushButton::clicked, this, &OwnIndexDialog::accept);
  column->addWidget(take, 0, Qt::AlignRight);
  table_->setCurrentCell(0, 1);
  table_->setFocus();
}

void OwnIndexDialog::accept() {
  std::string text = "index:";
  for (int row = 0; row < table_->rowCount(); ++row) {
    const std::string weight = text_of(table_->item(row, 1)->text().trimmed());
    if (weight.empty()) continue;
    const auto& figure = evaluation::lineup_figures()[static_cast<std::size_t>(row)];
    text += (text.back() == ':' ? "" : ",") + std::string(figure.id) + "=" + weight;
  }
  const auto index = OwnIndex::parse(text);
  if (!index) return problem_->setText(text_of(index.problem().sentence()));
  figure_ = index.value().id();
  QDialog::accept();
}

}  // namespace sunbreak::desktop
