#include "desktop/pictures/picture_strip.h"

#include <QDragEnterEvent>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QListWidget>
#include <QMimeData>
#include <QPushButton>
#include <QUrl>
#include <QVBoxLayout>

#include "desktop/pictures/attach_dialog.h"
#include "desktop/pictures/picture_dialog.h"
#include "desktop/pictures/picture_image.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

constexpr int small_px = 168, icon_height = 112, cell_width = 184, cell_height = 156;

}  // namespace

PictureStrip::PictureStrip(Desk& desk, const PictureOf& of, QWidget* parent)
    : QWidget(parent), desk_(desk), of_(of), background_(this) {
  setAcceptDrops(true);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  list_ = new QListWidget(this);
  list_->setObjectName("pictureList");
  list_->setViewMode(QListView::IconMode);
  list_->setFlow(QListView::LeftToRight);
  list_->setWrapping(true);
  list_->setMovement(QListView::Static);
  list_->setResizeMode(QListView::Adjust);
  list_->setUniformItemSizes(true);
  list_->setIconSize({small_px, icon_height});
  list_->setGridSize({cell_width, cell_height});
  list_->setTextElideMode(Qt::ElideRight);
  list_->setWordWrap(true);
  list_->setAccessibleName(tr("Pictures"));
  list_->setToolTip(tr("Enter shows one, Delete takes it out, Ctrl+V attaches what was copied"));
  list_->installEventFilter(this);
  column->addWidget(list_);
  auto* row = new QHBoxLayout;
  row->setSpacing(8);
  auto* add = new QPushButton(tr("Attach a picture…"), this);
  add->setObjectName("addPicture");
  connect(add, &QPushButton::clicked, this, [this] { attach_from_file(desk_, of_, this); });
  row->addWidget(add);
  paste_ = new QPushButton(tr("Paste"), this);
  paste_->setObjectName("pastePicture");
  paste_->setToolTip(tr("a picture that was copied, or a copied file; files can be dropped here too"));
  connect(paste_, &QPushButton::clicked, this, [this] { attach_from_clipboard(desk_, of_, this); });
  row->addWidget(paste_);
  row->addStretch();
  column->addLayout(row);
  connect(list_, &QListWidget::itemActivated, this, &PictureStrip::open_chosen);
  connect(&desk_, &Desk::changed, this, [this] {
    if (isVisible()) refresh();
  });
  refresh();
}

void PictureStrip::show_of(const PictureOf& of) {
  if (of_ == of) return;
  of_ = of;
  refresh();
}

void PictureStrip::refresh() {
  for (const char* name : {"addPicture", "pastePicture"}) findChild<QPushButton*>(name)->setEnabled(!desk_.read_only());
  auto now = pictures_of(desk_, of_);
  if (now != shown_ || list_->count() != static_cast<int>(now.size())) {
    shown_ = std::move(now);
    const int at = list_->currentRow();
    list_->clear();
    for (const KeptPicture& p : shown_) {
      const QString caption = p.caption.empty() ? text_of(p.kind) : text_of(p.caption);
      auto* item = new QListWidgetItem(caption, list_);
      item->setToolTip(caption);
      item->setSizeHint({cell_width - 8, cell_height - 4});
      if (const auto known = drawn_.find(text_of(p.digest)); known != drawn_.end()) item->setIcon(QIcon(*known));
    }
    list_->setCurrentRow(std::min(at, list_->count() - 1));
  }
  list_->setVisible(!shown_.empty());
  fit_height();
  if (isVisible()) draw_next();
}

void PictureStrip::fit_height() {
  const int across = std::max(1, (width() - 8) / cell_width),
            lines = (static_cast<int>(shown_.size()) + across - 1) / across;
  list_->setFixedHeight(std::clamp(lines, 1, 2) * cell_height + 8);
}

/// Reads and draws the next picture that is not drawn yet.
void PictureStrip::draw_next() {
  if (background_.working()) return;
  for (const KeptPicture& p : shown_) {
    const QString digest = text_of(p.digest);
    if (drawn_.contains(digest)) continue;
    background_.ask(
        [file = desk_.book().file(), wanted = p.digest](auto) { return kept_image(file, wanted, small_px); },
        [this, digest](const QImage& image) {
          drawn_[digest] = QPixmap::fromImage(image);
          for (std::size_t i = 0; i < shown_.size(); ++i) {
            if (text_of(shown_[i].digest) != digest) continue;
            QListWidgetItem* item = list_->item(static_cast<int>(i));
            if (image.isNull())
              item->setText(tr("damaged: %1").arg(item->text()));
            else
              item->setIcon(QIcon(drawn_[digest]));
          }
          draw_next();
        });
    return;
  }
}

void PictureStrip::open_chosen() {
  const int row = list_->currentRow();
  if (row < 0 || row >= static_cast<int>(shown_.size())) return;
  PictureDialog(desk_, shown_[static_cast<std::size_t>(row)], this).exec();
}

void PictureStrip::take_out() {
  const int row = list_->currentRow();
  if (row < 0 || row >= static_cast<int>(shown_.size())) return;
  if (take_picture_out(desk_, shown_[static_cast<std::size_t>(row)]))
    desk_.say(tr("The picture is out. Ctrl+Z brings it back."));
}

bool PictureStrip::eventFilter(QObject* watched, QEvent* event) {
  if (watched == list_ && event->type() == QEvent::KeyPress) {
    auto* key = static_cast<QKeyEvent*>(event);
    if (key->key() == Qt::Key_Delete) return take_out(), true;
    if (key->matches(QKeySequence::Paste)) return attach_from_clipboard(desk_, of_, this), true;
  }
  return QWidget::eventFilter(watched, event);
}

void PictureStrip::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

void PictureStrip::dragEnterEvent(QDragEnterEvent* event) {
  const QList<QUrl> urls = event->mimeData()->urls();
  if (!urls.isEmpty() && urls.first().isLocalFile() && is_picture_file(urls.first().toLocalFile()))
    event->acceptProposedAction();
}

void PictureStrip::dropEvent(QDropEvent* event) {
  QStringList paths;
  for (const QUrl& url : event->mimeData()->urls())
    if (url.isLocalFile()) paths << url.toLocalFile();
  event->acceptProposedAction();
  attach_files(desk_, paths, of_, this);
}

}  // namespace sunbreak::desktop
