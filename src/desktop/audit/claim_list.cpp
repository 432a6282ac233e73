#include "desktop/audit/claim_list.h"

#include <QKeyEvent>
#include <QPainter>
#include <QScrollBar>
#include <algorithm>

#include "desktop/paint/painter_canvas.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"
#include "drawing/claim_axis.h"

namespace sunbreak::desktop {
namespace {

constexpr int claim_row_px = 66, claim_side_px = 12, claim_gap_px = 16, claim_mark_px = 18;
/// What is claimed has at most so much of the width, the axis at least and at most so much of what it leaves.
constexpr double claimed_share = 0.40, axis_least = 0.38, axis_most = 0.48;

QFont label_font() { return text_font(12); }
QFont claimed_font() { return text_font(14, true); }
QFont beside_font() { return text_font(11); }
QFont verdict_font() { return text_font(14, true); }
QFont measured_font() { return text_font(12); }

QString beside_words(const evaluation::AuditedClaim& a) {
  QStringList beside;
  if (!a.claim.source.empty()) beside << text_of(a.claim.source);
  if (!a.claim.stated_on.empty()) beside << text_of(a.claim.stated_on);
  return beside.join(", ");
}

/// What was measured, or what would make the claim testable.
QString measured_words(const evaluation::AuditedClaim& a) {
  return a.measured_words.empty() ? text_of(a.lifts) : text_of(a.measured_words);
}

QString elided(const QPainter& p, const QString& text, double width) {
  return p.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(width));
}

}  // namespace

QColor verdict_color(Verdict verdict) {
  const Theme& t = theme();
  switch (verdict) {
    case Verdict::Confirmed:
      return t.good;
    case Verdict::Short:
    case Verdict::Over:
    case Verdict::Contradicted:
      return t.attention;
    default:
      return t.quiet;
  }
}

void paint_verdict_mark(QPainter& p, const QPointF& c, Verdict verdict) {
  const QColor color = verdict_color(verdict);
  p.save();
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(QPen(color, 1.8));
  p.setBrush(Qt::NoBrush);
  switch (verdict) {
    case Verdict::Confirmed:
      p.setBrush(color);
      p.drawEllipse(c, 4.5, 4.5);
      break;
    case Verdict::NotToldApart:
      p.drawEllipse(c, 4.5, 4.5);
      break;
    case Verdict::Short:
      p.setBrush(color);
      p.drawPolygon(QPolygonF({c + QPointF(-5, -4), c + QPointF(5, -4), c + QPointF(0, 5)}));
      break;
    case Verdict::Over:
      p.setBrush(color);
      p.drawPolygon(QPolygonF({c + QPointF(-5, 4), c + QPointF(5, 4), c + QPointF(0, -5)}));
      break;
    case Verdict::Contradicted:
      p.setBrush(color);
      p.drawRect(QRectF(c - QPointF(4, 4), QSizeF(8, 8)));
      break;
    case Verdict::NotTestable:
      p.drawLine(c - QPointF(5, 0), c + QPointF(5, 0));
      break;
  }
  p.restore();
}

ClaimList::ClaimList(QWidget* parent) : QAbstractScrollArea(parent) {
  setObjectName("claimList");
  setAccessibleName(tr("Claims"));
  setFocusPolicy(Qt::StrongFocus);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  verticalScrollBar()->setSingleStep(claim_row_px / 3);
  setMinimumHeight(2 * claim_row_px);
}

void ClaimList::show_audit(std::shared_ptr<const evaluation::Audit> audit) {
  const std::string slot = chosen() ? chosen()->slot : std::string();
  audit_ = std::move(audit);
  row_ = std::clamp(row_, 0, std::max(0, count() - 1));
  for (int i = 0; i < count(); ++i)
    if (audit_->claims[static_cast<std::size_t>(i)].slot == slot) row_ = i;
  measure_words();
  fit_scroll();
  tell();
  viewport()->update();
}

void ClaimList::measure_words() {
  widest_claimed_px_ = widest_verdict_px_ = 0;
  const auto widen = [](double& widest, const QFont& font, const QString& text) {
    widest = std::max(widest, QFontMetricsF(font).horizontalAdvance(text) + 1);
  };
  for (int i = 0; i < count(); ++i) {
    const evaluation::AuditedClaim& a = audit_->claims[static_cast<std::size_t>(i)];
    widen(widest_claimed_px_, label_font(), text_of(a.label));
    widen(widest_claimed_px_, claimed_font(), text_of(a.claimed_words));
    widen(widest_claimed_px_, beside_font(), beside_words(a));
    widen(widest_verdict_px_, verdict_font(), text_of(verdict_words(a.judgement)));
    widen(widest_verdict_px_, measured_font(), text_of(a.measured_words));
  }
}

ClaimList::Columns ClaimList::columns(double wide) const {
  const double claimed = std::min(claimed_share * wide, widest_claimed_px_), left = wide - claimed;
  const double axis = std::clamp(left - widest_verdict_px_ - claim_mark_px, axis_least * left, axis_most * left);
  return {claimed, axis, left - axis};
}

const evaluation::AuditedClaim* ClaimList::chosen() const {
  return row_ < count() ? &audit_->claims[static_cast<std::size_t>(row_)] : nullptr;
}

void ClaimList::choose(int row) {
  row_ = std::clamp(row, 0, std::max(0, count() - 1));
  const int top = row_ * claim_row_px, seen = verticalScrollBar()->value();
  if (top < seen) verticalScrollBar()->setValue(top);
  if (top + claim_row_px > seen + viewport()->height())
    verticalScrollBar()->setValue(top + claim_row_px - viewport()->height());
  tell();
  viewport()->update();
  emit moved();
}

void ClaimList::tell() {
  const evaluation::AuditedClaim* a = chosen();
  if (!a) return setAccessibleDescription(tr("Nothing is claimed yet."));
  setAccessibleDescription(
      tr("%1, %2: %3").arg(text_of(a->label), text_of(a->claimed_words), text_of(verdict_words(a->judgement))) +
      (a->measured_words.empty() ? QString() : tr(", measured %1").arg(text_of(a->measured_words))));
}

void ClaimList::fit_scroll() {
  const int whole = count() * claim_row_px;
  verticalScrollBar()->setRange(0, std::max(0, whole - viewport()->height()));
  verticalScrollBar()->setPageStep(viewport()->height());
}

void ClaimList::resizeEvent(QResizeEvent* event) {
  QAbstractScrollArea::resizeEvent(event);
  fit_scroll();
}

void ClaimList::paintEvent(QPaintEvent*) {
  QPainter p(viewport());
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(viewport()->rect(), theme().panel);
  if (count() == 0) {
    p.setPen(theme().quiet);
    p.setFont(text_font(13));
    p.drawText(viewport()->rect().adjusted(claim_side_px, claim_side_px, -claim_side_px, -claim_side_px),
               Qt::AlignCenter | Qt::TextWordWrap,
               audit_ ? tr("Nothing is claimed of this fixture yet. Type what its box says into the line above, as it "
                           "stands there.")
                      : tr("Holding the claims against the measurements…"));
    return;
  }
  const int from = verticalScrollBar()->value();
  for (int i = from / claim_row_px; i < count() && i * claim_row_px - from < viewport()->height(); ++i)
    paint_row(p, audit_->claims[static_cast<std::size_t>(i)],
              QRectF(0, i * claim_row_px - from, viewport()->width(), claim_row_px), i == row_);
}

void ClaimList::paint_row(QPainter& p, const evaluation::AuditedClaim& a, const QRectF& room, bool chosen) const {
  const Theme& t = theme();
  if (chosen) {
    p.fillRect(room, t.ground);
    p.fillRect(QRectF(room.left(), room.top(), hasFocus() ? 4 : 2, room.height()), t.ember);
  }
  p.setPen(QPen(t.rule, 1));
  p.drawLine(room.bottomLeft(), room.bottomRight());
  const auto [claimed_px, axis_px, verdict_px] = columns(room.width() - 2 * claim_side_px - 2 * claim_gap_px);
  const double left = room.left() + claim_side_px;
  const auto line = [&](double x, double y, double width, const QString& text, const QFont& font, const QColor& color,
                        Qt::Alignment align = Qt::AlignLeft) {
    p.setFont(font);
    p.setPen(color);
    p.drawText(QRectF(x, y, width, 19), align | Qt::AlignVCenter, elided(p, text, width));
  };
  line(left, room.top() + 5, claimed_px, text_of(a.label), label_font(), t.quiet);
  line(left, room.top() + 23, claimed_px, text_of(a.claimed_words), claimed_font(), t.ink);
  line(left, room.top() + 42, claimed_px, beside_words(a), beside_font(), t.quiet);
  const double axis_left = left + claimed_px + claim_gap_px;
  if (!std::isnan(a.claimed) || !std::isnan(a.measured)) {
    PainterCanvas canvas(p);
    draw_claim_axis(canvas, {axis_left, room.top() + 10, axis_px, room.height() - 20},
                    {a.claimed, a.claimed_to, a.measured, a.measured_to, a.expanded});
  }
  const double right = axis_left + axis_px + claim_gap_px;
  paint_verdict_mark(p, {right + 6, room.top() + 23}, a.judgement.verdict);
  line(right + claim_mark_px, room.top() + 13, verdict_px - claim_mark_px, text_of(verdict_words(a.judgement)),
       verdict_font(), verdict_color(a.judgement.verdict));
  line(right + claim_mark_px, room.top() + 33, verdict_px - claim_mark_px, measured_words(a), measured_font(), t.quiet);
}

void ClaimList::keyPressEvent(QKeyEvent* event) {
  const int page = std::max(1, viewport()->height() / claim_row_px - 1);
  switch (event->modifiers() == Qt::NoModifier || event->modifiers() == Qt::KeypadModifier ? event->key() : 0) {
    case Qt::Key_Down:
      return choose(row_ + 1);
    case Qt::Key_Up:
      return choose(row_ - 1);
    case Qt::Key_Home:
      return choose(0);
    case Qt::Key_End:
      return choose(count() - 1);
    case Qt::Key_PageDown:
      return choose(row_ + page);
    case Qt::Key_PageUp:
      return choose(row_ - page);
    case Qt::Key_Return:
    case Qt::Key_Enter:
      return emit wants_edit();
    default:
      return QAbstractScrollArea::keyPressEvent(event);
  }
}

void ClaimList::mousePressEvent(QMouseEvent* event) {
  const int row = static_cast<int>(event->position().y() + verticalScrollBar()->value()) / claim_row_px;
  if (row < count()) choose(row);
}

void ClaimList::mouseDoubleClickEvent(QMouseEvent* event) {
  mousePressEvent(event);
  if (chosen()) emit wants_edit();
}

void ClaimList::focusInEvent(QFocusEvent* event) {
  QAbstractScrollArea::focusInEvent(event);
  viewport()->update();
}

void ClaimList::focusOutEvent(QFocusEvent* event) {
  QAbstractScrollArea::focusOutEvent(event);
  viewport()->update();
}

}  // namespace sunbreak::desktop
