#include "desktop/home/test_cards.h"

#include <QKeyEvent>
#include <QPainter>
#include <QStyledItemDelegate>
#include <cmath>

#include "book/test_rows.h"
#include "desktop/paint/map_painter.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

constexpr QSize card_size(232, 232);
enum Role { TestIdRole = Qt::UserRole, FixtureRole, BenchRole, StateRole, ThumbnailRole, GradeRole };

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
    p->setPen(QPen(selected ? t.ember : t.rule, selected ? 2 : 1));
    p->drawRect(card);
    const QRectF picture(card.left() + 12, card.top() + 12, card.width() - 24, 118);
    p->fillRect(picture, t.ground);
    const auto thumbnail = index.data(ThumbnailRole).value<QPixmap>();
    if (thumbnail.isNull()) {
      p->setPen(t.quiet);
      p->setFont(text_font(12));
      p->drawText(picture, Qt::AlignCenter, tr("no reading yet"));
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
    line(158, 12, false, t.quiet, index.data(BenchRole).toString());
    line(184, 12, false, t.ink, index.data(StateRole).toString());
    p->restore();
  }
};

QPixmap thumbnail(const record::TestRecord& bundle) {
  std::optional<evaluation::SweepView> fullest;
  double lowest = INFINITY, highest = -INFINITY;
  for (const record::Sweep& sweep : bundle.sweeps) {
    auto view = evaluation::view_sweep(bundle, sweep);
    if (!view || view.value().read() == 0) continue;
    for (const double ppfd : view.value().ppfd)
      if (!std::isnan(ppfd)) lowest = std::min(lowest, ppfd), highest = std::max(highest, ppfd);
    if (!fullest || view.value().read() > fullest->read()) fullest = std::move(view.value());
  }
  if (!fullest) return {};
  const Footprint fp = fullest->layout.footprint;
  const double scale = std::min(180 / fp.width_m, 102 / fp.depth_m);
  QPixmap pixmap(QSize(static_cast<int>(fp.width_m * scale * 2), static_cast<int>(fp.depth_m * scale * 2)));
  pixmap.setDevicePixelRatio(2);
  pixmap.fill(theme().ground);
  QPainter p(&pixmap);
  MapScene scene;
  scene.view = &*fullest;
  scene.bench = &bundle.bench;
  scene.scale.range = report::round_range(lowest, highest);
  scene.numbers = scene.rulers = false;
  paint_map(p, fit_map(QRectF(0, 0, fp.width_m * scale, fp.depth_m * scale), fp, false), scene);
  return pixmap;
}

QString state_words(const record::TestRecord& bundle) {
  const std::size_t planned = bundle.rungs.size() * bundle.stops.size();
  std::size_t complete = 0;
  int read = 0;
  for (const record::Sweep& sweep : bundle.sweeps) {
    const auto view = evaluation::view_sweep(bundle, sweep);
    if (!view) continue;
    read += view.value().read();
    complete += view.value().read() + view.value().missing() == static_cast<int>(view.value().states.size());
  }
  if (read == 0)
    return TestCards::tr("○ planned: %1")
        .arg(counted(static_cast<qsizetype>(planned), TestCards::tr("sweep"), TestCards::tr("sweeps")));
  if (complete == planned) return TestCards::tr("● %1 of %2 sweeps · %3 read").arg(complete).arg(planned).arg(read);
  return TestCards::tr("◐ %1 of %2 sweeps · %3 read").arg(complete).arg(planned).arg(read);
}

}  // namespace

TestCards::TestCards(Desk& desk, QWidget* parent) : QListWidget(parent), desk_(desk) {
  setViewMode(QListView::IconMode);
  setResizeMode(QListView::Adjust);
  setMovement(QListView::Static);
  setUniformItemSizes(true);
  setSpacing(0);
  setItemDelegate(new CardDelegate(this));
  setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
  setAccessibleName(tr("Tests in the lab book"));
  connect(&grades_, &TestGrades::graded, this, &TestCards::show_grades);
  connect(this, &QListWidget::itemActivated, this, [this] { emit open(chosen()); });
}

void TestCards::fill(const QString& search) {
  const record::Id before = chosen();
  clear();
  const QStringList words = search.toLower().split(' ', Qt::SkipEmptyParts);
  std::vector<std::shared_ptr<const record::TestRecord>> shown;
  for (const record::Test& test : desk_.book().all<record::Test>("WHERE removed = 0 ORDER BY id DESC")) {
    auto loaded = book::load_test(desk_.book(), test.id);
    if (!loaded) continue;
    const auto bundle = std::make_shared<const record::TestRecord>(std::move(*loaded));
    const QString title = text_of(record::title_of(*bundle)), fixture = text_of(bundle->fixture.name),
                  bench = text_of(bundle->bench.name);
    const QString all =
        QStringList{title, fixture, bench, text_of(bundle->fixture.maker), text_of(bundle->fixture.kind)}
            .join(' ')
            .toLower();
    if (!std::all_of(words.begin(), words.end(), [&](const QString& w) { return all.contains(w); })) continue;
    auto* item = new QListWidgetItem(this);
    item->setData(TestIdRole, QVariant::fromValue<qlonglong>(test.id));
    item->setData(FixtureRole, fixture);
    item->setData(BenchRole, bench);
    item->setData(StateRole, state_words(*bundle));
    item->setData(ThumbnailRole, thumbnail(*bundle));
    item->setToolTip(title);
    shown.push_back(bundle);
    if (test.id == before) setCurrentItem(item);
  }
  if (!currentItem() && count() > 0) setCurrentRow(0);
  grades_.ask(desk_.book().revision(), std::move(shown));
  show_grades();
}

bool TestCards::graded() const {
  for (int i = 0; i < count(); ++i)
    if (!grades_.knows(item(i)->data(TestIdRole).toLongLong())) return false;
  return true;
}

void TestCards::show_grades() {
  for (int i = 0; i < count(); ++i) {
    const auto grade = grades_.of(item(i)->data(TestIdRole).toLongLong());
    const QString words = grade ? QString::fromUtf8(name(*grade).data()) : QString();
    item(i)->setData(GradeRole, words);
    QStringList spoken{item(i)->data(FixtureRole).toString(), item(i)->data(BenchRole).toString(),
                       item(i)->data(StateRole).toString()};
    if (grade) spoken << tr("evidence: %1").arg(words);
    item(i)->setData(Qt::AccessibleTextRole, spoken.join(", "));
  }
}

record::Id TestCards::chosen() const { return currentItem() ? currentItem()->data(TestIdRole).toLongLong() : 0; }

void TestCards::keyPressEvent(QKeyEvent* event) {
  if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) && chosen()) return emit open(chosen());
  QListWidget::keyPressEvent(event);
}

}  // namespace sunbreak::desktop
