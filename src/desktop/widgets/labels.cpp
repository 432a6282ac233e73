#include "desktop/widgets/labels.h"

#include <QEvent>
#include <QStyle>
#include <map>
#include <tuple>

#include "desktop/theme/theme.h"

namespace sunbreak::desktop {
namespace {

/// Remembers how tall its words stand in a width: a layout asks for it many times, and each time would break the lines
/// anew.
class WrappedLabel : public QLabel {
 public:
  WrappedLabel(const QString& text, QWidget* parent) : QLabel(text, parent) { setWordWrap(true); }

  int heightForWidth(int width) const override {
    Depends now{text(), textFormat(), margin(), indent(), contentsMargins()};
    if (now != tall_for_) tall_for_ = std::move(now), tall_.clear();
    const auto [at, fresh] = tall_.try_emplace(width);
    if (fresh) at->second = QLabel::heightForWidth(width);
    return at->second;
  }

 protected:
  void changeEvent(QEvent* event) override {
    tall_.clear();  // of another font or style
    QLabel::changeEvent(event);
  }

 private:
  using Depends = std::tuple<QString, Qt::TextFormat, int, int, QMargins>;
  mutable Depends tall_for_;
  mutable std::map<int, int> tall_;  ///< by the width
};

}  // namespace

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

QLabel* wrapped_label(const QString& text, QWidget* parent) { return new WrappedLabel(text, parent); }

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
