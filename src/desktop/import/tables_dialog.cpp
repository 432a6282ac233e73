#include "desktop/import/tables_dialog.h"

#include <QApplication>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "book/take_table.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/lux_walk.h"

namespace sunbreak::desktop {
namespace {

enum ColumnOf { File, Understood, Height, Dimmer, Fate };
constexpr double same_height_m = 0.0005, same_percent = 0.01;
constexpr std::size_t head_bytes = 4096;

template <typename Step>
const Step* step_at(const std::vector<Step>& steps, double Step::*value, double wanted, double same) {
  const auto found =
      std::find_if(steps.begin(), steps.end(), [&](const Step& s) { return std::abs(s.*value - wanted) <= same; });
  return found == steps.end() ? nullptr : &*found;
}

/// What a table's name and head say of where it belongs.
exchange::SweepName named(const Desk& desk, const TableFile& file) {
  return exchange::sweep_named(text_of(file.name), std::string_view(file.bytes).substr(0, head_bytes),
                               surface_unit(desk.units()));
}

}  // namespace

bool goes_elsewhere(const Desk& desk, const TableFile& table) {
  const exchange::SweepName name = named(desk, table);
  return (name.height_m && std::abs(*name.height_m - desk.rung()->height_m) > same_height_m) ||
         (name.percent && std::abs(*name.percent - desk.stop()->percent) > same_percent);
}

TablesDialog::TablesDialog(Desk& desk, std::vector<TableFile> files, QWidget* parent) : QDialog(parent), desk_(desk) {
  setObjectName("tablesDialog");
  setWindowTitle(files.size() == 1 ? tr("Bring in a table") : tr("Bring in %1 tables").arg(files.size()));
  for (TableFile& file : files) {
    Row row;
    const auto draft =
        exchange::read_sweep_table(file.bytes, book::table_context(*desk_.test(), nullptr, desk_.units()), {});
    const exchange::SweepName name = named(desk_, file);
    if (draft)
      row.draft = draft.value();
    else
      row.problem = text_of(draft.problem().sentence());
    row.height_m = name.height_m;
    row.percent = name.percent;
    row.unit_assumed = name.unit_assumed;
    if (!row.percent && desk_.test()->stops.size() == 1) row.percent = desk_.test()->stops.front().percent;
    row.wanted = draft.ok();
    row.file = std::move(file);
    rows_.push_back(std::move(row));
  }
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(24, 16, 24, 16);
  layout->setSpacing(8);
  layout->addWidget(
      wrapped_label(tr("Heights and dimmer settings are taken from the names of the files, from their first "
                       "lines or from their columns, and not from the sweep that is open. Correct what "
                       "is wrong; untick what is not to be taken."),
                    this));
  table_ = new QTableWidget(static_cast<int>(rows_.size()), 5, this);
  table_->setObjectName("tablesList");
  table_->setAccessibleName(tr("Tables to bring in"));
  table_->setHorizontalHeaderLabels({tr("File"), tr("Understood as"),
                                     tr("Height, %1").arg(text_of(symbol(surface_unit(desk_.units())))),
                                     tr("Dimmer, %"), tr("Becomes")});
  table_->verticalHeader()->hide();
  table_->horizontalHeader()->setStretchLastSection(true);
  layout->addWidget(table_, 1);
  words_ = wrapped_label({}, this);
  words_->setObjectName("tablesWords");
  layout->addWidget(words_);
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(quiet_label(tr("Taking them is one step of undo."), this));
  buttons->addStretch();
  auto* leave = new QPushButton(tr("Leave them"), this);
  leave->setAutoDefault(false);
  take_ = primary_button(tr("Take the tables"), this);
  take_->setObjectName("takeTables");
  buttons->addWidget(leave);
  buttons->addWidget(take_);
  layout->addLayout(buttons);
  connect(leave, &QPushButton::clicked, this, &QDialog::reject);
  connect(take_, &QPushButton::clicked, this, &TablesDialog::take);
  fill();
  connect(table_, &QTableWidget::itemChanged, this, [this](QTableWidgetItem* item) {
    Row& row = rows_[static_cast<std::size_t>(item->row())];
    if (item->column() == File) row.wanted = item->checkState() == Qt::Checked;
    if (item->column() == Height) row.unit_assumed = false;
    if (item->column() == Height) row.height_m = typed_length_m(item->text().trimmed(), desk_.units());
    if (item->column() == Dimmer) {
      QString problem;
      const auto list = number_list(item->text(), &problem);
      row.percent = list && list->size() == 1 ? std::optional(list->front()) : std::nullopt;
    }
    judge();
  });
  resize(920, 480);
}

void TablesDialog::fill() {
  for (int r = 0; r < static_cast<int>(rows_.size()); ++r) {
    const Row& row = rows_[static_cast<std::size_t>(r)];
    const auto put = [&](ColumnOf column, const QString& text, Qt::ItemFlags flags) {
      auto* item = new QTableWidgetItem(text);
      item->setFlags(flags | Qt::ItemIsEnabled | Qt::ItemIsSelectable);
      table_->setItem(r, column, item);
      return item;
    };
    auto* file = put(File, row.file.name, row.draft ? Qt::ItemIsUserCheckable : Qt::NoItemFlags);
    file->setCheckState(row.wanted ? Qt::Checked : Qt::Unchecked);
    put(Understood,
        row.draft ? tr("%1 × %2, %3 readings")
                        .arg(row.draft->layout.columns)
                        .arg(row.draft->layout.rows)
                        .arg(row.draft->readings())
                  : QStringLiteral("◣ ") + row.problem,
        Qt::NoItemFlags)
        ->setToolTip(row.problem);
    put(Height, show_length(row.height_m, desk_.units()), row.draft ? Qt::ItemIsEditable : Qt::NoItemFlags);
    put(Dimmer, show_number(row.percent), row.draft ? Qt::ItemIsEditable : Qt::NoItemFlags);
    put(Fate, {}, Qt::NoItemFlags);
  }
  judge();
  table_->resizeColumnsToContents();
  table_->setColumnWidth(Understood, std::min(table_->columnWidth(Understood), 280));
}

const TablesDialog::Row* TablesDialog::other_with_same_cell(const Row& row) const {
  for (const Row& other : rows_)
    if (&other != &row && other.wanted && other.height_m && other.percent &&
        std::abs(*other.height_m - *row.height_m) <= same_height_m &&
        std::abs(*other.percent - *row.percent) <= same_percent)
      return &other;
  return nullptr;
}

/// What becomes of a table, or with a mark in front why it cannot be taken.
QString TablesDialog::fate_of(const Row& row) const {
  if (!row.draft) return tr("not taken");
  if (!row.wanted) return tr("left out");
  const double most_m = desk_.test()->bench.height_m.value_or(10);
  if (!row.height_m) return tr("◣ which height?");
  if (*row.height_m < 0.01 || *row.height_m > most_m)
    return tr("◣ no height of this bench (1 cm to %1)").arg(text_of(length_text(most_m, desk_.units())));
  if (!row.percent || *row.percent <= 0 || *row.percent > 200) return tr("◣ which dimmer setting?");
  if (const Row* other = other_with_same_cell(row)) return tr("◣ the same sweep as %1").arg(other->file.name);
  const record::Rung* rung = step_at(desk_.test()->rungs, &record::Rung::height_m, *row.height_m, same_height_m);
  const record::Stop* stop = step_at(desk_.test()->stops, &record::Stop::percent, *row.percent, same_percent);
  if (!rung || !stop) return rung ? tr("a new dimmer setting") : tr("a new height");
  const record::Sweep* sweep = desk_.test()->sweep(rung->id, stop->id);
  const evaluation::SweepView* view = sweep ? desk_.view_of(sweep->id) : nullptr;
  return view && view->read() > 0 ? tr("replaces %1 readings").arg(view->read()) : tr("a new sweep");
}

void TablesDialog::judge() {
  const QSignalBlocker quiet(table_);
  int ready = 0, open = 0, refused = 0;
  for (int r = 0; r < static_cast<int>(rows_.size()); ++r) {
    const Row& row = rows_[static_cast<std::size_t>(r)];
    QString fate = fate_of(row);
    const bool wrong = fate.startsWith(QStringLiteral("◣"));
    if (!wrong && row.wanted && row.unit_assumed)
      fate += tr(", its height taken as %1").arg(text_of(symbol(surface_unit(desk_.units()))));
    table_->item(r, Fate)->setText(fate);
    table_->item(r, Fate)->setForeground(wrong ? theme().attention : theme().ink);
    ready += row.wanted && !wrong;
    open += wrong;
    for (const exchange::Finding& f : row.draft ? row.draft->findings : std::vector<exchange::Finding>{})
      refused += f.refused;
  }
  QString words = tr("%1 of %2 tables are ready.").arg(ready).arg(rows_.size());
  if (open > 0) words += tr(" %1 wait for an answer.").arg(open);
  if (refused > 0)
    words += tr(" %1 cells or rows are not taken; bring such a table in alone to see which.").arg(refused);
  words_->setText(words);
  set_tone(words_, open > 0 || refused > 0 ? "attention" : "");
  take_->setEnabled(ready > 0 && open == 0 && !desk_.read_only());
  take_->setText(tr("Take %1 tables").arg(ready));
}

void TablesDialog::take() {
  if (const auto missing = evaluation::lux_factor_missing(*desk_.test()))
    return desk_.warn(text_of(missing->sentence()));
  QApplication::setOverrideCursor(Qt::WaitCursor);
  int readings = 0;
  const bool kept = desk_.edits().make(tr("bring in %1 tables").arg(rows_.size()), [&](book::Edit& e) {
    record::TestRecord test = *desk_.test();
    const auto step_for = [&]<typename Step>(std::vector<Step>& steps, double Step::*value, double wanted,
                                             double same) {
      if (const Step* present = step_at(steps, value, wanted, same)) return present->id;
      Step fresh;
      fresh.test_id = test.test.id;
      fresh.*value = wanted;
      fresh.id = e.add(fresh);
      steps.push_back(fresh);
      return fresh.id;
    };
    for (const Row& row : rows_) {
      if (!row.wanted || !row.draft) continue;
      const record::Id rung = step_for(test.rungs, &record::Rung::height_m, *row.height_m, same_height_m);
      const record::Id stop = step_for(test.stops, &record::Stop::percent, *row.percent, same_percent);
      book::take_table(e, test, rung, stop, *row.draft, "file");
      readings += row.draft->readings();
    }
  });
  QApplication::restoreOverrideCursor();
  if (!kept) return;
  desk_.choose_fullest();
  desk_.say(tr("%1 readings taken in. Ctrl+Z takes them out again.").arg(readings));
  accept();
}

}  // namespace sunbreak::desktop
