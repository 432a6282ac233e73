#include "desktop/meters/pair_table.h"

#include <QApplication>
#include <QClipboard>
#include <QHeaderView>
#include <QKeyEvent>

#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/text.h"
#include "exchange/tables/cell_numbers.h"

namespace sunbreak::desktop {
namespace {

constexpr int most_typed_rows = 5000, width_px = 300;

/// Rows of two numbers, without a header; nothing where one is no such row.
std::optional<PairTable::Pairs> bare_pairs(const std::string& bytes) {
  const exchange::Rows rows = exchange::split_cells(bytes, exchange::guess_separator(bytes));
  const char mark = exchange::guess_decimal_mark(rows);
  PairTable::Pairs pairs;
  for (const auto& row : rows) {
    std::vector<double> numbers;
    for (const std::string& cell : row)
      if (const auto number = exchange::cell_number(cell, {mark, false, {}})) numbers.push_back(*number);
    if (numbers.empty()) continue;
    if (numbers.size() != 2) return std::nullopt;
    pairs.emplace_back(numbers[0], numbers[1]);
  }
  return pairs.empty() ? std::nullopt : std::optional(pairs);
}

}  // namespace

PairTable::PairTable(const QString& first, const QString& second, QWidget* parent) : QTableWidget(1, 2, parent) {
  setHorizontalHeaderLabels({first, second});
  horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  verticalHeader()->setDefaultSectionSize(24);
  setFixedWidth(width_px);
  setTabKeyNavigation(false);
  setEditTriggers(QAbstractItemView::AnyKeyPressed | QAbstractItemView::DoubleClicked |
                  QAbstractItemView::EditKeyPressed);
  setCurrentCell(0, 0);
  connect(this, &QTableWidget::cellChanged, this, [this] {
    keep_a_row_below();
    emit pairs_changed();
  });
}

PairTable::Pairs PairTable::pairs() const {
  Pairs pairs;
  for (int row = 0; row < rowCount(); ++row) {
    const auto value = [&](int column) {
      return item(row, column) ? typed_number(item(row, column)->text()) : std::nullopt;
    };
    const auto first = value(0), second = value(1);
    if (first && second && *first > 0 && *second > 0) pairs.emplace_back(*first, *second);
  }
  return pairs;
}

QString PairTable::problem() const {
  for (int row = 0; row < rowCount(); ++row)
    for (int column = 0; column < 2; ++column) {
      const QString text = item(row, column) ? item(row, column)->text().trimmed() : QString();
      if (const auto number = typed_number(text); !text.isEmpty() && !(number && *number > 0))
        return tr("Row %1: '%2' is no number above zero. Its row is left out: correct it.").arg(row + 1).arg(text);
    }
  return {};
}

void PairTable::keep_a_row_below() {
  const int last = rowCount() - 1;
  const auto filled = [&](int column) { return item(last, column) && !item(last, column)->text().isEmpty(); };
  if ((filled(0) || filled(1)) && rowCount() < most_typed_rows) insertRow(rowCount());
}

void PairTable::move_on() {
  if (currentColumn() == 0)
    setCurrentCell(currentRow(), 1);
  else
    setCurrentCell(std::min(currentRow() + 1, rowCount() - 1), 0);
}

void PairTable::fill(int column, double value) {
  const int row = std::max(0, currentRow());
  setItem(row, column, new QTableWidgetItem(QString::number(value, 'f', 1)));
  setCurrentCell(row, column);
  move_on();
}

void PairTable::append(const Pairs& pairs) {
  {
    const QSignalBlocker quiet(this);
    for (const auto& [first, second] : pairs) {
      const int row = rowCount() - 1;
      if (rowCount() > most_typed_rows) break;
      setItem(row, 0, new QTableWidgetItem(QString::number(first, 'g', 10)));
      setItem(row, 1, new QTableWidgetItem(QString::number(second, 'g', 10)));
      insertRow(rowCount());
    }
  }
  setCurrentCell(rowCount() - 1, 0);
  emit pairs_changed();
}

void PairTable::set_pairs(const Pairs& pairs) {
  {
    const QSignalBlocker quiet(this);
    setRowCount(0);
    setRowCount(1);
  }
  append(pairs);
}

void PairTable::paste() {
  const std::string bytes = text_of(QApplication::clipboard()->text());
  auto pairs = bare_pairs(bytes);
  if (!pairs && read_table) pairs = read_table(bytes);
  if (!pairs)
    return emit said(
        tr("What was pasted is no table of two columns of numbers. Nothing was taken: paste a row for each "
           "pair, the columns named in the first row or bare."));
  append(*pairs);
  emit said(tr("%1 pairs pasted.").arg(pairs->size()));
}

/// Enter ends a cell and goes on to the next, as a row is read off two meters.
void PairTable::closeEditor(QWidget* editor, QAbstractItemDelegate::EndEditHint hint) {
  QTableWidget::closeEditor(editor, hint);
  if (hint == QAbstractItemDelegate::SubmitModelCache) move_on();
}

void PairTable::keyPressEvent(QKeyEvent* event) {
  if (event->matches(QKeySequence::Paste)) return paste();
  if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) && state() != QAbstractItemView::EditingState)
    return move_on();
  if (event->key() == Qt::Key_Delete && currentRow() >= 0) {
    for (int column = 0; column < 2; ++column) delete takeItem(currentRow(), column);
    return emit pairs_changed();
  }
  QTableWidget::keyPressEvent(event);
}

}  // namespace sunbreak::desktop
