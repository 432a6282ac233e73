#include "desktop/shell/work_line.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

#include "desktop/desk/desk.h"
#include "desktop/theme/theme.h"

namespace sunbreak::desktop {

QString stage_name(Stage stage) {
  switch (stage) {
    case Stage::Rig:
      return WorkLine::tr("Rig");
    case Stage::WarmUp:
      return WorkLine::tr("Warm-up");
    case Stage::Walk:
      return WorkLine::tr("Walk");
    case Stage::Read:
      return WorkLine::tr("Read");
    case Stage::Settle:
      return WorkLine::tr("Settle");
    case Stage::Audit:
      return WorkLine::tr("Audit");
    case Stage::LineUp:
      return WorkLine::tr("Line-up");
    case Stage::Publish:
      return WorkLine::tr("Publish");
  }
  return {};
}

QString mark_words(StageMark mark) {
  switch (mark) {
    case StageMark::ToCome:
      return WorkLine::tr("not ready yet");
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

std::array<StageMark, stage_count> stage_marks(const Desk& desk) {
  std::array<StageMark, stage_count> marks;
  marks.fill(StageMark::ToCome);
  auto& rig = marks[static_cast<int>(Stage::Rig)];
  auto& walk = marks[static_cast<int>(Stage::Walk)];
  auto& read = marks[static_cast<int>(Stage::Read)];
  auto& publish = marks[static_cast<int>(Stage::Publish)];
  auto& warm_up = marks[static_cast<int>(Stage::WarmUp)];
  rig = warm_up = walk = read = publish = StageMark::Untouched;
  const record::TestRecord* test = desk.test();
  if (!test) return marks;
  rig = test->fixture.name == "New fixture" || test->rungs.empty() || test->stops.empty() || !test->test.sensor_id
            ? StageMark::Begun
            : StageMark::Done;
  // How far it settled is for the page itself: here, that there is a log or a stair is told.
  if (!test->log_parts.empty() || !test->wall_readings.empty() || !test->lamp_events.empty() ||
      !test->stair_stops.empty())
    warm_up = test->stair_stops.empty() || (test->log_parts.empty() && test->wall_readings.empty()) ? StageMark::Begun
                                                                                                    : StageMark::Done;
  const std::size_t planned = test->rungs.size() * test->stops.size();
  std::size_t begun = 0, complete = 0, holes = 0;
  for (const record::Sweep& sweep : test->sweeps) {
    const evaluation::SweepDigest* digest = desk.digest_of(sweep.id);
    if (!digest) continue;
    begun += digest->read > 0;
    complete += digest->complete;
    holes += digest->missing > 0;
  }
  const auto open = std::count_if(desk.worked_out().all_checks().begin(), desk.worked_out().all_checks().end(),
                                  [](const evaluation::TestCheck& c) { return !c.set_aside; });
  if (begun > 0) {
    walk = complete < planned ? StageMark::Begun : holes > 0 || open > 0 ? StageMark::NeedsLook : StageMark::Done;
    read = complete < planned ? StageMark::Begun : StageMark::Done;
    publish = StageMark::Begun;
  }
  return marks;
}

WorkLine::WorkLine(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setFocusPolicy(Qt::TabFocus);
  setMouseTracking(true);
  setFixedHeight(52);
  setAccessibleName(tr("Work line: the stages of the test"));
  connect(&desk, &Desk::changed, this, qOverload<>(&QWidget::update));
}

void WorkLine::set_stage(std::optional<Stage> stage) {
  stage_ = stage;
  if (stage) focused_ = static_cast<int>(*stage);
  setAccessibleDescription(stage ? tr("%1 is open").arg(stage_name(*stage)) : tr("The lab book is open"));
  update();
}

QRectF WorkLine::cell(int index) const {
  return {index * width() / double(stage_count), 0, width() / double(stage_count), double(height())};
}

int WorkLine::at(const QPointF& place) const {
  for (int i = 0; i < stage_count; ++i)
    if (cell(i).contains(place)) return i;
  return -1;
}

void WorkLine::paintEvent(QPaintEvent*) {
  const Theme& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto marks = stage_marks(desk_);
  const double line_y = 18;
  p.setPen(QPen(t.rule, 2));
  p.drawLine(QPointF(cell(0).center().x(), line_y), QPointF(cell(stage_count - 1).center().x(), line_y));
  for (int i = 0; i < stage_count; ++i) {
    const QPointF middle(cell(i).center().x(), line_y);
    const bool here = stage_ && static_cast<int>(*stage_) == i;
    const bool off = !desk_.test();
    const QColor color = here ? t.ember : off || marks[i] == StageMark::ToCome ? t.quiet : t.ink;
    p.setBrush(t.panel);
    p.setPen(Qt::NoPen);
    p.drawEllipse(middle, 10, 10);
    p.setPen(QPen(color, here ? 3 : 2, marks[i] == StageMark::ToCome ? Qt::DotLine : Qt::SolidLine));
    switch (marks[i]) {
      case StageMark::ToCome:
        p.drawEllipse(middle, 5, 5);
        break;
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
    p.drawText(QRectF(cell(i).left(), 29, cell(i).width(), 18), Qt::AlignCenter, stage_name(static_cast<Stage>(i)));
    if (hasFocus() && i == focused_) {
      p.setBrush(Qt::NoBrush);
      p.setPen(QPen(t.ember, 1));
      p.drawRect(cell(i).adjusted(4, 3, -4, -3));
    }
  }
}

void WorkLine::mousePressEvent(QMouseEvent* event) {
  if (const int i = at(event->position()); i >= 0) emit chosen(static_cast<Stage>(i));
}

void WorkLine::mouseMoveEvent(QMouseEvent* event) {
  const int i = at(event->position());
  setCursor(i >= 0 ? Qt::PointingHandCursor : Qt::ArrowCursor);
  if (i >= 0)
    setToolTip(
        tr("%1 (Alt+%2): %3").arg(stage_name(static_cast<Stage>(i))).arg(i + 1).arg(mark_words(stage_marks(desk_)[i])));
}

void WorkLine::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Left)
    focused_ = std::max(0, focused_ - 1);
  else if (event->key() == Qt::Key_Right)
    focused_ = std::min(stage_count - 1, focused_ + 1);
  else if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space)
    emit chosen(static_cast<Stage>(focused_));
  else
    return QWidget::keyPressEvent(event);
  setAccessibleDescription(stage_name(static_cast<Stage>(focused_)));
  update();
}

}  // namespace sunbreak::desktop
