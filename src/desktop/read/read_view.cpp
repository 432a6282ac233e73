#include "desktop/read/read_view.h"

#include <QApplication>
#include <QClipboard>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QVBoxLayout>

#include "desktop/paint/sweep_map.h"
#include "desktop/read/figures_column.h"
#include "desktop/walk/sweep_table_text.h"
#include "desktop/widgets/elided_label.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/takers.h"

namespace sunbreak::desktop {

ReadView::ReadView(Desk& desk, QWidget* parent) : StageView(parent), desk_(desk) {
  setFocusPolicy(Qt::StrongFocus);
  auto* middle = new QWidget(this);
  middle->setObjectName("ground");
  middle->setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(middle);
  column->setContentsMargins(16, 12, 16, 8);
  auto* head = new QHBoxLayout;
  title_ = figure_label(20, middle);
  state_ = new ElidedLabel(middle);
  head->addWidget(title_);
  head->addSpacing(16);
  head->addWidget(state_, 1);
  column->addLayout(head);
  map_ = new SweepMap(desk_, middle);
  map_->set_band_shown(true);
  column->addWidget(map_, 1);
  figures_ = new FiguresColumn(desk_, this);
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(middle, 1);
  layout->addWidget(figures_);
  connect(&desk_, &Desk::changed, this, [this] {
    if (isVisible()) refresh();
  });
}

void ReadView::refresh() {
  if (!desk_.test() || !desk_.view() || !desk_.rung() || !desk_.stop()) return;
  title_->setText(
      tr("%1 · %2 %")
          .arg(text_of(length_text(desk_.rung()->height_m, desk_.units())), show_number(desk_.stop()->percent)));
  QStringList words{tr("%1 of %2 stations").arg(desk_.view()->read()).arg(desk_.view()->states.size()),
                    text_of(desk_.test()->bench.name)};
  if (!desk_.test()->test.door.empty()) words << tr("door %1").arg(text_of(desk_.test()->test.door));
  state_->setText(words.join(QStringLiteral(" · ")));
  figures_->refresh();
}

void ReadView::arrive() {
  refresh();
  setFocus(Qt::OtherFocusReason);
}

void ReadView::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_N && event->modifiers() == Qt::NoModifier) {
    numbers_ = !numbers_;
    return map_->set_numbers(numbers_);
  }
  StageView::keyPressEvent(event);
}

bool ReadView::copy() {
  if (!desk_.view() || desk_.view()->read() == 0) return false;
  QApplication::clipboard()->setText(sweep_table_text(*desk_.view()));
  return true;
}

std::vector<KeyHint> ReadView::keys() const {
  return {{tr("Tab"), tr("from figure to figure, each with its definition")},
          {tr("N"), tr("numbers on the map on or off")},
          {tr("Ctrl+C"), tr("copy the sweep as a table, far row first")},
          {tr("Ctrl+V"), tr("bring in a block of cells from a spreadsheet")}};
}

}  // namespace sunbreak::desktop
