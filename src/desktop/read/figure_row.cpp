#include "desktop/read/figure_row.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QVBoxLayout>

#include "desktop/desk/desk.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

QString definition_words(const Figure& f) {
  const QString symbol = f.symbol.empty() ? QString() : QStringLiteral(" (%1)").arg(text_of(f.symbol));
  return QStringLiteral("%1%2: %3. %4.\n%5")
      .arg(text_of(f.label), symbol, text_of(f.meaning), text_of(f.formula),
           QObject::tr("Depends on: %1.").arg(text_of(f.depends_on)));
}

FigureRow::FigureRow(const Figure& figure, bool large, QWidget* parent)
    : QWidget(parent), definition_(definition_words(figure)) {
  setFocusPolicy(Qt::TabFocus);
  setProperty("showsFocus", true);
  setWhatsThis(definition_);
  setObjectName(text_of(figure.id));
  auto* name = quiet_label(text_of(figure.label), this);
  setAccessibleName(name->text());
  value_ = figure_label(large ? 40 : 13, this);
  unit_ = quiet_label({}, this);
  where_ = quiet_label({}, this);
  uncertainty_ = new QLabel(this);
  uncertainty_->setObjectName("uncertainty");
  if (large) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(4, 0, 4, 0);
    column->setSpacing(0);
    column->addWidget(name);
    auto* row = new QHBoxLayout;
    row->setSpacing(6);
    row->addWidget(value_);
    auto* beside = new QVBoxLayout;
    beside->setSpacing(0);
    beside->addStretch();
    beside->addWidget(uncertainty_);
    beside->addWidget(unit_);
    beside->addSpacing(6);
    row->addLayout(beside);
    row->addStretch();
    column->addLayout(row);
    where_->hide();
    return;
  }
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(4, 2, 4, 2);
  row->setSpacing(6);
  row->addWidget(name);
  row->addStretch();
  row->addWidget(where_);
  row->addWidget(value_);
  row->addWidget(uncertainty_);
  row->addWidget(unit_);
}

void FigureRow::set_uncertainty(const QString& plus_minus) {
  uncertainty_->setText(plus_minus);
  setAccessibleDescription(value_->text() + " " + plus_minus + " " + unit_->text() + " " + where_->text());
}

void FigureRow::set_particulars(const QString& words) {
  setWhatsThis(words.isEmpty() ? definition_ : definition_ + "\n" + words);
  if (hasFocus()) emit described(whatsThis());
}

void FigureRow::set_value(const QString& value, const QString& unit, const QString& where) {
  value_->setText(value);
  unit_->setText(unit);
  unit_->setVisible(!unit.isEmpty());
  where_->setText(where);
  setAccessibleDescription(value + " " + unit + " " + where);
}

void FigureRow::set_leading(bool leading) {
  const int pixels = leading ? 20 : 13;
  if (value_->property("digits").toInt() == pixels) return;
  value_->setProperty("digits", pixels);
  value_->style()->unpolish(value_);
  value_->style()->polish(value_);
}

QString FigureRow::value() const { return value_->text(); }
void FigureRow::enterEvent(QEnterEvent*) { emit described(whatsThis()); }
void FigureRow::leaveEvent(QEvent*) {
  if (!hasFocus()) emit described({});
}
void FigureRow::focusInEvent(QFocusEvent*) {
  emit described(whatsThis());
  update();
}
void FigureRow::focusOutEvent(QFocusEvent*) {
  emit described({});
  update();
}

void FigureRow::paintEvent(QPaintEvent*) {
  if (!hasFocus()) return;
  QPainter p(this);
  p.setPen(QPen(theme().ember, 1));
  p.drawRect(rect().adjusted(0, 0, -1, -1));
}

}  // namespace sunbreak::desktop
