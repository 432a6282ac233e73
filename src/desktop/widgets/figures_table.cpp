#include "desktop/widgets/figures_table.h"

#include <QHeaderView>
#include <algorithm>

#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {
namespace {
constexpr int row_px = 22, cell_margin_px = 4, least_name_px = 40;
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
  setVisible(rowCount() > 0);
  fit();
}

void FiguresTable::resizeEvent(QResizeEvent* event) {
  QTableWidget::resizeEvent(event);
  fit();
}

int FiguresTable::wanted_px(int column) const {
  return isColumnHidden(column) ? 0 : std::max(sizeHintForColumn(column), horizontalHeader()->sectionSizeHint(column));
}

void FiguresTable::fit() {
  for (const int c : spare_) setColumnHidden(c, false);
  const auto wanted = [this](int from) {
    int width = 0;
    for (int c = from; c < columnCount(); ++c) width += wanted_px(c);
    return width;
  };
  for (const int c : spare_)
    if (wanted(0) + 16 > viewport()->width()) setColumnHidden(c, true);
  // A name that is longer than what the values leave stands in several lines.
  const int room = viewport()->width() - wanted(1) - 2 * cell_margin_px;
  int tall = horizontalHeader()->sizeHint().height() + 4;
  for (int r = 0; r < rowCount(); ++r) {
    int row = row_px;
    const QString name = item(r, 0) ? item(r, 0)->text() : QString();
    if (room > least_name_px && fontMetrics().horizontalAdvance(name) > room)
      row +=
          fontMetrics().boundingRect(0, 0, room, 1000, Qt::TextWordWrap, name).height() - fontMetrics().lineSpacing();
    if (rowHeight(r) != row) setRowHeight(r, row);
    tall += row;
  }
  setFixedHeight(tall);
}

}  // namespace sunbreak::desktop
