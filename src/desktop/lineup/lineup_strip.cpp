#include "desktop/lineup/lineup_strip.h"

#include <fmt/format.h>

#include <QKeyEvent>
#include <QPainter>
#include <QScrollBar>
#include <algorithm>
#include <cmath>

#include "desktop/paint/painter_canvas.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

using evaluation::LineUp;

constexpr int member_px = 40, strip_words_px = 54, axis_px = 22, edge_px = 12, strip_gap_px = 10, lane_px = 8,
              most_lanes = 3;
constexpr int rank_px = 80, value_px = 112;
/// Of what rank, brackets and value leave, the name has so much, the axis the rest; of little more.
double name_share(double width_px) { return width_px < 300 ? 0.64 : 0.52; }

QString elided_to(const QPainter& p, const QString& text, double width) {
  return p.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(width));
}

}  // namespace

QString member_name(const evaluation::Entrant& e) {
  return e.guest.empty() ? text_of(e.title) : LineUpStrip::tr("%1 (%2)").arg(text_of(e.title), text_of(e.tester));
}

LineUpStrip::LineUpStrip(Desk& desk, QWidget* parent) : QAbstractScrollArea(parent), desk_(desk) {
  setObjectName("lineupStrip");
  setAccessibleName(tr("Line-up"));
  setFocusPolicy(Qt::StrongFocus);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  verticalScrollBar()->setSingleStep(member_px / 2);
  setMinimumHeight(4 * member_px);
}

void LineUpStrip::set_stopped(bool stopped) {
  stopped_ = stopped;
  viewport()->update();
}

void LineUpStrip::show_lineup(std::shared_ptr<const ShownLineUp> shown) {
  const auto key_of = [&](int member) {
    return shown_ && shown_->lineup && member >= 0
               ? lineup_key(shown_->lineup->members()[static_cast<std::size_t>(member)].entrant)
               : std::string();
  };
  const std::string chosen_key = key_of(chosen()), second_key = key_of(second_);
  shown_ = std::move(shown);
  second_ = -1, row_ = -1;
  lay_out();
  std::string own;
  if (desk_.test()) own = fmt::format("{}/{}", desk_.shown().first, desk_.shown().second);
  int fallback = -1;
  for (std::size_t r = 0; r < rows_.size(); ++r) {
    const int member = rows_[r].member;
    if (member < 0) continue;
    const std::string key = lineup_key(shown_->lineup->members()[static_cast<std::size_t>(member)].entrant);
    if (key == chosen_key && !key.empty()) row_ = static_cast<int>(r);
    if (key == second_key && !key.empty()) second_ = member;
    if (fallback < 0 || key == own) fallback = static_cast<int>(r);
  }
  if (row_ < 0) row_ = fallback;
  fit_scroll();
  keep_in_sight();
  tell();
  viewport()->update();
}

void LineUpStrip::lay_out() {
  rows_.clear(), brackets_.clear();
  if (!shown_ || !shown_->lineup) return;
  const LineUp& lineup = *shown_->lineup;
  int top = 0;
  const auto add = [&](Row row) {
    row.top = top;
    top += row.height;
    rows_.push_back(std::move(row));
  };
  std::vector<double> values, expanded;
  for (const evaluation::LineUpBlock& block : lineup.blocks()) {
    const std::vector<int>& group = block.members;
    if (!block.heading.empty()) {
      QStringList ways;
      for (const Unlike& u : lineup.why_not(lineup.groups().front().front(), group.front()))
        if (!u.switches.empty()) ways << way_told(u.switches.front(), desk_.units());
      QString words = text_of(block.heading);
      if (!ways.isEmpty()) words += tr("  U: %1").arg(ways.join(" + "));
      add({-1, words, 0, strip_words_px});
    }
    const int first = static_cast<int>(rows_.size());
    for (const int m : group) {
      add({m, {}, 0, member_px});
      const Standing& s = lineup.ranking().standings()[static_cast<std::size_t>(m)];
      values.push_back(s.value), expanded.push_back(s.expanded());
    }
    int lane = 0, lane_end = -1;
    for (const auto& [from, to] : lineup.ranking().tie_brackets(group)) {
      // Brackets that overlap stand beside each other.
      lane = from <= lane_end ? (lane + 1) % most_lanes : 0;
      lane_end = to;
      brackets_.push_back({first + from, first + to, lane});
    }
  }
  bool any_none = false;
  for (int m = 0; m < std::ssize(lineup.members()); ++m)
    if (const std::string why = lineup.why_none(m); !why.empty()) {
      if (!any_none) add({-1, tr("Without a value in this way:"), 0, strip_words_px});
      any_none = true;
      add({m, text_of(why), 0, member_px});
    }
  axis_ = drawing::interval_axis(values, expanded);
}

int LineUpStrip::chosen() const {
  return row_ >= 0 && row_ < std::ssize(rows_) ? rows_[static_cast<std::size_t>(row_)].member : -1;
}

std::vector<int> LineUpStrip::in_order() const {
  std::vector<int> order;
  for (const Row& row : rows_)
    if (row.member >= 0) order.push_back(row.member);
  return order;
}

void LineUpStrip::choose(int member) {
  for (std::size_t r = 0; r < rows_.size(); ++r)
    if (rows_[r].member == member) row_ = static_cast<int>(r);
  if (row_ < 0 || row_ >= std::ssize(rows_)) return;
  keep_in_sight();
  tell();
  viewport()->update();
  emit moved();
}

void LineUpStrip::keep_in_sight() {
  if (row_ < 0 || row_ >= std::ssize(rows_)) return;
  const Row& row = rows_[static_cast<std::size_t>(row_)];
  const int room = viewport()->height() - axis_px, seen = verticalScrollBar()->value();
  if (row.top < seen) verticalScrollBar()->setValue(row.top);
  if (row.top + row.height > seen + room) verticalScrollBar()->setValue(row.top + row.height - room);
}

void LineUpStrip::choose_second(int member) {
  second_ = second_ == member ? -1 : member;
  tell();
  viewport()->update();
  emit moved();
}

void LineUpStrip::step(int by) {
  const std::vector<int> order = in_order();
  if (order.empty()) return;
  const auto at = std::ranges::find(order, chosen());
  const std::ptrdiff_t place = at == order.end() ? 0 : at - order.begin();
  choose(order[static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(place + by, 0, std::ssize(order) - 1))]);
}

void LineUpStrip::tell() {
  const int m = chosen();
  if (m < 0) return setAccessibleDescription(tr("Nobody is in the line-up."));
  const LineUp& lineup = *shown_->lineup;
  const auto i = static_cast<std::size_t>(m);
  const Standing& s = lineup.ranking().standings()[i];
  setAccessibleDescription(tr("%1: %2, rank %3")
                               .arg(member_name(lineup.members()[i].entrant),
                                    text_of(evaluation::shown_with_uncertainty(lineup.figure(), s.value, s.expanded(),
                                                                               desk_.units(), lineup.terms().currency)),
                                    text_of(LineUp::rank_words(lineup.ranking().rank(m)))));
}

void LineUpStrip::fit_scroll() {
  const int whole = rows_.empty() ? 0 : rows_.back().top + rows_.back().height, room = viewport()->height() - axis_px;
  verticalScrollBar()->setRange(0, std::max(0, whole - room));
  verticalScrollBar()->setPageStep(std::max(1, room));
}

void LineUpStrip::resizeEvent(QResizeEvent* event) {
  QAbstractScrollArea::resizeEvent(event);
  fit_scroll();
  keep_in_sight();
}

void LineUpStrip::paintEvent(QPaintEvent*) {
  QPainter p(viewport());
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = theme();
  p.fillRect(viewport()->rect(), t.panel);
  if (rows_.empty()) {
    p.setPen(t.quiet);
    p.setFont(text_font(13));
    p.drawText(viewport()->rect().adjusted(edge_px, edge_px, -edge_px, -edge_px), Qt::AlignCenter | Qt::TextWordWrap,
               !shown_            ? (stopped_ ? tr("Nothing was lined up yet.") : tr("Reading what is on record…"))
               : shown_->problem  ? text_of(shown_->problem->sentence())
               : shown_->all == 0 ? tr("No test is on record yet.")
                                  : tr("The filter lets no test through."));
    return;
  }
  const double wide = viewport()->width() - 2 * edge_px - 3 * strip_gap_px - rank_px - value_px - most_lanes * lane_px;
  const QRectF axis_room(edge_px + rank_px + strip_gap_px + name_share(wide) * wide + strip_gap_px, 0,
                         (1 - name_share(wide)) * wide, viewport()->height() - axis_px);
  const int from = verticalScrollBar()->value();
  PainterCanvas canvas(p);
  p.save();
  p.setClipRect(QRectF(0, 0, viewport()->width(), axis_room.height()));
  for (const Row& row : rows_) {
    if (row.top + row.height < from || row.top - from > axis_room.height()) continue;
    paint_row(p, row, QRectF(0, row.top - from, viewport()->width(), row.height), axis_room);
  }
  for (const Bracket& b : brackets_) {
    const Row &first = rows_[static_cast<std::size_t>(b.first)], &last = rows_[static_cast<std::size_t>(b.last)];
    if (last.top + last.height < from || first.top - from > axis_room.height()) continue;
    drawing::draw_tie_bracket(canvas, axis_room.right() + 8 + b.lane * lane_px, first.top - from + 8,
                              last.top + last.height - from - 8);
  }
  p.restore();
  const double per = evaluation::shown_per_stored(shown_->lineup->figure(), desk_.units());
  p.setPen(QPen(t.rule, 1));
  p.drawLine(QPointF(0, axis_room.bottom()), QPointF(viewport()->width(), axis_room.bottom()));
  drawing::draw_interval_labels(canvas, {axis_room.left(), axis_room.bottom() + 3, axis_room.width(), 15},
                                {axis_room.left(), 0, axis_room.width(), 0}, axis_, per);
  const std::string unit =
      evaluation::shown_unit(shown_->lineup->figure(), desk_.units(), shown_->lineup->terms().currency);
  p.setFont(text_font(11));
  p.setPen(t.quiet);
  p.drawText(QRectF(axis_room.right() + 40, axis_room.bottom(), 160, axis_px), Qt::AlignVCenter | Qt::AlignLeft,
             text_of(unit));
}

void LineUpStrip::paint_row(QPainter& p, const Row& row, const QRectF& room, const QRectF& axis_room) const {
  const Theme& t = theme();
  if (row.member < 0) {
    p.fillRect(room, t.ground);
    p.setFont(text_font(12));
    p.setPen(t.quiet);
    p.drawText(room.adjusted(edge_px, 0, -edge_px, 0), Qt::AlignVCenter | Qt::AlignLeft | Qt::TextWordWrap, row.words);
    return;
  }
  const LineUp& lineup = *shown_->lineup;
  const auto i = static_cast<std::size_t>(row.member);
  const evaluation::Entrant& e = lineup.members()[i].entrant;
  const bool is_chosen = row.member == chosen(), is_second = row.member == second_;
  if (is_chosen || is_second) {
    p.fillRect(room, t.ground);
    p.fillRect(QRectF(room.left(), room.top(), is_chosen && hasFocus() ? 4 : 2, room.height()),
               is_chosen ? t.ember : t.lake);
  }
  p.setPen(QPen(t.rule, 1));
  p.drawLine(room.bottomLeft(), room.bottomRight());
  const auto line = [&](double x, double y, double width, const QString& text, const QFont& font, const QColor& color,
                        Qt::Alignment align = Qt::AlignLeft) {
    p.setFont(font);
    p.setPen(color);
    p.drawText(QRectF(x, y, width, 19), align | Qt::AlignVCenter, elided_to(p, text, width));
  };
  const double name_left = edge_px + rank_px + strip_gap_px, name_px = axis_room.left() - strip_gap_px - name_left;
  line(edge_px, room.top() + 10, rank_px, text_of(LineUp::rank_words(lineup.ranking().rank(row.member))),
       text_font(13, true), t.ink, Qt::AlignRight);
  // A title that begins with its fixture's name is told in two lines.
  const bool parted = !e.fixture.empty() && e.title.starts_with(e.fixture);
  line(name_left, room.top() + 2, name_px, text_of(parted ? e.fixture : e.title), text_font(13, true), t.ink);
  QStringList beside;
  if (QString rest = parted ? text_of(e.title.substr(e.fixture.size())) : QString(); !rest.isEmpty()) {
    while (!rest.isEmpty() && (rest.front().isSpace() || rest.front() == ',' || rest.front() == QChar(0xB7)))
      rest.remove(0, 1);
    if (!rest.isEmpty()) beside << rest;
  }
  if (!e.guest.empty()) beside << tr("guest");
  for (const std::string& word : {e.tester, e.tested_on, e.bench})
    if (!word.empty()) beside << text_of(word);
  const auto& dominated = lineup.dominated()[i];
  if (!dominated.empty())
    beside.prepend(tr("dominated by %1")
                       .arg(text_of(lineup.members()[static_cast<std::size_t>(dominated.front())].entrant.fixture)));
  const Standing& s = lineup.ranking().standings()[i];
  const drawing::Box bar_room{axis_room.left(), room.top(), axis_room.width(), room.height()};
  // The second line may go on to where the row's bar begins.
  const double bar_left = axis_.x(bar_room, s.value - s.expanded());
  const double beside_px = std::isfinite(bar_left) ? std::max(name_px, bar_left - strip_gap_px - name_left) : name_px;
  line(name_left, room.top() + 20, beside_px, beside.join(", "), text_font(11),
       dominated.empty() ? t.quiet : t.attention);
  if (!row.words.isEmpty())
    return line(axis_room.left(), room.top() + 10, room.right() - edge_px - axis_room.left(), row.words, text_font(12),
                t.quiet);
  PainterCanvas canvas(p);
  drawing::draw_interval(canvas, bar_room, axis_, s.value, s.expanded(),
                         is_chosen   ? drawing::BarRole::Chosen
                         : is_second ? drawing::BarRole::Second
                                     : drawing::BarRole::Plain);
  const double value_left = axis_room.right() + 8 + most_lanes * lane_px;
  // The unit stands on the axis.
  const QString value = text_of(evaluation::shown_told(lineup.figure(), s.value, s.expanded(), desk_.units()).text());
  line(value_left, room.top() + 10, room.right() - edge_px - value_left, value, text_font(13), t.ink, Qt::AlignRight);
}

int LineUpStrip::row_at(int y) const {
  const int at = y + verticalScrollBar()->value();
  for (std::size_t r = 0; r < rows_.size(); ++r)
    if (rows_[r].member >= 0 && at >= rows_[r].top && at < rows_[r].top + rows_[r].height) return static_cast<int>(r);
  return -1;
}

void LineUpStrip::keyPressEvent(QKeyEvent* event) {
  const int page = std::max(1, viewport()->height() / member_px - 1);
  switch (event->modifiers() == Qt::NoModifier || event->modifiers() == Qt::KeypadModifier ? event->key() : 0) {
    case Qt::Key_Down:
      return step(1);
    case Qt::Key_Up:
      return step(-1);
    case Qt::Key_Home:
      return step(-static_cast<int>(rows_.size()));
    case Qt::Key_End:
      return step(static_cast<int>(rows_.size()));
    case Qt::Key_PageDown:
      return step(page);
    case Qt::Key_PageUp:
      return step(-page);
    case Qt::Key_Space:
      return choose_second(chosen());
    case Qt::Key_Return:
    case Qt::Key_Enter:
      return emit opened();
    default:
      return QAbstractScrollArea::keyPressEvent(event);
  }
}

void LineUpStrip::mousePressEvent(QMouseEvent* event) {
  if (const int row = row_at(static_cast<int>(event->position().y())); row >= 0) {
    const int member = rows_[static_cast<std::size_t>(row)].member;
    if (event->modifiers() & Qt::ControlModifier)
      choose_second(member);
    else
      choose(member);
  }
}

void LineUpStrip::mouseDoubleClickEvent(QMouseEvent* event) {
  mousePressEvent(event);
  if (chosen() >= 0) emit opened();
}

void LineUpStrip::focusInEvent(QFocusEvent* event) {
  QAbstractScrollArea::focusInEvent(event);
  viewport()->update();
}

void LineUpStrip::focusOutEvent(QFocusEvent* event) {
  QAbstractScrollArea::focusOutEvent(event);
  viewport()->update();
}

}  // namespace sunbreak::desktop
