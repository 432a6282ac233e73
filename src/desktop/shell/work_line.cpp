#include "desktop/shell/work_line.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

#include "desktop/desk/desk.h"
#include "desktop/shell/stages.h"
#include "desktop/theme/theme.h"

namespace sunbreak::desktop {

namespace {

QString mark_words(StageMark mark) {
  switch (mark) {
    case StageMark::Untouched:
      return WorkLine::tr("untouched");
    case StageMark::Begun:
      return WorkLine::tr("begun");
    case StageMark::Done:
      return WorkLine::tr("done");
    case StageMark::NeedsLook:
      return WorkLine::tr("needs a look");
  }
  return {};
}

int stage_count() { return static_cast<int>(stages().size()); }

}  // namespace

WorkLine::WorkLine(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setFocusPolicy(Qt::TabFocus);
  setMouseTracking(true);
  setFixedHeight(52);
  setAccessibleName(tr("Work line: the stages of the test"));
  connect(&desk, &Desk::changed, this, qOverload<>(&QWidget::update));
}

void WorkLine::set_stage(std::optional<Stage> stage) {
  stage_ = stage;
  if (stage) focused_ = stage_place(*stage);
  setAccessibleDescription(stage ? tr("%1 is open").arg(stage_kind(*stage).name) : tr("The lab book is open"));
  update();
}

QRectF WorkLine::cell(int index) const {
  return {index * width() / double(stage_count()), 0, width() / double(stage_count()), double(height())};
}

int WorkLine::at(const QPointF& place) const {
  for (int i = 0; i < stage_count(); ++i)
    if (cell(i).contains(place)) return i;
  return -1;
}

void WorkLine::paintEvent(QPaintEvent*) {
  const Theme& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const double line_y = 18;
  p.setPen(QPen(t.rule, 2));
  p.drawLine(QPointF(cell(0).center().x(), line_y), QPointF(cell(stage_count() - 1).center().x(), line_y));
  for (int i = 0; i < stage_count(); ++i) {
    const QPointF middle(cell(i).center().x(), line_y);
    const bool here = stage_ && *stage_ == stages()[i].stage;
    const bool off = !desk_.test();
    const StageMark mark = mark_of(stages()[i], desk_);
    const QColor color = here ? t.ember : off ? t.quiet : t.ink;
    p.setBrush(t.panel);
    p.setPen(Qt::NoPen);
    p.drawEllipse(middle, 10, 10);
    p.setPen(QPen(color, here ? 3 : 2));
    switch (mark) {
      case StageMark::Untouched:
        p.drawEllipse(middle, 6, 6);
        break;
      case StageMark::Begun:
        p.drawEllipse(middle, 6, 6);
        p.setBrush(color);
        p.drawPie(QRectF(middle.x() - 6, middle.y() - 6, 12, 12), 90 * 16, 180 * 16);
        break;
      case StageMark::Done:
        p.setBrush(color);
        p.drawEllipse(middle, here ? 6 : 5, here ? 6 : 5);
        break;
      case StageMark::NeedsLook:
        p.setPen(QPen(here ? t.ember : t.attention, 2));
        p.setBrush(here ? t.ember : t.attention);
        p.drawPolygon(QPolygonF({middle + QPointF(0, -7), middle + QPointF(7, 5), middle + QPointF(-7, 5)}));
        break;
    }
    p.setPen(color);
    p.setFont(text_font(12, here));
    p.drawText(QRectF(cell(i).left(), 29, cell(i).width(), 18), Qt::AlignCenter, stages()[i].name);
    if (hasFocus() && i == focused_) {
      p.setBrush(Qt::NoBrush);
      p.setPen(QPen(t.ember, 1));
      p.drawRect(cell(i).adjusted(4, 3, -4, -3));
    }
  }
}

void WorkLine::mousePressEvent(QMouseEvent* event) {
  if (const int i = at(event->position()); i >= 0) emit chosen(stages()[i].stage);
}

void WorkLine::mouseMoveEvent(QMouseEvent* event) {
  const int i = at(event->position());
  setCursor(i >= 0 ? Qt::PointingHandCursor : Qt::ArrowCursor);
  if (i >= 0)
    setToolTip(tr("%1 (Alt+%2): %3").arg(stages()[i].name).arg(i + 1).arg(mark_words(mark_of(stages()[i], desk_))));
}

void WorkLine::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Left)
    focused_ = std::max(0, focused_ - 1);
  else if (event->key() == Qt::Key_Right)
    focused_ = std::min(stage_count() - 1, focused_ + 1);
  else if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space)
    emit chosen(stages()[focused_].stage);
  else
    return QWidget::keyPressEvent(event);
  setAccessibleDescription(stages()[focused_].name);
  update();
}

}  // namespace sunbreak::desktop
