#include "desktop/import/import_dialog.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QTableWidget>
#include <QVBoxLayout>
#include <cmath>
#include <set>

#include "book/take_table.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/take_or_leave.h"
#include "desktop/widgets/text.h"
#include "evaluation/lux_walk.h"

namespace sunbreak::desktop {
namespace {
constexpr int rows_shown = 60, columns_shown = 60, findings_shown = 200;
}

ImportDialog::ImportDialog(Desk& desk, std::string bytes, const QString& origin, std::string source, QWidget* parent)
    : QDialog(parent), desk_(desk), bytes_(std::move(bytes)), source_(std::move(source)), origin_(origin) {
  setObjectName("importDialog");
  setWindowTitle(tr("Bring in readings"));
  resize(860, 620);
  build();
  read();
}

void ImportDialog::build() {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(24, 16, 24, 16);
  layout->setSpacing(8);
  auto* head = figure_label(20, this);
  head->setText(tr("%1 into %2 · %3 %")
                    .arg(origin_, text_of(length_text(desk_.rung()->height_m, desk_.units())))
                    .arg(desk_.stop()->percent));
  layout->addWidget(head);
  auto* choices = new QHBoxLayout;
  add_choices(choices);
  layout->addLayout(choices);
  understood_ = wrapped_label({}, this);
  understood_->setObjectName("understood");
  layout->addWidget(understood_);
  table_ = new QTableWidget(this);
  table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table_->setSelectionMode(QAbstractItemView::NoSelection);
  table_->setTabKeyNavigation(false);
  table_->setAccessibleName(tr("The table as it was read"));
  layout->addWidget(table_, 1);
  findings_ = wrapped_label({}, this);
  findings_->setObjectName("findings");
  findings_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  auto* scroll = new QScrollArea(this);
  scroll->setWidgetResizable(true);
  scroll->setWidget(findings_);
  scroll->setMaximumHeight(132);
  scroll->setAccessibleName(tr("What was noticed in the table"));
  layout->addWidget(scroll);
  take_ = take_or_leave(*this, *layout, tr("Take these readings"), "takeReadings");
  connect(take_, &QPushButton::clicked, this, &ImportDialog::take);
}

void ImportDialog::add_choices(QHBoxLayout* row) {
  const auto add = [&](const QString& name, std::initializer_list<std::pair<QString, QVariant>> entries) {
    auto* column = new QVBoxLayout;
    column->setSpacing(0);
    auto* box = new QComboBox(this);
    box->setAccessibleName(name);
    for (const auto& [text, value] : entries) box->addItem(text, value);
    column->addWidget(quiet_label(name, this));
    column->addWidget(box);
    row->addLayout(column);
    connect(box, &QComboBox::activated, this, &ImportDialog::read);
    return box;
  };
  form_ = add(tr("Form"), {{tr("worked out"), -1}, {tr("matrix"), 1}, {tr("long: x, y, value"), 0}});
  separator_ =
      add(tr("Separator"), {{tr("worked out"), 0}, {tr("comma"), ','}, {tr("semicolon"), ';'}, {tr("tab"), '\t'}});
  decimal_ = add(tr("Decimal mark"), {{tr("worked out"), 0}, {tr("point"), '.'}, {tr("comma"), ','}});
  first_row_ =
      add(tr("First row is"), {{tr("worked out"), -1}, {tr("the far row"), 1}, {tr("the row at the door"), 0}});
  unit_ = add(tr("Places in"), {{tr("worked out"), -1}, {"cm", 1}, {"m", 0}, {"mm", 2}, {"in", 3}, {"ft", 4}});
  grid_ = add(tr("Grid"), {{tr("as planned"), QString()},
                           {tr("cells"), "cells"},
                           {tr("nodes"), "nodes"},
                           {tr("inset"), "inset"},
                           {tr("spots"), "spots"}});
  first_row_->setObjectName("firstRow");
  row->addStretch();
}

exchange::TableOptions ImportDialog::options() const {
  exchange::TableOptions o;
  if (const int form = form_->currentData().toInt(); form >= 0)
    o.form = form == 1 ? exchange::TableForm::Matrix : exchange::TableForm::Long;
  if (const int c = separator_->currentData().toInt()) o.separator = static_cast<char>(c);
  if (const int c = decimal_->currentData().toInt()) o.decimal_mark = static_cast<char>(c);
  if (const int far = first_row_->currentData().toInt(); far >= 0) o.first_row_is_far = far == 1;
  if (const int unit = unit_->currentData().toInt(); unit >= 0) o.place_unit = static_cast<LengthUnit>(unit);
  return o;
}

void ImportDialog::read() {
  exchange::TableContext context = book::table_context(*desk_.test(), desk_.sweep(), desk_.units());
  if (const QString kind = grid_->currentData().toString(); !kind.isEmpty())
    context.kind = parse_grid_kind(text_of(kind)).value();
  auto draft = exchange::read_sweep_table(bytes_, context, options());
  draft_.reset();
  if (!draft) {
    understood_->setText(marked_attention(text_of(draft.problem().sentence())));
    set_tone(understood_, "bad");
    findings_->clear();
    table_->setRowCount(0);
    take_->setEnabled(false);
    return;
  }
  draft_ = std::move(draft.value());
  QStringList words;
  for (const std::string& line : draft_->understood) words << text_of(line);
  understood_->setText(words.join(QStringLiteral(" · ")));
  set_tone(understood_, "");
  take_->setEnabled(!desk_.read_only());
  QStringList lines;
  for (const exchange::Finding& f : draft_->findings) {
    if (lines.size() == findings_shown) {
      lines << tr("… and %1 more").arg(draft_->findings.size() - findings_shown);
      break;
    }
    lines << (f.refused ? QStringLiteral("◣ ") : QStringLiteral("· ")) + text_of(f.words);
  }
  if (desk_.view() && desk_.view()->read() > 0)
    lines.prepend(tr("◣ This sweep has %1 readings already; those at the same stations are replaced. They stay on "
                     "record, and undo brings them back.")
                      .arg(desk_.view()->read()));
  findings_->setText(lines.isEmpty() ? tr("Every cell was understood.") : lines.join('\n'));
  show_cells();
}

void ImportDialog::show_cells() {
  const Theme& t = theme();
  std::set<std::pair<int, int>> taken, refused;
  for (const exchange::CellPlace& place : draft_->sources)
    if (place.row > 0) taken.insert({place.row, place.column});
  for (const exchange::Finding& f : draft_->findings)
    if (f.refused) refused.insert({f.row, f.column});
  const int rows = std::min<int>(rows_shown, static_cast<int>(draft_->cells.size()));
  std::size_t widest = 0;
  for (int r = 0; r < rows; ++r) widest = std::max(widest, draft_->cells[r].size());
  const int columns = std::min<int>(columns_shown, static_cast<int>(widest));
  table_->clear();
  table_->setRowCount(rows);
  table_->setColumnCount(columns);
  for (int r = 0; r < rows; ++r)
    for (int c = 0; c < std::min<int>(columns, static_cast<int>(draft_->cells[r].size())); ++c) {
      auto* item = new QTableWidgetItem(text_of(draft_->cells[r][c]));
      const bool wrong = refused.count({r + 1, c + 1}) || refused.count({r + 1, 0});
      if (wrong) item->setText(QStringLiteral("◣ ") + item->text());
      item->setForeground(wrong ? t.attention : taken.count({r + 1, c + 1}) ? t.ink : t.quiet);
      if (taken.count({r + 1, c + 1})) item->setFont(text_font(13, true));
      table_->setItem(r, c, item);
    }
  table_->resizeColumnsToContents();
}

void ImportDialog::take() {
  if (!draft_ || !desk_.test()) return;
  if (const auto missing = evaluation::lux_factor_missing(*desk_.test()))
    return desk_.warn(text_of(missing->sentence()));
  const bool kept = desk_.edits().make(tr("bring in %1").arg(origin_), [&](book::Edit& e) {
    book::take_table(e, *desk_.test(), desk_.rung()->id, desk_.stop()->id, *draft_, source_);
  });
  if (!kept) return;
  desk_.say(tr("%1 readings taken in. Ctrl+Z takes them out again.").arg(draft_->readings()));
  accept();
}

}  // namespace sunbreak::desktop
