#include "desktop/widgets/figures_table.h"

#include <QHeaderView>
#include <QPaintEvent>
#include <QStyledItemDelegate>
#include <algorithm>
#include <numeric>

#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {
namespace {
constexpr int row_px = 22, cell_margin_px = 4, least_name_px = 40;

/// Paints a name over what its own row's first value leaves of that one's column.
class NameDelegate : public QStyledItemDelegate {
 public:
  explicit NameDelegate(const FiguresTable& table, QObject* parent) : QStyledItemDelegate(parent), table_(table) {}
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    QStyleOptionViewItem wide = option;
    wide.rect.setWidth(std::max(option.rect.width(), table_.name_px(index.row())));
    QStyledItemDelegate::paint(painter, wide, index);
  }

 private:
  const FiguresTable& table_;
};
}  // namespace

FiguresTable::FiguresTable(const QStringList& headers, const QString& name, QWidget* parent)
    : QTableWidget(0, static_cast<int>(headers.size()), parent) {
  setAccessibleName(name);
  setHorizontalHeaderLabels(headers);
  verticalHeader()->hide();
  verticalHeader()->setDefaultSectionSize(row_px);
  verticalHeader()->setMinimumSectionSize(row_px);
  horizontalHeader()->setSectionResizeMode(QHeaderView::Fixed);  // fit() measures them, once for all cells
  horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  horizontalHeader()->setHighlightSections(false);
  for (int c = 0; c < columnCount(); ++c)
    horizontalHeaderItem(c)->setTextAlignment((c == 0 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter);
  setEditTriggers(QAbstractItemView::NoEditTriggers);
  setSelectionBehavior(QAbstractItemView::SelectRows);
  setSelectionMode(QAbstractItemView::SingleSelection);
  setItemDelegateForColumn(0, new NameDelegate(*this, this));
  setTabKeyNavigation(false);
  setShowGrid(false);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  hide();
}

void FiguresTable::name_column(int column, const QString& name) {
  if (horizontalHeaderItem(column)->text() == name) return;
  horizontalHeaderItem(column)->setText(name);
  shown_.reset();
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

void FiguresTable::paintEvent(QPaintEvent* event) {
  // A name stands over its neighbor's column: whatever is painted of a row, the name is, too.
  QPaintEvent whole_rows(QRect(0, event->rect().top(), viewport()->width(), event->rect().height()));
  QTableWidget::paintEvent(&whole_rows);
}

int FiguresTable::name_px(int row) const { return name_px_[static_cast<std::size_t>(row)]; }

int FiguresTable::wanted_px(int column) const {
  return std::max(sizeHintForColumn(column), horizontalHeader()->sectionSizeHint(column));
}

void FiguresTable::fit() {
  for (const int c : spare_) setColumnHidden(c, false);
  std::vector<int> wanted;
  for (int c = 0; c < columnCount(); ++c) wanted.push_back(wanted_px(c));
  int all_px = std::accumulate(wanted.begin(), wanted.end(), 0);
  for (const int c : spare_)
    if (all_px + 16 > viewport()->width()) {
      setColumnHidden(c, true);
      all_px -= wanted[static_cast<std::size_t>(c)];
    }
  const int values_px = all_px - wanted.front();
  for (int c = 1; c < columnCount(); ++c)
    if (!isColumnHidden(c)) setColumnWidth(c, wanted[static_cast<std::size_t>(c)]);
  name_px_.clear();
  for (int r = 0; r < rowCount(); ++r) {
    const QTableWidgetItem* first = columnCount() > 1 && !isColumnHidden(1) ? item(r, 1) : nullptr;
    const int left_of_it =
        first ? std::max(0, wanted[1] - fontMetrics().horizontalAdvance(first->text()) - 2 * cell_margin_px) : 0;
    name_px_.push_back(viewport()->width() - values_px + left_of_it);
  }
  // A name that is longer than what the values of its row leave stands in several lines.
  int tall = horizontalHeader()->sizeHint().height() + 4;
  for (int r = 0; r < rowCount(); ++r) {
    int row = row_px;
    const int room = name_px(r) - 2 * cell_margin_px;
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
