#include "desktop/audit/words_table.h"

#include <QHeaderView>
#include <QKeyEvent>
#include <QScopedValueRollback>
#include <algorithm>

#include "desktop/theme/theme.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/light_words.h"
#include "record/configurations.h"

namespace sunbreak::desktop {
namespace {

enum WordsColumn { AspectColumn, SentenceColumn, FigureColumn, WordsColumns };

QString aspect_text(evaluation::VerdictWords::Aspect aspect) {
  using Words = evaluation::VerdictWords;
  switch (aspect) {
    case Words::Light:
      return WordsTable::tr("light");
    case Words::Strength:
      return WordsTable::tr("strength");
    case Words::Weakness:
      return WordsTable::tr("weakness");
    case Words::Use:
      return WordsTable::tr("use");
    case Words::Watch:
      return WordsTable::tr("mind");
  }
  return {};
}

QString figure_text(const evaluation::StatedNumber& n) {
  return text_of(evaluation::found_text({n.value, n.expanded}, n.decimals, n.unit));
}

}  // namespace

WordsTable::WordsTable(Desk& desk, QWidget* parent) : QTableWidget(0, WordsColumns, parent), desk_(desk) {
  setObjectName("verdictWords");
  setAccessibleName(tr("The verdict in words"));
  setHorizontalHeaderLabels({tr("about"), tr("The verdict in words"), tr("tied to")});
  verticalHeader()->hide();
  horizontalHeader()->setSectionResizeMode(AspectColumn, QHeaderView::ResizeToContents);
  horizontalHeader()->setSectionResizeMode(SentenceColumn, QHeaderView::Stretch);
  horizontalHeader()->setSectionResizeMode(FigureColumn, QHeaderView::ResizeToContents);
  horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  setSelectionMode(QAbstractItemView::SingleSelection);
  setSelectionBehavior(QAbstractItemView::SelectRows);
  setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed);
  setTabKeyNavigation(false);
  setWordWrap(true);
  setTextElideMode(Qt::ElideNone);
  connect(this, &QTableWidget::cellChanged, this, &WordsTable::take_cell);
}

void WordsTable::show_words(std::shared_ptr<const evaluation::Audit> audit) {
  if (state() == QAbstractItemView::EditingState) return;
  audit_ = std::move(audit);
  const QScopedValueRollback filling(filling_, true);
  const int row_before = currentRow();
  setRowCount(audit_ ? static_cast<int>(audit_->words.size()) : 0);
  for (int row = 0; row < rowCount(); ++row) {
    const evaluation::VerdictWords& w = audit_->words[static_cast<std::size_t>(row)];
    const auto put = [&](int column, const QString& text, bool editable) {
      auto* item = new QTableWidgetItem(text);
      Qt::ItemFlags flags = Qt::ItemIsEnabled | Qt::ItemIsSelectable;
      if (editable && !desk_.read_only()) flags |= Qt::ItemIsEditable;
      item->setFlags(flags);
      item->setTextAlignment(Qt::AlignLeft | Qt::AlignTop);
      setItem(row, column, item);
      return item;
    };
    put(AspectColumn, aspect_text(w.aspect), false)->setForeground(theme().quiet);
    auto* sentence = put(SentenceColumn, text_of(w.struck ? w.drafted : w.sentence), true);
    QStringList states;
    if (w.struck) {
      QFont struck = text_font(13);
      struck.setStrikeOut(true);
      sentence->setFont(struck);
      sentence->setForeground(theme().quiet);
      states << tr("struck out");
    }
    if (w.own) {
      QFont own = text_font(13);
      own.setItalic(true);
      sentence->setFont(own);
      states << tr("your own words");
      sentence->setToolTip(tr("Drafted: %1").arg(text_of(w.drafted)));
    }
    if (w.figure_changed && (w.own || w.struck)) states << marked_attention(tr("its figure has changed since"));
    QString figure = figure_text(w.tied_to());
    if (!states.isEmpty()) figure += "\n" + states.join("\n");
    put(FigureColumn, figure, false)->setForeground(theme().ink);
  }
  resizeRowsToContents();
  if (rowCount() > 0) setCurrentCell(std::clamp(row_before, 0, rowCount() - 1), SentenceColumn);
  if (!hasFocus()) clearSelection();
}

void WordsTable::resizeEvent(QResizeEvent* event) {
  QTableWidget::resizeEvent(event);
  resizeRowsToContents();
}

void WordsTable::focusInEvent(QFocusEvent* event) {
  QTableWidget::focusInEvent(event);
  if (currentRow() >= 0) selectRow(currentRow());
}

void WordsTable::focusOutEvent(QFocusEvent* event) {
  QTableWidget::focusOutEvent(event);
  if (state() != QAbstractItemView::EditingState) clearSelection();
}

const evaluation::VerdictWords* WordsTable::chosen() const {
  const int row = currentRow();
  return audit_ && row >= 0 && row < std::ssize(audit_->words) ? &audit_->words[static_cast<std::size_t>(row)]
                                                               : nullptr;
}

void WordsTable::keep(const evaluation::VerdictWords& words, const std::optional<std::string>& sentence) {
  if (!desk_.test()) return;
  const auto& own = desk_.test()->verdict_sentences;
  const auto present = std::ranges::find(own, words.slot, &record::VerdictSentence::slot);
  desk_.edits().make(tr("sentence of the verdict"), [&](book::Edit& edit) {
    if (!sentence) {
      if (present != own.end()) edit.erase<record::VerdictSentence>(present->id);
      return;
    }
    record::VerdictSentence row = present == own.end() ? record::VerdictSentence{} : *present;
    row.test_id = desk_.test()->test.id, row.slot = words.slot, row.words = *sentence, row.drafted = words.drafted;
    row.configuration_id = record::configuration_of(*desk_.test());
    if (present == own.end())
      edit.add(row);
    else
      edit.save(row);
  });
}

void WordsTable::take_cell(int row, int column) {
  if (filling_ || column != SentenceColumn || !audit_ || row >= std::ssize(audit_->words)) return;
  const evaluation::VerdictWords words = audit_->words[static_cast<std::size_t>(row)];
  const std::string typed = text_of(item(row, column)->text().trimmed());
  if (typed == words.drafted)
    keep(words, {});
  else
    keep(words, typed);
}

void WordsTable::draft_again() {
  if (const auto* words = chosen()) keep(evaluation::VerdictWords(*words), {});
}

void WordsTable::strike() {
  const auto* words = chosen();
  if (!words) return;
  if (words->struck)
    keep(evaluation::VerdictWords(*words), {});
  else
    keep(evaluation::VerdictWords(*words), std::string());
}

void WordsTable::edit_chosen() {
  if (chosen() && !desk_.read_only()) edit(model()->index(currentRow(), SentenceColumn));
}

void WordsTable::keyPressEvent(QKeyEvent* event) {
  if (event->modifiers() == Qt::NoModifier) switch (event->key()) {
      case Qt::Key_Return:
      case Qt::Key_Enter:
        return edit_chosen();
      case Qt::Key_Delete:
        return strike();
      case Qt::Key_Backspace:
        return draft_again();
      default:
        break;
    }
  QTableWidget::keyPressEvent(event);
}

}  // namespace sunbreak::desktop
