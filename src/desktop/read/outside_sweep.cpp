#include "desktop/read/outside_sweep.h"

#include <QListWidget>
#include <QVBoxLayout>

#include "desktop/widgets/labels.h"
#include "desktop/widgets/takers.h"

namespace sunbreak::desktop {

std::vector<std::shared_ptr<const OutsideSweep>> outside_sweeps(const Desk& desk) {
  std::vector<std::shared_ptr<const OutsideSweep>> sweeps;
  const auto tests = desk.book().all<book::Test>("WHERE removed = 0 ORDER BY id DESC");
  for (const book::Test& test : tests) {
    if (desk.test() && test.id == desk.test()->test.id) continue;
    const auto bundle = book::load_bundle(desk.book(), test.id);
    if (!bundle) continue;
    for (const book::Rung& rung : bundle->rungs)
      for (const book::Stop& stop : bundle->stops) {
        const book::Sweep* sweep = bundle->sweep(rung.id, stop.id);
        auto view = sweep ? book::view_sweep(*bundle, *sweep) : Problem{};
        if (!view || view.value().read() == 0) continue;
        sweeps.push_back(std::make_shared<OutsideSweep>(
            OutsideSweep{QStringLiteral("%1 · %2 · %3 %")
                             .arg(text_of(book::title_of(*bundle)), text_of(length_text(rung.height_m, desk.units())),
                                  show_number(stop.percent)),
                         std::move(view.value())}));
      }
  }
  return sweeps;
}

OutsideSweepDialog::OutsideSweepDialog(const Desk& desk, QWidget* parent)
    : QDialog(parent), sweeps_(outside_sweeps(desk)) {
  setObjectName("outsideSweeps");
  setWindowTitle(tr("Difference from a sweep of another test"));
  resize(520, 420);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(24, 20, 24, 20);
  column->setSpacing(10);
  column->addWidget(wrapped_label(
      sweeps_.empty() ? tr("No other test in this lab book has a reading yet.")
                      : tr("Places are matched from the front left; what only one of the two covers stays empty."),
      this));
  list_ = new QListWidget(this);
  list_->setObjectName("outsideList");
  list_->setAccessibleName(tr("Sweeps of other tests"));
  for (const auto& sweep : sweeps_) list_->addItem(sweep->words);
  if (!sweeps_.empty()) list_->setCurrentRow(0);
  column->addWidget(list_, 1);
  auto* take = primary_button(tr("Take the difference"), this);
  take->setDefault(true);
  take->setEnabled(!sweeps_.empty());
  connect(take, &QPushButton::clicked, this, &QDialog::accept);
  connect(list_, &QListWidget::itemActivated, this, &QDialog::accept);
  column->addWidget(take, 0, Qt::AlignRight);
}

std::shared_ptr<const OutsideSweep> OutsideSweepDialog::chosen() const {
  const int row = list_->currentRow();
  return row >= 0 && row < std::ssize(sweeps_) ? sweeps_[static_cast<std::size_t>(row)] : nullptr;
}

}  // namespace sunbreak::desktop
