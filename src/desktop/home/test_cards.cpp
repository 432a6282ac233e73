#include "desktop/home/test_cards.h"

#include <QKeyEvent>
#include <QPainter>
#include <QStyle>
#include <QStyledItemDelegate>
#include <algorithm>
#include <map>

#include "book/test_rows.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

constexpr QSize card_size(232, 252);
enum CardRole {
  TestIdRole = Qt::UserRole,
  FixtureRole,
  WhereAndWhenRole,
  StateRole,
  ThumbnailRole,
  GradeRole,
  InsteadOfPictureRole,
  EvennessRole
};

class CardDelegate : public QStyledItemDelegate {
 public:
  using QStyledItemDelegate::QStyledItemDelegate;
  QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return card_size; }
  void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const Theme& t = theme();
    const QRectF card = QRectF(option.rect).adjusted(4, 4, -12, -12);
    p->save();
    p->setRenderHint(QPainter::Antialiasing);
    p->fillRect(card, t.panel);
    const bool selected = option.state & QStyle::State_Selected;
    const bool focused = option.widget && option.widget->hasFocus();
    p->setPen(QPen(!selected ? t.rule : focused ? t.ember : t.quiet, selected ? 2 : 1));
    p->drawRect(card);
    const QRectF picture(card.left() + 12, card.top() + 12, card.width() - 24, 118);
    p->fillRect(picture, t.ground);
    const auto thumbnail = index.data(ThumbnailRole).value<QPixmap>();
    if (thumbnail.isNull()) {
      p->setPen(t.quiet);
      p->setFont(text_font(12));
      p->drawText(picture, Qt::AlignCenter, index.data(InsteadOfPictureRole).toString());
    } else {
      const QSizeF size = thumbnail.deviceIndependentSize();
      p->drawPixmap(QPointF(picture.center().x() - size.width() / 2, picture.center().y() - size.height() / 2),
                    thumbnail);
    }
    if (const QString grade = index.data(GradeRole).toString(); !grade.isEmpty()) {
      p->setFont(text_font(11, true));
      const QRectF tag(picture.right() - p->fontMetrics().horizontalAdvance(grade) - 12, picture.top(),
                       p->fontMetrics().horizontalAdvance(grade) + 12, 18);
      p->fillRect(tag, t.panel);
      p->setPen(t.ink);
      p->drawText(tag, Qt::AlignCenter, grade);
    }
    const auto line = [&](double y, int pixels, bool bold, const QColor& color, const QString& text) {
      p->setFont(text_font(pixels, bold));
      p->setPen(color);
      const QRectF box(picture.left(), card.top() + y, picture.width(), 18);
      p->drawText(box, Qt::AlignLeft | Qt::AlignVCenter,
                  QFontMetrics(p->font()).elidedText(text, Qt::ElideRight, static_cast<int>(box.width())));
    };
    line(138, 14, true, t.ink, index.data(FixtureRole).toString());
    line(158, 12, false, t.quiet, index.data(WhereAndWhenRole).toString());
    line(184, 12, false, t.ink, index.data(StateRole).toString());
    line(204, 12, false, t.quiet, index.data(EvennessRole).toString());
    p->restore();
  }
};

QString state_words(const TestSummary& s) {
  if (s.apart > 0) return TestCards::tr("◣ %1 set apart · %2 of %3 sweeps").arg(s.apart).arg(s.complete).arg(s.planned);
  if (s.read == 0)
    return TestCards::tr("○ planned: %1")
        .arg(counted(static_cast<qsizetype>(s.planned), TestCards::tr("sweep"), TestCards::tr("sweeps")));
  return TestCards::tr("%1 %2 of %3 sweeps · %4 read")
      .arg(s.complete == s.planned ? QStringLiteral("●") : QStringLiteral("◐"))
      .arg(s.complete)
      .arg(s.planned)
      .arg(s.read);
}

}  // namespace

TestCards::TestCards(Desk& desk, QWidget* parent) : QListWidget(parent), desk_(desk), summaries_(desk) {
  setProperty("showsFocus", true);
  setViewMode(QListView::IconMode);
  setResizeMode(QListView::Adjust);
  setMovement(QListView::Static);
  setUniformItemSizes(true);
  setSpacing(0);
  setItemDelegate(new CardDelegate(this));
  setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
  setAccessibleName(tr("Tests in the lab book"));
  connect(&summaries_, &TestSummaries::summarized, this, [this](record::Id test_id) {
    for (int i = 0; i < count(); ++i)
      if (item(i)->data(TestIdRole).toLongLong() == test_id) show_summary(item(i));
  });
  connect(this, &QListWidget::itemActivated, this, [this] { emit open(chosen()); });
}

void TestCards::fill(const QString& search) {
  const record::Id before = chosen();
  clear();
  const QStringList words = search.toLower().split(' ', Qt::SkipEmptyParts);
  const book::Book& book = desk_.book();
  std::map<record::Id, record::Fixture> fixtures;
  std::map<record::Id, record::Bench> benches;
  for (record::Fixture& f : book.all<record::Fixture>()) fixtures.emplace(f.id, std::move(f));
  for (record::Bench& b : book.all<record::Bench>()) benches.emplace(b.id, std::move(b));
  std::vector<record::Id> shown;
  for (const record::Test& test : book.all<record::Test>("WHERE removed = 0 ORDER BY id DESC")) {
    record::TestRecord plan;
    plan.test = test;
    plan.fixture = fixtures[test.fixture_id];
    plan.bench = benches[test.bench_id];
    const QString title = text_of(record::title_of(plan)), fixture = text_of(plan.fixture.name),
                  bench = text_of(plan.bench.name), day = text_of(test.tested_on);
    const QString all = QStringList{title, fixture, bench, day, text_of(plan.fixture.maker), text_of(plan.fixture.kind)}
                            .join(' ')
                            .toLower();
    if (!std::all_of(words.begin(), words.end(), [&](const QString& w) { return all.contains(w); })) continue;
    auto* item = new QListWidgetItem(this);
    item->setData(TestIdRole, QVariant::fromValue<qlonglong>(test.id));
    item->setData(FixtureRole, fixture);
    item->setData(WhereAndWhenRole, day.isEmpty() ? bench : tr("%1 · %2").arg(bench, day));
    item->setToolTip(title);
    show_summary(item);
    shown.push_back(test.id);
    if (test.id == before) setCurrentItem(item);
  }
  if (!currentItem() && count() > 0) setCurrentRow(0);
  summaries_.want(shown);
}

bool TestCards::complete() const {
  for (int i = 0; i < count(); ++i)
    if (!summaries_.knows(item(i)->data(TestIdRole).toLongLong())) return false;
  return true;
}

/// Puts on a card what is known of its test.
void TestCards::show_summary(QListWidgetItem* item) {
  const TestSummary* s = summaries_.of(item->data(TestIdRole).toLongLong());
  item->setData(StateRole, s ? state_words(*s) : QString());
  item->setData(ThumbnailRole, s ? QPixmap::fromImage(s->thumbnail) : QPixmap());
  item->setData(InsteadOfPictureRole, !s ? tr("…") : s->apart > 0 ? tr("set apart") : tr("no reading yet"));
  item->setData(EvennessRole, s ? s->evenness : QString());
  const QString grade = s && s->grade ? text_of(name(*s->grade)) : QString();
  item->setData(GradeRole, grade);
  QStringList spoken{item->data(FixtureRole).toString(), item->data(WhereAndWhenRole).toString(),
                     item->data(StateRole).toString()};
  if (s && !s->evenness.isEmpty()) spoken << s->evenness;
  if (!grade.isEmpty()) spoken << tr("evidence: %1").arg(grade);
  item->setData(Qt::AccessibleTextRole, spoken.join(", "));
}

std::optional<record::Id> TestCards::only() const {
  if (count() != 1) return {};
  return item(0)->data(TestIdRole).toLongLong();
}

record::Id TestCards::chosen() const { return currentItem() ? currentItem()->data(TestIdRole).toLongLong() : 0; }

void TestCards::keyPressEvent(QKeyEvent* event) {
  if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) && chosen()) return emit open(chosen());
  QListWidget::keyPressEvent(event);
}

}  // namespace sunbreak::desktop
