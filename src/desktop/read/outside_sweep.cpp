#include "desktop/read/outside_sweep.h"

#include <QListWidget>
#include <QVBoxLayout>

#include "book/test_rows.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

std::vector<OutsideName> outside_sweeps(const Desk& desk) {
  const book::Book& book = desk.book();
  std::vector<OutsideName> sweeps;
  for (const record::Test& test : book.all<record::Test>("WHERE removed = 0 ORDER BY id DESC")) {
    if (desk.test() && test.id == desk.test()->test.id) continue;
    record::TestRecord plan;
    plan.test = test;
    plan.fixture = book.find<record::Fixture>(test.fixture_id).value_or(record::Fixture{});
    plan.bench = book.find<record::Bench>(test.bench_id).value_or(record::Bench{});
    for (const record::Sweep& sweep : book.all<record::Sweep>(
             "WHERE test_id = ? AND EXISTS (SELECT 1 FROM placement p WHERE p.sweep_id = sweep.id AND p.reading_id IS "
             "NOT NULL) ORDER BY id",
             test.id)) {
      const auto rung = book.find<record::Rung>(sweep.rung_id);
      const auto stop = book.find<record::Stop>(sweep.stop_id);
      if (rung && stop)
        sweeps.push_back({test.id, sweep.id,
                          QStringLiteral("%1 · %2 · %3 %")
                              .arg(text_of(record::title_of(plan)), text_of(length_text(rung->height_m, desk.units())),
                                   show_number(stop->percent))});
    }
  }
  return sweeps;
}

std::shared_ptr<const OutsideSweep> read_outside(const Desk& desk, const OutsideName& name) {
  const auto test_record = book::load_test(desk.book(), name.test_id);
  if (!test_record) return nullptr;
  for (const record::Sweep& sweep : test_record->sweeps)
    if (sweep.id == name.sweep_id)
      if (auto view = evaluation::view_sweep(*test_record, sweep))
        return std::make_shared<OutsideSweep>(OutsideSweep{name.words, std::move(view.value())});
  return nullptr;
}

OutsideSweepDialog::OutsideSweepDialog(const Desk& desk, QWidget* parent)
    : QDialog(parent), desk_(desk), sweeps_(outside_sweeps(desk)) {
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
  for (const auto& sweep : sweeps_) list_->addItem(sweep.words);
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
  return row >= 0 && row < std::ssize(sweeps_) ? read_outside(desk_, sweeps_[static_cast<std::size_t>(row)]) : nullptr;
}

}  // namespace sunbreak::desktop
