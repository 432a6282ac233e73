#include "desktop/widgets/figures_table.h"

#include <QHeaderView>
#include <algorithm>

#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {
namespace {
constexpr int row_px = 22;
}

FiguresTable::FiguresTable(const QStringList& headers, const QString& name, QWidget* parent)
    : QTableWidget(0, static_cast<int>(headers.size()), parent) {
  setAccessibleName(name);
  setHorizontalHeaderLabels(headers);
  verticalHeader()->hide();
  verticalHeader()->setDefaultSectionSize(row_px);
  verticalHeader()->setMinimumSectionSize(row_px);
  horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  horizontalHeader()->setHighlightSections(false);
  for (int c = 0; c < columnCount(); ++c)
    horizontalHeaderItem(c)->setTextAlignment((c == 0 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter);
  setEditTriggers(QAbstractItemView::NoEditTriggers);
  setSelectionBehavior(QAbstractItemView::SelectRows);
  setSelectionMode(QAbstractItemView::SingleSelection);
  setTabKeyNavigation(false);
  setShowGrid(false);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
}

void FiguresTable::show_rows(const std::vector<std::vector<FigureCell>>& rows) {
  if (rows == shown_ && theme().look == look_) return;
  shown_ = rows;
  look_ = theme().look;
  const int current = currentRow();
  setRowCount(static_cast<int>(rows.size()));
  for (int r = 0; r < rowCount(); ++r)
    for (int c = 0; c < columnCount() && c < static_cast<int>(rows[r].size()); ++c) {
      const FigureCell& cell = rows[r][c];
      QTableWidgetItem* item = this->item(r, c);
      if (!item) {
        item = new QTableWidgetItem;
        item->setTextAlignment((c == 0 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter);
        setItem(r, c, item);
      }
      const QString text = cell.attention ? marked_attention(cell.text) : cell.text;
      if (item->text() != text) item->setText(text);
      if (item->toolTip() != cell.tip) item->setToolTip(cell.tip);
      const QBrush ink = cell.attention ? QBrush(theme().attention) : QBrush();
      if (item->foreground() != ink) item->setData(Qt::ForegroundRole, cell.attention ? QVariant(ink) : QVariant());
    }
  if (current >= 0 && current < rowCount()) setCurrentCell(current, 0);
  setFixedHeight(horizontalHeader()->sizeHint().height() + row_px * rowCount() + 4);
  setVisible(rowCount() > 0);
  fit_columns();
}

void FiguresTable::resizeEvent(QResizeEvent* event) {
  QTableWidget::resizeEvent(event);
  fit_columns();
}

void FiguresTable::fit_columns() {
  for (const int c : spare_) setColumnHidden(c, false);
  const auto wanted = [this] {
    int width = 16;
    for (int c = 0; c < columnCount(); ++c)
      if (!isColumnHidden(c)) width += std::max(sizeHintForColumn(c), horizontalHeader()->sectionSizeHint(c));
    return width;
  };
  for (const int c : spare_)
    if (wanted() > viewport()->width()) setColumnHidden(c, true);
}

}  // namespace sunbreak::desktop
