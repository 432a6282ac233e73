#include "desktop/widgets/labels.h"

#include <QStyle>

#include "desktop/theme/theme.h"

namespace sunbreak::desktop {

QLabel* quiet_label(const QString& text, QWidget* parent) {
  auto* label = new QLabel(text, parent);
  label->setProperty("quiet", true);
  return label;
}

QLabel* heading_label(const QString& text, QWidget* parent) {
  auto* label = new QLabel(text, parent);
  label->setProperty("heading", true);
  return label;
}

QLabel* figure_label(int pixels, QWidget* parent) {
  auto* label = new QLabel(parent);
  label->setProperty("heading", true);
  label->setProperty("digits", QString::number(pixels));
  return label;
}

QLabel* wrapped_label(const QString& text, QWidget* parent) {
  auto* label = new QLabel(text, parent);
  label->setWordWrap(true);
  return label;
}

QFrame* thin_rule(QWidget* parent) {
  auto* frame = new QFrame(parent);
  frame->setObjectName("rule");
  return frame;
}

QPushButton* primary_button(const QString& text, QWidget* parent) {
  auto* button = new QPushButton(text, parent);
  button->setProperty("primary", true);
  return button;
}

void set_tone(QWidget* widget, const char* tone) {
  if (widget->property("tone").toString() == tone) return;
  widget->setProperty("tone", tone);
  widget->style()->unpolish(widget);
  widget->style()->polish(widget);
}

QString counted(qsizetype count, const QString& one, const QString& many) {
  return QStringLiteral("%1 %2").arg(count).arg(count == 1 ? one : many);
}

QString marked_attention(const QString& text) { return QStringLiteral("◣ ") + text; }

void size_letters(QWidget* widget, int pixels, bool bold) {
  widget->setStyleSheet(QStringLiteral("font-size: %1px;%2").arg(pixels).arg(bold ? " font-weight: bold;" : ""));
}

}  // namespace sunbreak::desktop
